package packs

import (
	"bytes"
	"encoding/csv"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"slices"
	"strconv"
	"strings"

	"tussock/internal/given"
)

// JSON is a pack as a file.
func (p Pack) JSON() ([]byte, error) {
	p.ID, p.Ships, p.Read = "", false, false // of this place alone
	out, err := json.MarshalIndent(p, "", " ")
	return append(out, '\n'), err
}

// The columns of a pack as a table: what a row is, its text, and an answer.
var header = []string{"what", "text", "answer"}

// CSV is a pack as a table: rows of what, text and answer.
func (p Pack) CSV() ([]byte, error) {
	var b bytes.Buffer
	w := csv.NewWriter(&b)
	rows := [][]string{header, {"title", p.Title, ""}, {"kind", p.Kind, ""}, {"ages", strconv.Itoa(p.FromAge), strconv.Itoa(p.ToAge)}, {"language", p.Language, ""}}
	if p.Space != "" {
		rows = append(rows, []string{"space", p.Space, ""})
	}
	for _, q := range p.Words {
		rows = append(rows, []string{"word", q, ""})
	}
	for _, e := range p.Entries {
		rows = append(rows, []string{"message", e.Text, e.Answer})
	}
	for _, r := range rows { // no spreadsheet takes a text for a formula
		for i, c := range r {
			if c != "" && strings.ContainsRune("=+-@'\t", rune(c[0])) {
				r[i] = "'" + c
			}
		}
	}
	if err := w.WriteAll(rows); err != nil {
		return nil, err
	}
	return b.Bytes(), nil
}

// Parse reads a pack from a file: JSON, a table with the columns of CSV, or a plain list with
// a message in each line, as Listed reads it. The error is a *given.Error.
func Parse(text string) (Pack, error) {
	text = strings.TrimPrefix(strings.ReplaceAll(text, "\r\n", "\n"), "\uFEFF")
	trimmed := strings.TrimSpace(text)
	switch {
	case trimmed == "":
		return Pack{}, &given.Error{Field: "text", Value: "empty", Want: "messages, one in each line"}
	case strings.HasPrefix(trimmed, "{"):
		var p Pack
		d := json.NewDecoder(strings.NewReader(trimmed))
		d.DisallowUnknownFields()
		if err := d.Decode(&p); err != nil {
			return Pack{}, &given.Error{Field: "text", Value: err.Error(), Want: "a pack as JSON: title, kind, from_age, to_age, language, words, entries"}
		}
		p.ID, p.Ships, p.Read = "", false, false
		return p.Clean()
	case strings.HasPrefix(trimmed, strings.Join(header, ",")):
		return table(trimmed)
	}
	return Pack{Title: "My own", Kind: "own", ToAge: 99, Entries: Listed(text)}.Clean()
}

// equals parts a message from its answer in a list. A message may hold one itself: the last
// one counts.
const equals = " = "

// Listed reads messages from a list: one in each line, its answer after a tab or the last " = ".
func Listed(text string) (out []Entry) {
	for _, line := range strings.Split(strings.ReplaceAll(text, "\r\n", "\n"), "\n") {
		text, answer, tabbed := strings.Cut(line, "\t")
		if at := strings.LastIndex(line, equals); !tabbed && at >= 0 {
			text, answer = line[:at], line[at+len(equals):]
		}
		out = append(out, Entry{text, answer})
	}
	return out
}

// List is the messages as Listed reads them back. A tab parts what " = " would part elsewhere.
func (p Pack) List() string {
	lines := make([]string, len(p.Entries))
	for i, e := range p.Entries {
		switch asks := strings.Contains(e.Text, equals); {
		case e.Answer == "" && !asks:
			lines[i] = e.Text
		case e.Answer == "" || strings.Contains(e.Answer, equals):
			lines[i] = e.Text + "\t" + e.Answer
		default:
			lines[i] = e.Text + equals + e.Answer
		}
	}
	return strings.Join(lines, "\n")
}

func table(text string) (Pack, error) {
	r := csv.NewReader(strings.NewReader(text))
	r.FieldsPerRecord = -1
	rows, err := r.ReadAll()
	if err != nil {
		return Pack{}, &given.Error{Field: "text", Value: err.Error(), Want: "a table with commas: " + strings.Join(header, ",")}
	}
	p := Pack{ToAge: 99}
	for i, row := range rows[1:] {
		row = append(slices.Clone(row), "", "", "")
		for k := range row {
			row[k] = strings.TrimPrefix(row[k], "'")
		}
		bad := func(want string) error {
			return &given.Error{Field: fmt.Sprintf("row %d", i+2), Value: row[0] + ", " + row[1], Want: want}
		}
		switch strings.ToLower(strings.TrimSpace(row[0])) {
		case "title":
			p.Title = row[1]
		case "kind":
			p.Kind = row[1]
		case "language":
			p.Language = strings.TrimSpace(row[1])
		case "space":
			p.Space = row[1]
		case "ages":
			lo, err1 := strconv.Atoi(strings.TrimSpace(row[1]))
			hi, err2 := strconv.Atoi(strings.TrimSpace(row[2]))
			if err1 != nil || err2 != nil {
				return p, bad("two whole numbers, such as ages,6,12")
			}
			p.FromAge, p.ToAge = lo, hi
		case "word":
			p.Words = append(p.Words, row[1])
		case "message":
			p.Entries = append(p.Entries, Entry{row[1], row[2]})
		case "":
		default:
			return p, bad("title, kind, ages, language, space, word or message first")
		}
	}
	return p.Clean()
}

// Draw takes so many words and messages out of a pack, shuffled by a seed: the same seed gives
// the same ones. Where a pack has too few, they begin again.
func (p Pack) Draw(words, messages int, seed uint64) (w []string, e []Entry) {
	r := rand.New(rand.NewPCG(seed, uint64(len(p.Entries))))
	order := func(n int) []int { return r.Perm(n) }
	if len(p.Words) > 0 {
		at := order(len(p.Words))
		if words >= len(p.Words) {
			slices.Sort(at) // all of them: as they are written
		}
		for i := range words {
			w = append(w, p.Words[at[i%len(at)]])
		}
	}
	at := order(len(p.Entries))
	for i := range messages {
		e = append(e, p.Entries[at[i%len(at)]])
	}
	return w, e
}
