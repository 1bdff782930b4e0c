package lang

import (
	"fmt"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"
)

// MaxPatternBytes bounds a pattern file; real ones are a few kilobytes.
const MaxPatternBytes = 64 << 10

// ParseError says where a pattern cannot be read, why, and what would be right.
type ParseError struct {
	File      string
	Line, Col int // from 1; Col counts characters
	Problem   string
	Fix       string
}

func (e *ParseError) Error() string {
	s := fmt.Sprintf("%s:%d:%d: %s", e.File, e.Line, e.Col, e.Problem)
	if e.Fix != "" {
		s += "; " + e.Fix
	}
	return s
}

type tokenKind int8

const (
	tokEnd tokenKind = iota
	TokWord
	tokNumber
	TokText
	tokSign // one of ( ) [ ] , = + - * /
)

type token struct {
	Kind tokenKind
	Text string // as written; for tokText without the quotes
	num  float64
	col  int
}

func (t token) String() string {
	switch t.Kind {
	case tokEnd:
		return "the end of the line"
	case TokText:
		return strconv.Quote(t.Text)
	}
	return strconv.Quote(t.Text)
}

// lexLine cuts one line into tokens; the last is tokEnd.
func lexLine(line string) (toks []token, problem, fix string, col int) {
	col = 1
	rest := line
	inside := 0 // brackets
	take := func(n int) string {
		s := rest[:n]
		rest = rest[n:]
		col += utf8.RuneCountInString(s)
		return s
	}
	for rest != "" {
		c, size := utf8.DecodeRuneInString(rest)
		start := col
		switch {
		case c == utf8.RuneError && size == 1:
			return nil, "this is not readable text", "save the file as UTF-8", start
		case c == '#':
			rest = ""
		case unicode.IsSpace(c):
			take(size)
		case strings.ContainsRune("()[],=+*/", c) || c == '-' && !(signed(toks, line, start) && startsNumber(rest[1:])):
			inside += strings.Count("([", rest[:size]) - strings.Count(")]", rest[:size])
			toks = append(toks, token{Kind: tokSign, Text: take(size), col: start})
		case operators[c] != "": // the signs of a typewritten or printed text
			take(size)
			toks = append(toks, token{Kind: tokSign, Text: operators[c], col: start})
		case c == '"':
			end := strings.IndexByte(rest[1:], '"')
			if end < 0 {
				return nil, "the text has no closing quote", `end it with "`, start
			}
			s := take(end + 2)
			toks = append(toks, token{Kind: TokText, Text: s[1 : len(s)-1], col: start})
		case c == '-' || c == '.' || c >= '0' && c <= '9':
			n := strings.IndexFunc(rest[1:], func(r rune) bool { return !(r == '.' || r >= '0' && r <= '9') }) + 1
			if n == 0 {
				n = len(rest)
			}
			s := take(n)
			v, err := strconv.ParseFloat(s, 64)
			if err != nil {
				return nil, strconv.Quote(s) + " is not a number", "write 12, 0.5, -3 or 1/3", start
			}
			if problem, fix := after(s, rest, inside); problem != "" {
				return nil, problem, fix, start
			}
			toks = append(toks, token{Kind: tokNumber, Text: s, num: v, col: start})
		case unicode.IsLetter(c):
			n := strings.IndexFunc(rest, func(r rune) bool {
				return !(unicode.IsLetter(r) || unicode.IsDigit(r) || r == '_')
			})
			if n < 0 {
				n = len(rest)
			}
			toks = append(toks, token{Kind: TokWord, Text: take(n), col: start})
		default:
			return nil, strconv.QuoteRune(c) + " has no meaning here", "remove it", start
		}
	}
	return append(toks, token{Kind: tokEnd, col: col}), "", "", 0
}

// operators are other ways to write the signs of arithmetic.
var operators = map[rune]string{'−': "-", '×': "*", '·': "*", '÷': "/"}

func startsNumber(s string) bool {
	return s != "" && (s[0] == '.' || s[0] >= '0' && s[0] <= '9')
}

// signed tells whether a minus belongs to the number behind it: at the beginning, behind a
// sign, and behind a space ("0 -3" are two numbers, "0 - 3" and "a-3" are one).
func signed(toks []token, line string, col int) bool {
	if len(toks) == 0 {
		return true
	}
	last := toks[len(toks)-1]
	if last.Kind == tokSign && last.Text != ")" && last.Text != "]" {
		return true
	}
	before := []rune(line)[col-2]
	return unicode.IsSpace(before)
}

// after looks at what stands right behind a number, and tells what is meant.
func after(number, rest string, inside int) (problem, fix string) {
	c, _ := utf8.DecodeRuneInString(rest)
	switch {
	case c == ',' && inside == 0 && startsNumber(rest[1:]):
		n := strings.IndexFunc(rest[1:], func(r rune) bool { return r < '0' || r > '9' }) + 1
		if n == 0 {
			n = len(rest)
		}
		return strconv.Quote(number+rest[:n]) + " has a comma", "write " + number + "." + rest[1:n]
	case unicode.IsLetter(c):
		n := strings.IndexFunc(rest, func(r rune) bool { return !unicode.IsLetter(r) })
		if n < 0 {
			n = len(rest)
		}
		unit := rest[:n]
		if factor, known := inMM[unit]; known {
			v, _ := strconv.ParseFloat(number, 64)
			return strconv.Quote(number+unit) + " is no number: lengths are mm and stand without their unit", "write " + strconv.FormatFloat(v*factor, 'f', -1, 64)
		}
		if unit == "deg" || unit == "g" {
			return strconv.Quote(number+unit) + " is no number: units are not written to a number", "write " + number
		}
	}
	return "", ""
}

// inMM are units of length that people write to a number.
var inMM = map[string]float64{"mm": 1, "cm": 10, "m": 1000, "in": 25.4, "inch": 25.4}
