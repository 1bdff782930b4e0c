package closure_test

import (
	"math"
	"testing"

	"tussock/internal/closure"
	"tussock/internal/foldtest"
	"tussock/internal/geom"
)

// wings are the drives of the bird's openings.
func wings(b *testing.B) (*closure.Mechanism, closure.Ask) {
	b.Helper()
	r := foldtest.On(b, foldtest.Toy(b, "bird"), 150, 150, nil)
	s := r.Final()
	m := closure.Of(s)
	var a closure.Ask
	for _, o := range r.Openings {
		for i, h := range s.H {
			if m.Flat()[i] != 0 && h.Along(o.Pieces...) {
				a.Drives = append(a.Drives, closure.Drive{Hinge: int32(i), Want: math.Copysign(geom.Rad(100), m.Flat()[i])})
			}
		}
	}
	return m, a
}

func BenchmarkBirdWays(b *testing.B) {
	m, a := wings(b)
	for b.Loop() {
		m.Ways(a)
	}
}

// Sixty frames of the bird's wings; a pose costs a sixtieth.
func BenchmarkBird60Frames(b *testing.B) {
	m, a := wings(b)
	ways := m.Ways(a)
	b.ResetTimer()
	for b.Loop() {
		m.Follow(a, ways[0], 60)
	}
}

func BenchmarkTeller60Frames(b *testing.B) {
	s := foldtest.On(b, foldtest.Toy(b, "teller"), 160, 160, nil).Final()
	m := closure.Of(s)
	a := closure.Ask{Tied: true}
	for _, at := range [][2]float64{{80, 100}, {80, 60}, {100, 80}, {60, 80}} {
		a.Drives = append(a.Drives, drive(hingeAt(s, at[0], at[1]), 180))
	}
	ways := m.Ways(a)
	b.ResetTimer()
	for b.Loop() {
		m.Follow(a, ways[0], 60)
	}
}

func benchGrid(b *testing.B, rows, cols int, tied bool) {
	s, mv := grid(b, rows, cols)
	m := closure.Of(s)
	var must []int32
	for i := range s.H {
		must = append(must, int32(i))
	}
	a := closure.Ask{Drives: []closure.Drive{drive(0, 120*float64(mv[0]))}, Sense: mv, Must: must, Tied: tied}
	ways := m.Ways(a)
	if len(ways) == 0 {
		b.Fatal("no way")
	}
	b.ResetTimer()
	for b.Loop() {
		m.Follow(a, ways[0], 60)
	}
}

func BenchmarkGrid20(b *testing.B)      { benchGrid(b, 4, 5, false) }
func BenchmarkGrid40(b *testing.B)      { benchGrid(b, 5, 8, false) }
func BenchmarkGrid100Tied(b *testing.B) { benchGrid(b, 10, 10, true) }
