package layermap_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"tussock/internal/fold/layermap"
	"tussock/internal/foldtest"
	"tussock/internal/geom"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/ways"
)

// The outline's area is the area of the cells, and a random spot is inside the
// outline exactly when it is on some piece.
func TestSilhouetteIsExact(t *testing.T) {
	rnd := rand.New(rand.NewPCG(5, 6))
	for name, text := range map[string]string{
		"corner":  "sheet square 100\nvalley bring TL to C",
		"arrow":   "sheet rect 100 200\nvalley bring TL to R\nvalley through L BR moving BL",
		"bird":    "sheet square 150\nuse bird",
		"twist":   "sheet square 150\ntwist 4 about C radius 20 slant 50 fixed C",
		"pieces":  "sheet square 100\nvalley bring TL to part(TL,BR,0.3)\nmountain bring BR to part(BR,TL,0.2)",
		"a notch": "sheet polygon 0 0 100 0 100 100 60 100 60 50 40 50 40 100 0 100\ncrease bring E1 to part(BL,TL,0.2)",
	} {
		if name == "a notch" {
			text = "sheet polygon 0 0 100 0 100 100 60 100 60 50 40 50 40 100 0 100\ncrease through part(P1,P8,0.2) square E8"
			p, err := ways.Parse("t", text)
			if err != nil {
				t.Fatal(err)
			}
			s, err := sheet.Polygon(p.Shape.Corners, 80, 0.1)
			if err != nil {
				t.Fatal(err)
			}
			check(t, name, p.Run(s, nil), rnd)
			continue
		}
		check(t, name, foldtest.Fold(t, text), rnd)
	}
}

func check(t *testing.T, name string, r *sequence.Replay, rnd *rand.Rand) {
	t.Helper()
	if r.Err != nil {
		t.Fatal(name, r.Err)
	}
	s := r.Final()
	cells := layermap.Cells(s)
	rims := layermap.Silhouette(cells)
	var area float64
	for _, p := range rims {
		area += p.Area()
	}
	if d := area - layermap.Area(cells); math.Abs(d) > 1e-2 {
		t.Errorf("%s: the outline holds %.4f mm², the cells %.4f", name, area, layermap.Area(cells))
	}
	box := s.Box()
	for range 400 {
		q := geom.Vec{X: box.MinX + rnd.Float64()*box.Width(), Y: box.MinY + rnd.Float64()*box.Height()}
		if near(rims, q) {
			continue
		}
		inside := false
		for _, p := range rims {
			inside = inside != winds(p, q)
		}
		_, on := s.TopAt(q)
		if on != inside {
			t.Errorf("%s: at %v paper %v, outline %v", name, q, on, inside)
		}
	}
}

func near(rims []geom.Polygon, q geom.Vec) bool {
	for _, p := range rims {
		for i := range p {
			if (geom.Segment{A: p[i], B: p[(i+1)%len(p)]}).Dist(q) < 1e-2 {
				return true
			}
		}
	}
	return false
}

func winds(p geom.Polygon, q geom.Vec) bool {
	in := false
	for i, a := range p {
		b := p[(i+1)%len(p)]
		if (a.Y > q.Y) != (b.Y > q.Y) && q.X < a.X+(q.Y-a.Y)*(b.X-a.X)/(b.Y-a.Y) {
			in = !in
		}
	}
	return in
}

// Known by hand: the faces that a corner folded to the middle shows.
func TestFacesOfAFoldedCorner(t *testing.T) {
	s := foldtest.Fold(t, "sheet square 100\nvalley bring TL to C").Final()
	cells := layermap.Cells(s)
	top, bottom := layermap.Visible(s, cells)
	flap := 50.0 * 50 / 2
	if math.Abs(top.BackMM2-flap) > 1e-6 || math.Abs(top.FrontMM2-(10000-2*flap)) > 1e-6 {
		t.Errorf("from above %+v", top)
	}
	if bottom.FrontMM2 != 0 || math.Abs(bottom.BackMM2-(10000-flap)) > 1e-6 {
		t.Errorf("from behind %+v", bottom)
	}
}

// What shows adds up to the silhouette on both sides, whatever the toy.
func TestFacesAddUp(t *testing.T) {
	for _, text := range []string{"sheet square 150\nuse bird", "sheet square 120\nuse blintz\nturn lr\nvalley bring L to R"} {
		s := foldtest.Fold(t, text).Final()
		cells := layermap.Cells(s)
		top, bottom := layermap.Visible(s, cells)
		for _, v := range []layermap.Seen{top, bottom} {
			if math.Abs(v.FrontMM2+v.BackMM2-layermap.Area(cells)) > 1e-6 {
				t.Errorf("%+v is not the silhouette's %v", v, layermap.Area(cells))
			}
		}
	}
}

// A sheet folded in half is no pocket: nothing holds it at the sides. Fold the
// sides behind, and it is one: as wide as its mouth and as deep as the half.
func TestPocketByHand(t *testing.T) {
	half := foldtest.Fold(t, "sheet rect 100 120\nvalley bring top to bottom as f").Final()
	for _, p := range layermap.Pockets(half, layermap.Cells(half)) {
		if p.Closed > 0.5 {
			t.Errorf("a half fold has a pocket %+v", p)
		}
	}
	text := "sheet rect 100 120\nvalley bring top to bottom as f\n" +
		"mountain along par(left,20,C) moving BL layers all\nmountain along par(right,20,C) moving BR layers all"
	s := foldtest.Fold(t, text).Final()
	found := layermap.Pockets(s, layermap.Cells(s))
	if len(found) == 0 {
		t.Fatal("no pocket")
	}
	p := found[0]
	if math.Abs(p.Mouth.Len()-60) > 1e-3 || math.Abs(p.DepthMM-60) > 1e-3 {
		t.Errorf("the pocket is %v wide and %v deep, want 60 and 60", p.Mouth.Len(), p.DepthMM)
	}
	if math.Abs(p.Mouth.A.Y) > 1e-3 || p.Cover != 0 {
		t.Errorf("its mouth is at %v, covered by %d layers; want the lower edge, open to the viewer", p.Mouth, p.Cover)
	}
}

// The waterbomb base's front flap hides the two layers under it.
func TestHiddenEdges(t *testing.T) {
	s := foldtest.Fold(t, "sheet square 100\nvalley bring TL to C").Final()
	var sum float64
	for _, h := range layermap.Hidden(s, layermap.Cells(s)) {
		sum += h.Len()
	}
	if sum != 0 {
		t.Errorf("one flap hides no edge, yet %v mm are found", sum)
	}
	s = foldtest.Fold(t, "sheet square 100\nvalley bring TL to C\nturn lr").Final()
	sum = 0
	for _, h := range layermap.Hidden(s, layermap.Cells(s)) {
		sum += h.Len()
	}
	if math.Abs(sum-100) > 1e-6 { // its two raw edges, 50 mm each
		t.Errorf("from behind %v mm of edge are hidden, want 100", sum)
	}
}

func TestMirrorResidual(t *testing.T) {
	r := foldtest.Fold(t, "sheet rect 210 297\ncrease bring left to right as keel\nvalley bring TL to keel through T near C\nvalley bring TR to keel through T near C")
	at := map[string]geom.Vec{}
	for n, p := range r.Landmarks {
		if v, ok := sequence.Place(r.Final(), p); ok {
			at[n] = v
		}
	}
	res, ok := layermap.Mirror(210, r.Landmarks, at)
	if !ok || len(res) < 3 {
		t.Fatalf("pairs %v", res)
	}
	for _, q := range res {
		if q.MM > 1e-9 {
			t.Errorf("%s and %s differ by %v mm in a toy that is alike on both sides", q.Left, q.Right, q.MM)
		}
	}
	at["TL"] = at["TL"].Add(geom.Vec{X: 2})
	res, _ = layermap.Mirror(210, r.Landmarks, at)
	worst := layermap.Residual{}
	for _, q := range res {
		if q.MM > worst.MM {
			worst = q
		}
	}
	if worst.Left != "TL" || worst.MM < 0.5 || worst.MM > 2 {
		t.Errorf("after moving TL by 2 mm the worst pair is %+v", worst)
	}
}

func BenchmarkPocketsOfBird(b *testing.B) {
	s := foldtest.Fold(b, "sheet square 150\nuse bird").Final()
	cells := layermap.Cells(s)
	for b.Loop() {
		layermap.Pockets(s, cells)
	}
}
