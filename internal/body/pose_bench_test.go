package body_test

import (
	"testing"

	"tussock/internal/body"
	"tussock/internal/foldtest"
)

// The bird with its wings half open: the bar is 2 ms a pose.
func BenchmarkPoseOfTheBird(b *testing.B) {
	p := foldtest.Toy(b, "bird")
	r := foldtest.On(b, p, p.WidthMM, p.HeightMM, nil)
	b.ReportAllocs()
	for b.Loop() {
		if pose := body.Standing(r); !pose.Sound() {
			b.Fatal(pose.Unsound())
		}
	}
	b.ReportMetric(float64(len(r.Final().F)), "facets")
}
