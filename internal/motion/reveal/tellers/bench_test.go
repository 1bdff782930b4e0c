package tellers_test

import (
	"testing"

	"tussock/internal/motion"
	"tussock/internal/packs"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
	"tussock/internal/ways"
)

// A prediction with all its pictures, folded once; and with its fold.
func BenchmarkPredict(b *testing.B) {
	p, _ := shelf.Find("fortune")
	w := ways.For(p)
	sh, err := sheet.New(150, 150, 80, 0.1)
	if err != nil {
		b.Fatal(err)
	}
	places, err := w.Writing.Places(p.Run(sh, nil))
	if err != nil {
		b.Fatal(err)
	}
	all, err := packs.Shipped()
	if err != nil {
		b.Fatal(err)
	}
	var said []string
	words, entries := all[0].Draw(4, 8, 1)
	for _, e := range entries {
		said = append(said, e.Text)
	}
	c, err := w.Full(nil)
	if err != nil {
		b.Fatal(err)
	}
	t := motion.WithWritten(w.On(p, sh).Under(c, motion.Calibration{}), w.Writing.Fill(places, nil, words, said, true))
	b.Run("drawn", func(b *testing.B) {
		for b.Loop() {
			if _, err := t.Predict(b.Context(), nil, nil); err != nil {
				b.Fatal(err)
			}
		}
	})
	b.Run("folded", func(b *testing.B) {
		for i := 0; b.Loop(); i++ {
			if _, err := t.Predict(b.Context(), map[string]float64{"gap": 0.3 + 1e-4*float64(i)}, nil); err != nil {
				b.Fatal(err)
			}
		}
	})
}
