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
	tokSign // one of ( ) [ ] , =
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
		case strings.ContainsRune("()[],=", c):
			toks = append(toks, token{Kind: tokSign, Text: take(size), col: start})
		case c == '"':
			end := strings.IndexByte(rest[1:], '"')
			if end < 0 {
				return nil, "the text has no closing quote", `end it with "`, start
			}
			s := take(end + 2)
			toks = append(toks, token{Kind: TokText, Text: s[1 : len(s)-1], col: start})
		case c == '-' || c == '.' || c >= '0' && c <= '9':
			n := strings.IndexFunc(rest, func(r rune) bool {
				return !(r == '-' || r == '.' || r == '/' || r >= '0' && r <= '9')
			})
			if n < 0 {
				n = len(rest)
			}
			s := take(n)
			v, ok := parseNumber(s)
			if !ok {
				return nil, strconv.Quote(s) + " is not a number", "write 12, 0.5, -3 or 1/3", start
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

func parseNumber(s string) (float64, bool) {
	a, b, isFraction := strings.Cut(s, "/")
	x, err := strconv.ParseFloat(a, 64)
	if err != nil {
		return 0, false
	}
	if !isFraction {
		return x, true
	}
	y, err := strconv.ParseFloat(b, 64)
	if err != nil || y == 0 {
		return 0, false
	}
	return x / y, true
}
