package exchange_test

import (
	"encoding/csv"
	"strings"
	"testing"
	"time"

	"tussock/internal/bench"
	"tussock/internal/exchange"
	"tussock/internal/shelf"
	"tussock/internal/ways"
)

// The table reads back with what was logged, whatever people have written in it, and no
// cell of theirs begins a formula.
func TestTrialsAsATable(t *testing.T) {
	p, _ := shelf.Find("curlew")
	w := &ways.For(p).Way
	at := time.Date(2026, 11, 29, 15, 40, 0, 0, time.UTC)
	odd := []string{"=cmd|' /C calc'!A0", "+1+1", "-2", "@SUM(A1)", "\t=1", " =1", "line\nbreak, \"quoted\"", "a\x00b\x1b[2J", "Wörter ☂"}
	b := &bench.Build{Name: "=1+1", Tweaks: []bench.Tweak{{No: 1, Why: "-x", Setup: bench.Setup{Knobs: map[string]float64{"curl": 6.5}}}}}
	for i, o := range odd {
		b.Tweaks[0].Trials = append(b.Tweaks[0].Trials, bench.Trial{At: at, Read: map[string]float64{"distance": 5.25 + float64(i), "aside": -0.5}, Seen: []string{"glided"}, Thrower: o, Place: o, Air: o, Note: o})
	}
	var out strings.Builder
	if err := exchange.WriteTrials(&out, b, p, w); err != nil {
		t.Fatal(err)
	}
	rows, err := csv.NewReader(strings.NewReader(out.String())).ReadAll()
	if err != nil {
		t.Fatal(err)
	}
	if len(rows) != 1+len(odd) {
		t.Fatalf("%d lines", len(rows))
	}
	column := map[string]int{}
	for i, h := range rows[0] {
		column[h] = i
	}
	for i, row := range rows[1:] {
		get := func(h string) string {
			k, known := column[h]
			if !known {
				t.Fatalf("there is no column %q in %q", h, rows[0])
			}
			return row[k]
		}
		if get("Distance, m") != []string{"5.25", "6.25", "7.25", "8.25", "9.25", "10.25", "11.25", "12.25", "13.25"}[i] || get("Landed aside of the line aimed at, m") != "-0.5" || get("Tail curl, deg") != "6.5" || get("tweak") != "1" || get("when") != "2026-11-29T15:40:00Z" {
			t.Errorf("line %d: %q", i+1, row)
		}
		for _, h := range []string{"build", "why", "note", "place", "air", w.Words.Who} {
			if c := strings.TrimLeft(get(h), " \t\n"); c != "" && strings.ContainsRune("=+-@", rune(c[0])) || strings.ContainsAny(c, "\x00\x1b") {
				t.Errorf("%s is %q", h, get(h))
			}
		}
	}
	if got := rows[7][column["note"]]; got != odd[6] {
		t.Errorf("a note with a line break and quotes is %q", got)
	}
}
