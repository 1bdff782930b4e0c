package exchange

import (
	"encoding/csv"
	"io"
	"maps"
	"slices"
	"strconv"
	"strings"
	"time"

	"tussock/internal/bench"
	"tussock/internal/motion"
	"tussock/internal/say"
	"tussock/internal/sequence"
)

// WriteTrials writes the trials of a build as a table, CSV of RFC 4180 with a heading: one
// line a trial, with the tweak it belongs to, its readings in the units of the heading, and
// the knobs of the tweak.
//
// Words that people have written never begin a formula where the table is opened: such a
// cell begins with an apostrophe.
func WriteTrials(w io.Writer, b *bench.Build, p *sequence.Pattern, way *motion.Way) error {
	out := csv.NewWriter(w)
	out.UseCRLF = true
	head := []string{"build", "tweak", "why", "when", "kind"}
	for _, r := range way.Records {
		head = append(head, withUnit(r.Label, r.Unit))
	}
	head = append(head, "seen", "under", way.Words.Who, "place", "air", "note")
	for _, k := range p.Knobs {
		if !k.Plain {
			head = append(head, withUnit(k.Label, k.Unit))
		}
	}
	rows := [][]string{head}
	for _, t := range b.Tweaks {
		knobs := p.FullKnobs(t.Setup.Knobs)
		for _, x := range t.Trials {
			kind := ""
			if k, ok := way.Kind(x.Kind); ok {
				kind = k.Label
			}
			row := []string{words(say.OneLine(b.Name)), strconv.Itoa(t.No), words(t.Why), x.At.UTC().Format(time.RFC3339), kind}
			for _, r := range way.Records {
				cell := ""
				if v, measured := x.Read[r.ID]; measured {
					cell = exactly(v)
				}
				row = append(row, cell)
			}
			var under []string
			for _, k := range slices.Sorted(maps.Keys(x.Under)) {
				under = append(under, k+": "+x.Under[k])
			}
			row = append(row, words(strings.Join(x.Seen, "; ")), words(strings.Join(under, "; ")), words(x.Thrower), words(x.Place), words(x.Air), words(x.Note))
			for _, k := range p.Knobs {
				if !k.Plain {
					row = append(row, exactly(knobs[k.Name]))
				}
			}
			rows = append(rows, row)
		}
	}
	return out.WriteAll(rows)
}

func withUnit(label, unit string) string {
	if unit == "" {
		return label
	}
	return label + ", " + unit
}

func exactly(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }

// words are a cell that somebody has written: without what does not print, and no formula.
func words(text string) string {
	text = strings.Map(func(r rune) rune {
		if r < ' ' && r != '\n' || r == 0x7f {
			return -1
		}
		return r
	}, strings.ReplaceAll(text, "\r\n", "\n"))
	if trimmed := strings.TrimLeft(text, " \t\n"); trimmed != "" && strings.ContainsRune("=+-@", rune(trimmed[0])) {
		return "'" + text
	}
	return text
}
