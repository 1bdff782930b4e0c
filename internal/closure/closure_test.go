package closure_test

import (
	"math"
	"strconv"
	"testing"

	"tussock/internal/closure"
	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sheet"
)

// star is flat paper with creases that go out from one vertex, these sectors apart.
// Crease i lies before sector i.
func star(t testing.TB, sectors ...float64) *fold.State {
	t.Helper()
	s, err := sheet.New(300, 300, 80, 0.1)
	if err != nil {
		t.Fatal(err)
	}
	st := &fold.State{Sheet: s}
	o := geom.Vec{X: 150, Y: 150}
	ray := func(deg float64) geom.Vec {
		return o.Add(geom.Vec{X: math.Cos(geom.Rad(deg)), Y: math.Sin(geom.Rad(deg))}.Scale(100))
	}
	at, n := 0.0, len(sectors)
	for i, w := range sectors {
		st.F = append(st.F, fold.Facet{Poly: geom.Polygon{o, ray(at), ray(at + w)}, Iso: geom.Identity})
		st.H = append(st.H, fold.Hinge{A: fold.FacetID((i + n - 1) % n), B: fold.FacetID(i), P: o, Q: ray(at), Kind: fold.Crease, Parent: -1, Crease: fold.CreaseID(i + 1)})
		at += w
	}
	if math.Abs(at-360) > 1e-9 {
		t.Fatalf("sectors add up to %v", at)
	}
	return st.Refreshed()
}

// senses reads M and V; any other letter leaves a crease free.
func senses(mv string) map[int32]int8 {
	out := map[int32]int8{}
	for i, c := range mv {
		switch c {
		case 'M':
			out[int32(i)] = 1
		case 'V':
			out[int32(i)] = -1
		}
	}
	return out
}

func near(t testing.TB, what string, got, want, tol float64) {
	t.Helper()
	if !(math.Abs(got-want) <= tol) {
		t.Errorf("%s: %.9f, want %v ± %g", what, got, want, tol)
	}
}

func deg(rho []float64) []float64 {
	out := make([]float64, len(rho))
	for i := range rho {
		out[i] = geom.Deg(rho[i])
	}
	return out
}

func drive(hinge int32, deg float64) closure.Drive {
	return closure.Drive{Hinge: hinge, Want: geom.Rad(deg)}
}

// sound fails unless a pose closes and is where it was asked.
func sound(t testing.TB, f closure.Found) {
	t.Helper()
	if f.Closure > 1e-8 || f.GapMM > closure.SoundMM || f.MissDeg > 1e-6 || f.MissMM > 1e-4 {
		t.Errorf("%s: closure %g, gap %g mm, misses %g° %g mm", f.State, f.Closure, f.GapMM, f.MissDeg, f.MissMM)
	}
}

func TestFourCreasesBySense(t *testing.T) {
	for _, c := range []struct {
		sectors []float64
		mv      string
		deg     float64
		want    []float64 // of creases 1, 2, 3
	}{
		{[]float64{60, 90, 120, 90}, "MVMM", 60, []float64{-17.587954, 60, 17.587954}},
		{[]float64{60, 90, 120, 90}, "VMMM", -60, []float64{130.207819, 60, 130.207819}},
		{[]float64{45, 67.5, 135, 112.5}, "MVMM", 60, []float64{-36.219905, 60, 36.219905}},
		{[]float64{45, 67.5, 135, 112.5}, "VMMM", -60, []float64{135.766693, 60, 135.766693}},
		{[]float64{50, 80, 130, 100}, "MVMM", 60, []float64{-28.353386, 60, 28.353386}},
		{[]float64{50, 80, 130, 100}, "VMMM", -60, []float64{127.363167, 60, 127.363167}},
		{[]float64{70, 80, 100, 110}, "MVMM", 40, []float64{-10.526912, 38.09499, 10.526912}},
		{[]float64{70, 80, 100, 110}, "MVMM", 180, []float64{-118.976732, 145.180296, 118.976732}},
	} {
		m := closure.Of(star(t, c.sectors...))
		mo := m.Move(closure.Ask{Drives: []closure.Drive{drive(0, c.deg)}, Sense: senses(c.mv), Ranks: true}, 8)
		if mo.State != closure.Sound {
			t.Errorf("%v %s: %s at %v", c.sectors, c.mv, mo.State, mo.Part)
			continue
		}
		sound(t, mo.Last())
		got := deg(mo.Last().Rho)
		for i, w := range c.want {
			near(t, "crease", got[i+1], w, 1e-5)
		}
		if f := mo.Last(); c.deg != 180 && f.Freedoms != 0+1 {
			t.Errorf("%v: %d freedoms, rank %d", c.sectors, f.Freedoms, f.Rank)
		}
	}
	// Senses that the half-angle law excludes have no way.
	m := closure.Of(star(t, 60, 90, 120, 90))
	for _, mv := range []string{"MMMM", "MVVM", "MMVV", "MMVM"} {
		if ways := m.Ways(closure.Ask{Drives: []closure.Drive{drive(0, 60)}, Sense: senses(mv), Must: []int32{0, 1, 2, 3}}); len(ways) > 0 {
			t.Errorf("%s: %v", mv, ways[0].Rates)
		}
	}
}

// Two folds across each other: while one stands open the other is locked.
func TestCrossedFoldsLock(t *testing.T) {
	m := closure.Of(star(t, 90, 90, 90, 90))
	from := []float64{geom.Rad(60), 0, geom.Rad(60), 0}
	mo := m.Move(closure.Ask{From: from, Drives: []closure.Drive{drive(0, 60), drive(2, 60), drive(1, 40)}}, 10)
	if mo.State != closure.Locked || mo.Part != 0 || mo.Last().Rho[1] != 0 {
		t.Errorf("%s at %v: %v", mo.State, mo.Part, deg(mo.Last().Rho))
	}
}

func TestOverDriven(t *testing.T) {
	m := closure.Of(star(t, 60, 90, 120, 90))
	a := closure.Ask{Drives: []closure.Drive{drive(0, 70), drive(1, -30)}}
	f := m.Solve(a, []float64{geom.Rad(70), geom.Rad(-20), geom.Rad(70), geom.Rad(20)})
	if f.State != closure.Over || f.Closure > 1e-12 {
		t.Errorf("%s, closure %g", f.State, f.Closure)
	}
	near(t, "first", geom.Deg(f.Rho[0]), 73.018236, 1e-5)
	near(t, "second", geom.Deg(f.Rho[1]), -22.436677, 1e-5)
	near(t, "miss", f.MissDeg, 7.563323, 1e-5)
}

// The hump of a flapping bird: six creases, its ridges pulled apart. The law is
// cos λ = tan(45° − φ/2), in motion.md's words; here by the angle at the wing roots.
func TestHump(t *testing.T) {
	s := star(t, 45, 90, 45, 45, 90, 45)
	flat, err := s.Flattened(func(i int, _ fold.Hinge) (fold.Assignment, bool) {
		return fold.Assignment(senses("MVVMVV")[int32(i)]), false
	})
	if err != nil {
		t.Fatal(err)
	}
	m := closure.Of(flat)
	o := geom.Vec{X: 150, Y: 150}
	spots := &[2]closure.Spot{{Facet: 0, At: o.Add(geom.Vec{X: 50})}, {Facet: 3, At: o.Add(geom.Vec{X: -50})}}
	for _, c := range []struct{ phi, lam float64 }{
		{5, 23.60451565}, {10, 32.95483533}, {20, 45.55634281}, {30, 54.73561032}, {45, 65.53019948},
	} {
		mo := m.Move(closure.Ask{Drives: []closure.Drive{{Spots: spots, Want: 100 * math.Sin(geom.Rad(c.phi))}}, Tied: true}, 20)
		if mo.State != closure.Sound && mo.State != closure.Crosses {
			t.Fatalf("φ %v: %s at %v", c.phi, mo.State, mo.Part)
		}
		f := mo.Last()
		sound(t, f)
		// λ is how far the middle of a wing sector tilts out of the plane of the ridges.
		ridge := func(d float64, piece int) geom.Vec3 {
			p := o.Add(geom.Vec{X: math.Cos(geom.Rad(d)), Y: math.Sin(geom.Rad(d))})
			return f.At[piece].Apply(geom.Vec3{X: p.X, Y: p.Y}).Sub(f.At[piece].Apply(geom.Vec3{X: o.X, Y: o.Y}))
		}
		a, b := ridge(0, 0), ridge(180, 3)
		plane := a.Cross(b).Unit()
		wing := ridge(90, 1)
		axis := a.Add(b).Unit()
		lam := geom.Deg(math.Atan2(math.Abs(wing.Dot(plane)), math.Abs(wing.Dot(axis))))
		near(t, "λ", lam, c.lam, 1e-6)
		if c.phi == 30 {
			near(t, "ridge", math.Abs(geom.Deg(f.Rho[0])), 70.528779, 1e-5)
			near(t, "middle", math.Abs(geom.Deg(f.Rho[1])), 90, 1e-5)
		}
	}
}

// Eight creases 45° apart, fourfold: two ways with the valleys at 40.
func TestEightCreasesFourfold(t *testing.T) {
	m := closure.Of(star(t, 45, 45, 45, 45, 45, 45, 45, 45))
	var drives []closure.Drive
	for i := int32(1); i < 8; i += 2 {
		drives = append(drives, drive(i, -40))
	}
	var got []float64
	for _, near := range []float64{17, 95} {
		rho := make([]float64, 8)
		for i := range rho {
			rho[i] = geom.Rad(near)
			if i%2 == 1 {
				rho[i] = geom.Rad(-40)
			}
		}
		f := m.Solve(closure.Ask{Drives: drives, Tied: true}, rho)
		sound(t, f)
		got = append(got, geom.Deg(f.Rho[0]))
	}
	near(t, "shallow", got[0], 16.709184, 1e-5)
	near(t, "pinched", got[1], 92.236069, 1e-5)
	mo := m.Move(closure.Ask{Drives: drives, Tied: true}, 6)
	sound(t, mo.Last())
	near(t, "from flat", math.Abs(geom.Deg(mo.Last().Rho[0])), 16.709184, 1e-5)
}

// Six creases 60° apart, threefold: three shut, and from the star they open again.
func TestSixCreasesThreefold(t *testing.T) {
	m := closure.Of(star(t, 60, 60, 60, 60, 60, 60))
	var drives []closure.Drive
	for i := int32(1); i < 6; i += 2 {
		drives = append(drives, drive(i, -180))
	}
	ask := closure.Ask{Drives: drives, Tied: true, Sense: senses("MVMVMV")}
	mo := m.Move(ask, 6)
	if mo.State != closure.Sound && mo.State != closure.Crosses || len(mo.Frames) != 7 {
		t.Fatalf("%s at %v", mo.State, mo.Part)
	}
	for i, want := range []float64{8.081354, 16.426421, 25.332939, 35.175908, 46.473475, 60} {
		f := mo.Frames[i+1]
		sound(t, f)
		near(t, "others", geom.Deg(f.Rho[0]), want, 1e-5)
	}
}

// A grid of parallelograms: one crease decides all others.
func TestGridOfParallelograms(t *testing.T) {
	for _, size := range [][2]int{{4, 5}, {5, 8}, {10, 10}} {
		s, mv := grid(t, size[0], size[1])
		m := closure.Of(s)
		var drives []closure.Drive
		drives = append(drives, drive(0, 120*float64(mv[0])))
		var must []int32
		for i := range s.H {
			must = append(must, int32(i))
		}
		mo := m.Move(closure.Ask{Drives: drives, Sense: mv, Must: must, Tied: true, Ranks: true}, 10)
		if mo.State != closure.Sound {
			t.Fatalf("%v: %s at %v", size, mo.State, mo.Part)
		}
		f := mo.Last()
		sound(t, f)
		for i, r := range f.Rho {
			if a := math.Abs(geom.Deg(r)); math.Abs(a-120) > 1e-6 && math.Abs(a-81.786789) > 1e-6 {
				t.Fatalf("%v: crease %d folds by %v", size, i, a)
			}
		}
		if f.Freedoms != 1 {
			t.Errorf("%v: %d freedoms", size, f.Freedoms)
		}
	}
}

// grid is rows × columns of parallelograms with corners of 60°, zigzag across.
func grid(t testing.TB, rows, cols int) (*fold.State, map[int32]int8) {
	t.Helper()
	s, err := sheet.New(400, 400, 80, 0.1)
	if err != nil {
		t.Fatal(err)
	}
	st := &fold.State{Sheet: s}
	at := func(r, c int) geom.Vec {
		v := geom.Vec{X: 20 * float64(c), Y: 20 * math.Sin(geom.Rad(60)) * float64(r)}
		if r%2 == 1 {
			v.X += 20 * math.Cos(geom.Rad(60))
		}
		return v
	}
	mv := map[int32]int8{}
	for r := range rows {
		for c := range cols {
			st.F = append(st.F, fold.Facet{Poly: geom.Polygon{at(r, c), at(r, c+1), at(r+1, c+1), at(r+1, c)}, Iso: geom.Identity})
		}
	}
	hinge := func(a, b int, p, q geom.Vec, sense int8) {
		mv[int32(len(st.H))] = sense
		st.H = append(st.H, fold.Hinge{A: fold.FacetID(a), B: fold.FacetID(b), P: p, Q: q, Kind: fold.Crease, Parent: -1, Crease: 1})
	}
	sign := func(odd bool) int8 {
		if odd {
			return -1
		}
		return 1
	}
	for r := range rows {
		for c := 1; c < cols; c++ { // a zigzag line is all mountain or all valley
			hinge(r*cols+c-1, r*cols+c, at(r, c), at(r+1, c), sign(c%2 == 1))
		}
	}
	for r := 1; r < rows; r++ {
		for c := range cols { // level creases alternate along their line, and from line to line
			hinge((r-1)*cols+c, r*cols+c, at(r, c), at(r, c+1), sign((r+c)%2 == 0))
		}
	}
	return st.Refreshed(), mv
}

func num(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }
