package exchange_test

import (
	"bytes"
	"errors"
	"fmt"
	"math"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"tussock/internal/exchange"
	"tussock/internal/fold"
	"tussock/internal/fold/layermap"
	"tussock/internal/foldtest"
	"tussock/internal/given"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/ways"
)

func toys(t testing.TB) map[string]*sequence.Replay {
	t.Helper()
	files, err := filepath.Glob(filepath.Join("..", "sequence", "testdata", "*.pattern"))
	if err != nil || len(files) == 0 {
		t.Fatal("no test patterns", err)
	}
	out := map[string]*sequence.Replay{}
	for _, f := range files {
		text, err := os.ReadFile(f)
		if err != nil {
			t.Fatal(err)
		}
		p, err := ways.Parse(f, string(text))
		if err != nil {
			t.Fatal(err)
		}
		s, err := sheet.New(p.WidthMM, p.HeightMM, 80, 0.1)
		if err != nil {
			t.Fatal(err)
		}
		r := p.Run(s, nil)
		if r.Err != nil {
			t.Fatal(f, r.Err)
		}
		out[p.ID] = r
	}
	return out
}

func write(t testing.TB, s *fold.State) []byte {
	t.Helper()
	b, err := exchange.WriteFOLD(s, "toy")
	if err != nil {
		t.Fatal(err)
	}
	return b
}

// Writing, reading and writing again gives the same bytes; the toy read folds to
// the same places with the same order.
func TestFOLDRoundTrip(t *testing.T) {
	for name, r := range toys(t) {
		a := write(t, r.Final())
		c, err := exchange.ReadFOLD(bytes.NewReader(a))
		if err != nil {
			t.Errorf("%s: %v", name, err)
			continue
		}
		s, ferr := c.Folded()
		if ferr != nil {
			t.Errorf("%s: %v", name, ferr)
			continue
		}
		if b := write(t, s); !bytes.Equal(a, b) {
			t.Errorf("%s: another file is written:\n%.600s\n%.600s", name, a, b)
		}
		if f := s.Faults(); len(f) > 0 {
			t.Errorf("%s: %v", name, f)
		}
		u, v := r.Final().Box(), s.Box()
		if math.Abs(u.Width()-v.Width()) > 1e-4 || math.Abs(u.Height()-v.Height()) > 1e-4 {
			t.Errorf("%s: the box is %v, before %v", name, v, u)
		}
	}
}

const cross = `{"file_spec":1.1,"vertices_coords":[[0,0],[1,0],[2,0],[0,1],[1,1],[2,1],[0,2],[1,2],[2,2]],
"edges_vertices":[[0,1],[1,2],[2,5],[5,8],[8,7],[7,6],[6,3],[3,0],[4,1],[4,5],[4,7],[4,3]],
"edges_assignment":["B","B","B","B","B","B","B","B",%s]}`

// A pattern without faces gets them from its edges; a cross of four folds has the
// eight orders of a 2 by 2 map; with senses given it has one or none.
func TestOrdersOfACross(t *testing.T) {
	for _, c := range []struct {
		senses string
		want   int
	}{
		{`"U","U","U","U"`, 8}, {`"M","V","V","V"`, 1}, {`"V","M","M","M"`, 1}, {`"M","M","V","V"`, 0}, {`"F","F","F","F"`, 1}, {`"U","F","U","F"`, 2},
	} {
		p, err := exchange.ReadFOLD(strings.NewReader(fmt.Sprintf(cross, c.senses)))
		if err != nil {
			t.Fatal(c.senses, err)
		}
		n, done, ferr := p.OrdersUpTo(t.Context(), 1000)
		if ferr != nil || !done || n != c.want {
			t.Errorf("%s: %d orders (%v), want %d", c.senses, n, ferr, c.want)
		}
		if p.Scale != 100 {
			t.Errorf("a sheet of 2 without unit is scaled by %v, want 100", p.Scale)
		}
		_, ferr = p.Folded()
		if (ferr == nil) != (c.want > 0) {
			t.Errorf("%s folds: %v", c.senses, ferr)
		}
	}
	if p, err := exchange.ReadFOLD(strings.NewReader(fmt.Sprintf(cross, `"M","F","F","V"`))); err != nil {
		t.Error(err)
	} else if _, _, ferr := p.OrdersUpTo(t.Context(), 10); ferr == nil || fold.As(ferr).Code != fold.CodeTear {
		t.Errorf("two folds at an angle give %v, want a tear", ferr)
	}
}

func TestBadFilesAreRefused(t *testing.T) {
	for name, c := range map[string]struct{ text, field string }{
		"not JSON":          {"{", "file"},
		"wrong type":        {"{\n \"vertices_coords\": 5}", "line 2"},
		"empty":             {"{}", "vertices_coords"},
		"few vertices":      {`{"vertices_coords":[[0,0],[1,1]]}`, "vertices_coords"},
		"huge number":       {`{"vertices_coords":[[0,0],[1e300,1],[0,1]]}`, "vertices_coords[1]"},
		"out of plane":      {`{"vertices_coords":[[0,0,1],[1,1,0],[0,1,0]]}`, "vertices_coords[0]"},
		"index out of it":   {`{"vertices_coords":[[0,0],[1,0],[0,1]],"edges_vertices":[[0,1],[1,2],[2,7]]}`, "edges_vertices[2]"},
		"negative index":    {`{"vertices_coords":[[0,0],[1,0],[0,1]],"edges_vertices":[[0,1],[1,2],[2,-1]]}`, "edges_vertices[2]"},
		"edge twice":        {`{"vertices_coords":[[0,0],[1,0],[0,1]],"edges_vertices":[[0,1],[1,2],[1,0]]}`, "edges_vertices[2]"},
		"senses missing":    {`{"vertices_coords":[[0,0],[1,0],[0,1]],"edges_vertices":[[0,1],[1,2],[2,0]],"edges_assignment":["B"]}`, "edges_assignment"},
		"unknown sense":     {`{"vertices_coords":[[0,0],[1,0],[0,1]],"edges_vertices":[[0,1],[1,2],[2,0]],"edges_assignment":["B","B","Q"]}`, "edges_assignment[2]"},
		"face without area": {`{"vertices_coords":[[0,0],[1,0],[2,0]],"edges_vertices":[[0,1],[1,2],[2,0]],"faces_vertices":[[0,1,2]]}`, "faces_vertices[0]"},
		"face too short":    {`{"vertices_coords":[[0,0],[1,0],[0,1]],"edges_vertices":[[0,1],[1,2],[2,0]],"faces_vertices":[[0,1]]}`, "faces_vertices[0]"},
		"faces overlap":     {`{"vertices_coords":[[0,0],[4,0],[0,4],[1,1],[5,1],[1,5]],"edges_vertices":[[0,1],[1,2],[2,0]],"faces_vertices":[[0,1,2],[3,4,5]]}`, "faces_vertices[1]"},
		"two sheets":        {`{"vertices_coords":[[0,0],[1,0],[0,1],[5,5],[6,5],[5,6]],"edges_vertices":[[0,1],[1,2],[2,0],[3,4],[4,5],[5,3]]}`, "faces_vertices"},
		"all on one spot":   {`{"vertices_coords":[[1,1],[1,1],[1,1]],"edges_vertices":[[0,1],[1,2],[2,0]]}`, "vertices_coords"},
		"too long":          {`{"x":"` + strings.Repeat("a", exchange.MaxBytes) + `"}`, "file"},
	} {
		_, err := exchange.ReadFOLD(strings.NewReader(c.text))
		var fe *given.Error
		if !errors.As(err, &fe) || !strings.Contains(err.Error(), c.field) {
			t.Errorf("%s gives %v, want an error that names %s", name, err, c.field)
		}
	}
}

// Lines of the drawing add up to the creases' length, kind by kind, at true size.
func TestDrawingsAreTrueSize(t *testing.T) {
	r := toys(t)["lock"]
	s := r.Final()
	d := exchange.CreaseMap(s, layermap.Silhouette(layermap.Cells(s)), nil)
	sum := map[exchange.Kind]float64{}
	for _, l := range d.Lines {
		sum[l.Kind] += l.Len()
	}
	var m, v float64
	for _, h := range s.H {
		switch s.Assigned(h) {
		case fold.Mountain:
			m += h.P.Dist(h.Q)
		case fold.Valley:
			v += h.P.Dist(h.Q)
		}
	}
	for _, c := range []struct {
		kind exchange.Kind
		want float64
	}{{exchange.EdgeKind, 2 * (210 + 297)}, {exchange.MountainKind, m}, {exchange.ValleyKind, v}} {
		if math.Abs(sum[c.kind]-c.want) > 1e-3 {
			t.Errorf("%s lines are %.4f mm, want %.4f", c.kind, sum[c.kind], c.want)
		}
	}
	if sum[exchange.OutlineKind] < 2*(80+150) {
		t.Errorf("the toy's outline is only %v mm long", sum[exchange.OutlineKind])
	}
	svg := d.SVG()
	for _, want := range []string{`mm" height="301mm"`, `id="mountain"`, `id="valley"`, `id="edge"`, `id="outline"`} {
		if !strings.Contains(svg, want) {
			t.Errorf("the SVG lacks %s", want)
		}
	}
	checkDXF(t, d)
}

// checkDXF reads the DXF back: pairs of code and value, sections closed, lines as
// drawn.
func checkDXF(t *testing.T, d exchange.Drawing) {
	t.Helper()
	lines := strings.Split(strings.TrimSpace(d.DXF()), "\n")
	if len(lines)%2 != 0 {
		t.Fatal("the DXF is not made of pairs")
	}
	depth, entities := 0, 0
	var length float64
	at := map[int]float64{}
	for i := 0; i < len(lines); i += 2 {
		code, err := strconv.Atoi(strings.TrimSpace(lines[i]))
		if err != nil {
			t.Fatalf("line %d is no group code: %q", i+1, lines[i])
		}
		switch v := lines[i+1]; {
		case code == 0 && v == "SECTION":
			depth++
		case code == 0 && v == "ENDSEC":
			depth--
		case code == 0 && v == "LINE":
			entities++
		case code == 10 || code == 20 || code == 11 || code == 21:
			if at[code], err = strconv.ParseFloat(v, 64); err != nil {
				t.Fatal(err)
			}
			if code == 21 {
				length += math.Hypot(at[11]-at[10], at[21]-at[20])
			}
		}
	}
	var want float64
	for _, l := range d.Lines {
		want += l.Len()
	}
	if depth != 0 || entities != len(d.Lines) || math.Abs(length-want) > 1e-3 {
		t.Errorf("the DXF has %d lines of %.3f mm (want %d, %.3f), sections left open: %d", entities, length, len(d.Lines), want, depth)
	}
}

func TestBundleRoundTrip(t *testing.T) {
	text := "sheet square 150\nknob k \"K\" = 0.5 from 0.1 to 0.9\nvalley through part(BL,TL,k) square left moving TL as f\n"
	p, err := ways.Parse("mine", text)
	if err != nil {
		t.Fatal(err)
	}
	s, _ := sheet.New(140, 160, 90, 0.12)
	b, err := exchange.WriteBundle(p.Run(s, map[string]float64{"k": 0.7}))
	if err != nil {
		t.Fatal(err)
	}
	q, s2, knobs, err := exchange.ReadBundle(bytes.NewReader(b))
	if err != nil {
		t.Fatal(err)
	}
	if q.Text != text || q.ID != "mine" || s2 != s || knobs["k"] != 0.7 {
		t.Errorf("read back %q %v %v", q.ID, s2, knobs)
	}
	for name, edit := range map[string][2]string{
		"knob out of range": {`"k": 0.7`, `"k": 7`},
		"unknown knob":      {`"k": 0.7`, `"z": 0.7`},
		"negative sheet":    {`"width_mm": 140`, `"width_mm": -140`},
		"other version":     {`"tussock_pattern": 1`, `"tussock_pattern": 9`},
		"unknown field":     {`"gsm"`, `"gms"`},
		"broken pattern":    {"valley through", "vally through"},
	} {
		text := strings.Replace(string(b), edit[0], edit[1], 1)
		if text == string(b) {
			t.Fatalf("%s: nothing to replace", name)
		}
		if _, _, _, err := exchange.ReadBundle(strings.NewReader(text)); err == nil {
			t.Errorf("%s is taken", name)
		}
	}
}

// A cross with one arm flat does not fold, whichever arm it is.
func TestCrossWithOneFlatArm(t *testing.T) {
	for arm := range 4 {
		senses := []string{`"M"`, `"V"`, `"V"`, `"V"`}
		senses[arm] = `"F"`
		c, err := exchange.ReadFOLD(strings.NewReader(fmt.Sprintf(cross, strings.Join(senses, ","))))
		if err != nil {
			t.Fatal(err)
		}
		if s, err := c.Folded(); err == nil || fold.As(err).Code != fold.CodeTear {
			t.Errorf("arm %d flat: %v, %v", arm, s, err)
		}
		if n, done, err := c.OrdersUpTo(t.Context(), 100); err == nil || n != 0 || !done {
			t.Errorf("arm %d flat: %d orders, %v", arm, n, err)
		}
	}
}

func FuzzReadFOLD(f *testing.F) {
	f.Add([]byte(fmt.Sprintf(cross, `"U","M","V","F"`)))
	f.Add([]byte(`{"vertices_coords":[[0,0],[1,0],[0,1]],"edges_vertices":[[0,1],[1,2],[2,0]]}`))
	for _, r := range toys(f) {
		if b := write(f, r.Final()); len(b) < 6000 {
			f.Add(b)
		}
	}
	f.Fuzz(func(t *testing.T, data []byte) {
		c, err := exchange.ReadFOLD(bytes.NewReader(data))
		if err != nil {
			return
		}
		if len(c.Flat.F) > 40 {
			return // time: the solver is fuzzed on small ones
		}
		s, ferr := c.Folded()
		if ferr != nil {
			return
		}
		if _, err := exchange.WriteFOLD(s, ""); err != nil {
			t.Error(err)
		}
	})
}

func FuzzReadBundle(f *testing.F) {
	f.Add([]byte(`{"tussock_pattern":1,"name":"a","text":"sheet square 100\nvalley bring TL to C","width_mm":100,"height_mm":100,"gsm":80,"thickness_mm":0.1,"knobs":{}}`))
	f.Fuzz(func(t *testing.T, data []byte) {
		p, s, knobs, err := exchange.ReadBundle(bytes.NewReader(data))
		if err != nil {
			return
		}
		p.Run(s, knobs)
	})
}

// What is written on the sheet goes out with it.
func TestWritingIsExported(t *testing.T) {
	r := foldtest.Fold(t, "sheet square 100\nlabel sheet(20,30) \"tide & ebb\" turn 20\nlabel sheet(70,30) \"under\" back\npinch bring T to B near C length 30 angle 40\nvalley bring left to right as f\n")
	d := exchange.CreaseMap(r.Final(), nil, r.Notes)
	svg, dxf := d.SVG(), d.DXF()
	if strings.Count(svg, "<text") != 2 || !strings.Contains(svg, "tide &amp; ebb") || !strings.Contains(svg, `<g id="label"`) {
		t.Error(svg)
	}
	if strings.Count(dxf, "\nTEXT\n") != 2 || !strings.Contains(dxf, "\ntide & ebb\n") || !strings.Contains(dxf, "\nLABEL\n") {
		t.Error(dxf)
	}
}
