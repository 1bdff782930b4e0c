package exchange

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"maps"
	"math"
	"slices"
	"strconv"
	"strings"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/given"
	"tussock/internal/sheet"
)

// Bounds of what is read.
const (
	MaxBytes    = 4 << 20
	MaxVertices = 4000
	MaxEdges    = 8000
	MaxFaces    = fold.MaxFacets
)

// file is the part of the FOLD format (1.2) that is used here. Unknown fields are
// passed over, as the format asks.
type file struct {
	Spec        float64      `json:"file_spec"`
	Creator     string       `json:"file_creator,omitempty"`
	Author      string       `json:"file_author,omitempty"`
	Title       string       `json:"file_title,omitempty"`
	Description string       `json:"file_description,omitempty"`
	Classes     []string     `json:"file_classes,omitempty"`
	Frame       []string     `json:"frame_classes,omitempty"`
	Unit        string       `json:"frame_unit,omitempty"`
	Vertices    [][]float64  `json:"vertices_coords,omitempty"`
	Edges       [][]whole    `json:"edges_vertices,omitempty"`
	Assigned    []string     `json:"edges_assignment,omitempty"`
	Faces       [][]whole    `json:"faces_vertices,omitempty"`
	Orders      [][]whole    `json:"faceOrders,omitempty"`
	Frames      []childFrame `json:"file_frames,omitempty"`
	// Root is where the first face lies in the folded state, exactly: the motion
	// (x, y) to (a x + b y + tx, c x + d y + ty) as [a, b, c, d, tx, ty].
	Root []float64 `json:"tussock:root,omitempty"`
}

type childFrame struct {
	Frame    []string    `json:"frame_classes,omitempty"`
	Title    string      `json:"frame_title,omitempty"`
	Unit     string      `json:"frame_unit,omitempty"`
	Parent   *whole      `json:"frame_parent,omitempty"`
	Inherit  bool        `json:"frame_inherit,omitempty"`
	Vertices [][]float64 `json:"vertices_coords,omitempty"`
	Edges    [][]whole   `json:"edges_vertices,omitempty"`
	Assigned []string    `json:"edges_assignment,omitempty"`
	Faces    [][]whole   `json:"faces_vertices,omitempty"`
	Orders   [][]whole   `json:"faceOrders,omitempty"`
}

// whole is a number without a part, which other programs also write as 1.0.
type whole int

// UnmarshalJSON reads it.
func (w *whole) UnmarshalJSON(b []byte) error {
	var v float64
	if err := json.Unmarshal(b, &v); err != nil {
		return err
	}
	if v != math.Trunc(v) || math.Abs(v) > 1e9 {
		return fmt.Errorf("%s is not a whole number", b)
	}
	*w = whole(v)
	return nil
}

// Creases is a crease pattern as read: the sheet divided and flat, with the sense
// that the file gives each hinge.
type Creases struct {
	Flat  *fold.State
	Sense []fold.Assignment // by hinge of Flat
	Any   []bool            // by hinge: folded, in whichever sense works
	// Orders are those of the file, +1 face i above face j where row is above
	// column; nil when it gives none.
	Orders map[[2]int]int8
	Scale  float64 // what the file's lengths were multiplied by to be mm
	// Unitless tells that the file names no unit: its longer side was taken for 200 mm
	// unless a scale was given.
	Unitless bool
	// Decimals are how many the file's numbers have after the point, 0 where they are as
	// exact as numbers are; RoundedMM is what was rounded off at most.
	Decimals  int
	RoundedMM float64
	About     About
}

// About is what a file says beside its geometry: it is kept when the toy is written again.
type About struct {
	Author, Title, Description string
	// Foreign are the keys of other programs, as they were.
	Foreign map[string]json.RawMessage
}

func bad(field, value, want string) error {
	return &given.Error{Field: field, Value: value, Want: want}
}

// WriteFOLD writes a folded state: the crease pattern as the file's frame, the
// folded state with its layer order as a frame that inherits from it.
func WriteFOLD(s *fold.State, title string) ([]byte, error) {
	return WriteFOLDAbout(s, About{Title: title})
}

// WriteFOLDAbout is WriteFOLD with all that is to be said beside the geometry.
func WriteFOLDAbout(s *fold.State, about About) ([]byte, error) {
	m := meshOf(s)
	f := file{Spec: 1.2, Creator: "Tussock", Author: about.Author, Title: about.Title, Description: about.Description, Classes: []string{"singleModel"}, Frame: []string{"creasePattern"}, Unit: "mm"}
	folded := childFrame{Frame: []string{"foldedForm"}, Parent: new(whole), Inherit: true}
	for i, v := range m.at {
		f.Vertices = append(f.Vertices, []float64{v.X, v.Y}) // exact: folding adds up what is rounded off
		p := s.F[m.of[i]].Iso.Apply(v)
		folded.Vertices = append(folded.Vertices, []float64{tidy(p.X), tidy(p.Y)})
	}
	for _, ring := range m.rings {
		face := make([]whole, len(ring))
		for k, v := range ring {
			face[k] = whole(v)
		}
		f.Faces = append(f.Faces, face)
	}
	for _, e := range m.edges {
		f.Edges = append(f.Edges, []whole{whole(e.a), whole(e.b)})
		f.Assigned = append(f.Assigned, e.assigned)
	}
	for i := range s.F {
		for j := range i {
			if v := s.Above(fold.FacetID(i), fold.FacetID(j)); v != 0 {
				if !s.F[j].Iso.FaceUp() {
					v = -v
				}
				folded.Orders = append(folded.Orders, []whole{whole(i), whole(j), whole(v)})
			}
		}
	}
	f.Frames = []childFrame{folded}
	r := s.F[0].Iso
	f.Root = []float64{r.A, r.B, r.C, r.D, r.TX, r.TY}
	var b bytes.Buffer
	e := json.NewEncoder(&b)
	e.SetEscapeHTML(false)
	if err := e.Encode(f); err != nil {
		return nil, err
	}
	return withForeign(b.Bytes(), about.Foreign)
}

// withForeign adds the keys of other programs to a file, in the order of their names.
func withForeign(data []byte, foreign map[string]json.RawMessage) ([]byte, error) {
	if len(foreign) == 0 {
		return data, nil
	}
	out := bytes.TrimRight(data, "\n")
	out = bytes.TrimSuffix(out, []byte("}"))
	for _, k := range slices.Sorted(maps.Keys(foreign)) {
		key, err := json.Marshal(k)
		if err != nil {
			return nil, err
		}
		out = append(append(append(append(out, ','), key...), ':'), foreign[k]...)
	}
	return append(out, '}', '\n'), nil
}

// tidy rounds to a millionth of a millimetre, so that files are short and the
// same toy gives the same bytes.
func tidy(v float64) float64 {
	r := math.Round(v*1e6) / 1e6
	if r == 0 {
		return 0
	}
	return r
}

// ReadFOLD reads a crease pattern or a folded state with its crease pattern. A file without
// a unit is scaled so that its longer side is 200 mm; ReadFOLDScaled takes what one of its
// units is instead.
func ReadFOLD(r io.Reader) (*Creases, error) { return ReadFOLDScaled(r, 0) }

// ReadFOLDScaled is ReadFOLD with the mm that one unit of a file without a unit is; 0 for
// what ReadFOLD does.
func ReadFOLDScaled(r io.Reader, scale float64) (*Creases, error) {
	if scale != 0 && !(scale > 1e-6 && scale < 1e6) {
		return nil, bad("scale", fmt.Sprint(scale), "mm a unit, between 0.000001 and 1000000")
	}
	data, err := io.ReadAll(io.LimitReader(r, MaxBytes+1))
	if err != nil {
		return nil, err
	}
	if len(data) > MaxBytes {
		return nil, bad("file", fmt.Sprintf("over %d bytes", MaxBytes), "smaller")
	}
	data = bytes.TrimPrefix(data, []byte("\xef\xbb\xbf")) // a byte-order mark
	var f file
	if err := json.Unmarshal(data, &f); err != nil {
		return nil, bad("file", "not readable as FOLD: "+jsonPlace(data, err), "a FOLD file (JSON with vertices_coords, edges_vertices, edges_assignment)")
	}
	f.fromFrames()
	c, err := f.creases(scale)
	if err != nil {
		return nil, err
	}
	c.About = About{Author: f.Author, Title: f.Title, Description: f.Description, Foreign: foreignKeys(data)}
	return c, nil
}

// foreignKeys are those of other programs: the format lets them stand behind a name and a
// colon. What tussock writes itself is not among them.
func foreignKeys(data []byte) map[string]json.RawMessage {
	var all map[string]json.RawMessage
	if json.Unmarshal(data, &all) != nil {
		return nil
	}
	maps.DeleteFunc(all, func(k string, _ json.RawMessage) bool {
		return !strings.Contains(k, ":") || strings.HasPrefix(k, "tussock:")
	})
	if len(all) == 0 {
		return nil
	}
	return all
}

// fromFrames takes the pattern from the first frame that has one, where the file itself has
// none: a crease pattern before others. What a frame leaves out it has from its parent.
func (f *file) fromFrames() {
	if len(f.Vertices) > 0 {
		return
	}
	best := -1
	for i := range f.Frames {
		fr := f.inherited(i, len(f.Frames))
		if len(fr.Vertices) == 0 || len(fr.Edges) == 0 {
			continue
		}
		if best < 0 || slices.Contains(fr.Frame, "creasePattern") && !slices.Contains(f.Frames[best].Frame, "creasePattern") {
			best = i
		}
	}
	if best < 0 {
		return
	}
	fr := f.inherited(best, len(f.Frames))
	f.Vertices, f.Edges, f.Assigned, f.Faces, f.Orders = fr.Vertices, fr.Edges, fr.Assigned, fr.Faces, fr.Orders
	if fr.Unit != "" {
		f.Unit = fr.Unit
	}
	if f.Title == "" {
		f.Title = fr.Title
	}
}

// inherited is a frame with what it has from its parents; 0 is the file itself.
func (f *file) inherited(i, deep int) childFrame {
	fr := f.Frames[i]
	if !fr.Inherit || fr.Parent == nil || deep == 0 {
		return fr
	}
	var up childFrame
	switch n := int(*fr.Parent); {
	case n == 0:
		up = childFrame{Unit: f.Unit, Vertices: f.Vertices, Edges: f.Edges, Assigned: f.Assigned, Faces: f.Faces, Orders: f.Orders}
	case n > 0 && n <= len(f.Frames) && n-1 != i:
		up = f.inherited(n-1, deep-1)
	}
	if len(fr.Vertices) == 0 {
		fr.Vertices = up.Vertices
	}
	if len(fr.Edges) == 0 {
		fr.Edges = up.Edges
	}
	if len(fr.Assigned) == 0 {
		fr.Assigned = up.Assigned
	}
	if len(fr.Faces) == 0 {
		fr.Faces = up.Faces
	}
	if len(fr.Orders) == 0 {
		fr.Orders = up.Orders
	}
	if fr.Unit == "" {
		fr.Unit = up.Unit
	}
	return fr
}

// jsonPlace says where JSON breaks, by line and column.
func jsonPlace(data []byte, err error) string {
	offset := int64(-1)
	switch e := err.(type) {
	case *json.SyntaxError:
		offset = e.Offset
	case *json.UnmarshalTypeError:
		offset = e.Offset
	}
	if offset < 0 || offset > int64(len(data)) {
		return err.Error()
	}
	before := data[:offset]
	line := bytes.Count(before, []byte("\n")) + 1
	return fmt.Sprintf("line %d, column %d: %s", line, int(offset)-bytes.LastIndexByte(before, '\n')-1, err)
}

func (f *file) creases(mmEach float64) (*Creases, error) {
	at, scale, unitless, err := f.vertices(mmEach)
	if err != nil {
		return nil, err
	}
	if err := f.checkEdges(len(at)); err != nil {
		return nil, err
	}
	if err := f.crossing(at); err != nil {
		return nil, err
	}
	rings, err := f.faces(at)
	if err != nil {
		return nil, err
	}
	outline, err := outlineOf(at, rings)
	if err != nil {
		return nil, err
	}
	sh, err := sheetOf(outline)
	if err != nil {
		var e *given.Error
		if unitless && errors.As(err, &e) {
			return nil, bad("scale", fmt.Sprintf("%.6g mm a unit", scale), "another scale, as the file names no unit: with this one "+e.Field+" would not be "+e.Want)
		}
		return nil, err
	}
	c := &Creases{Flat: &fold.State{Sheet: sh}, Scale: scale, Unitless: unitless, Decimals: f.decimals()}
	if c.Decimals > 0 {
		c.RoundedMM = scale * 0.5 * math.Pow(10, -float64(c.Decimals))
	}
	for i, ring := range rings {
		var p geom.Polygon
		for _, v := range ring {
			p = append(p, at[v])
		}
		p = p.Straightened()
		if !p.IsConvex() {
			return nil, bad(fmt.Sprintf("faces_vertices[%d]", i), "a face that is not convex", "convex faces; add a flat edge (F) that divides it")
		}
		c.Flat.F = append(c.Flat.F, fold.Facet{Poly: p, Iso: geom.Identity})
	}
	if err := c.addHinges(f, at, rings); err != nil {
		return nil, err
	}
	if root, ok := f.rooted(); ok {
		for i := range c.Flat.F {
			c.Flat.F[i].Iso = root
		}
	}
	c.Flat = c.Flat.Refreshed()
	c.readOrders(f, len(rings))
	return c, nil
}

// rooted is how the first face lies in the file's folded state, if it says.
func (f *file) rooted() (geom.Iso2, bool) {
	if len(f.Root) != 6 {
		return geom.Identity, false
	}
	m := geom.Iso2{A: f.Root[0], B: f.Root[1], C: f.Root[2], D: f.Root[3], TX: f.Root[4], TY: f.Root[5]}
	for _, v := range f.Root {
		if math.IsNaN(v) || math.Abs(v) > 1e6 {
			return geom.Identity, false
		}
	}
	keepsLengths := math.Abs(m.A*m.A+m.C*m.C-1) < 1e-9 && math.Abs(m.B*m.B+m.D*m.D-1) < 1e-9 && math.Abs(m.A*m.B+m.C*m.D) < 1e-9
	return m, keepsLengths
}

func (f *file) vertices(mmEach float64) (at []geom.Vec, scale float64, unitless bool, err error) {
	n := len(f.Vertices)
	if n < 3 || n > MaxVertices {
		return nil, 0, false, bad("vertices_coords", fmt.Sprintf("%d vertices", n), fmt.Sprintf("3 to %d vertices", MaxVertices))
	}
	box := geom.EmptyBox()
	for i, v := range f.Vertices {
		name := fmt.Sprintf("vertices_coords[%d]", i)
		if len(v) < 2 || len(v) > 3 {
			return nil, 0, false, bad(name, fmt.Sprintf("%d numbers", len(v)), "x and y")
		}
		p := geom.Vec{X: v[0], Y: v[1]}
		if !p.Finite() || math.Abs(p.X) > 1e6 || math.Abs(p.Y) > 1e6 || len(v) == 3 && math.Abs(v[2]) > 1e-9 {
			return nil, 0, false, bad(name, fmt.Sprint(v), "ordinary numbers in one plane, below a million")
		}
		at = append(at, p)
		box = box.Grow(p)
	}
	size := math.Max(box.Width(), box.Height())
	if size < 1e-9 {
		return nil, 0, false, bad("vertices_coords", "all on one spot", "a sheet with some size")
	}
	scale, known := units[f.Unit]
	switch {
	case known:
	case f.Unit != "" && f.Unit != "unit":
		return nil, 0, false, bad("frame_unit", fmt.Sprintf("%q", f.Unit), "one of "+strings.Join(slices.Sorted(maps.Keys(units)), ", ")+", or unit for none")
	case mmEach > 0:
		scale, unitless = mmEach, true
	default: // the longer side is taken as so many mm, or as many as the shorter one needs
		scale, unitless = unitlessMM/size, true
		if short := math.Min(box.Width(), box.Height()); short > 0 {
			scale = math.Min(math.Max(scale, sheet.SideRange.Min/short), mostMM/size)
		}
	}
	if long := size * scale; long < leastMM || long > mostMM {
		want := fmt.Sprintf("a sheet whose longer side is %d to %d mm", leastMM, mostMM)
		if unitless {
			want += "; say how many mm one unit of the file is"
		}
		return nil, 0, false, bad("vertices_coords", fmt.Sprintf("a sheet %.6g mm long", long), want)
	}
	for i := range at {
		at[i] = at[i].Scale(scale)
	}
	return at, scale, unitless, nil
}

// units are those of the format, in mm.
var units = map[string]float64{"mm": 1, "cm": 10, "m": 1000, "in": sheet.MMPerInch, "pt": sheet.MMPerInch / 72, "um": 1e-3, "µm": 1e-3, "μm": 1e-3, "nm": 1e-6}

const (
	unitlessMM = 200.0 // longer side of a sheet whose file names no unit
	leastMM    = 5     // longer sides that are taken
	mostMM     = 2000
)

// decimals are how many the coordinates have behind the point; 0 where there are so many
// that nothing worth a name was rounded off, or so few that they are meant exactly.
func (f *file) decimals() int {
	for d := 0; d <= mostDecimals; d++ {
		fits := true
		for _, v := range f.Vertices {
			for _, x := range v {
				k := x * math.Pow(10, float64(d))
				fits = fits && math.Abs(k-math.Round(k)) < 1e-6*math.Max(1, math.Abs(k)*1e-9)
			}
		}
		if fits {
			if d < leastDecimals {
				return 0
			}
			return d
		}
	}
	return 0
}

const (
	leastDecimals = 3
	mostDecimals  = 8
)

// crossing refuses edges that run through each other without a vertex.
func (f *file) crossing(at []geom.Vec) error {
	for i, e := range f.Edges {
		p, q := at[e[0]], at[e[1]]
		l, ok := geom.LineThrough(p, q)
		if !ok {
			continue // so short that nothing can cross it
		}
		low, high := geom.EmptyBox().Grow(p, q), geom.Box{}
		for j := range i {
			g := f.Edges[j]
			if g[0] == e[0] || g[0] == e[1] || g[1] == e[0] || g[1] == e[1] {
				continue
			}
			u, v := at[g[0]], at[g[1]]
			if high = geom.EmptyBox().Grow(u, v); !low.Touches(high) {
				continue
			}
			m, ok := geom.LineThrough(u, v)
			if ok && l.Side(u)*l.Side(v) < 0 && m.Side(p)*m.Side(q) < 0 &&
				min(math.Abs(l.Side(u)), math.Abs(l.Side(v)), math.Abs(m.Side(p)), math.Abs(m.Side(q))) > geom.OnPaper {
				return bad(fmt.Sprintf("edges_vertices[%d]", i), fmt.Sprintf("%v, which crosses edge %d", e, j), "edges that meet at vertices only; add a vertex where they cross")
			}
		}
	}
	return nil
}

var assignments = []string{"M", "V", "F", "U", "B", "C", "J"}

func (f *file) checkEdges(vertices int) error {
	n := len(f.Edges)
	if n < 3 || n > MaxEdges {
		return bad("edges_vertices", fmt.Sprintf("%d edges", n), fmt.Sprintf("3 to %d edges", MaxEdges))
	}
	if f.Assigned == nil { // the format's default: unassigned
		f.Assigned = slices.Repeat([]string{"U"}, n)
	}
	if len(f.Assigned) != n {
		return bad("edges_assignment", fmt.Sprintf("%d entries", len(f.Assigned)), fmt.Sprintf("%d, one for each edge", n))
	}
	seen := map[[2]int]bool{}
	for i, e := range f.Edges {
		name := fmt.Sprintf("edges_vertices[%d]", i)
		if len(e) != 2 || e[0] < 0 || e[1] < 0 || int(e[0]) >= vertices || int(e[1]) >= vertices || e[0] == e[1] {
			return bad(name, fmt.Sprint(e), fmt.Sprintf("two different vertices from 0 to %d", vertices-1))
		}
		key := [2]int{int(min(e[0], e[1])), int(max(e[0], e[1]))}
		if seen[key] {
			return bad(name, fmt.Sprint(e), "an edge that is not there already")
		}
		seen[key] = true
		if !slices.Contains(assignments, f.Assigned[i]) {
			return bad(fmt.Sprintf("edges_assignment[%d]", i), fmt.Sprintf("%q", f.Assigned[i]), "one of M, V, F, U, B, C, J")
		}
	}
	return nil
}

// faces are the file's, or those that the edges enclose. All run
// counter-clockwise and do not overlap.
func (f *file) faces(at []geom.Vec) ([][]int, error) {
	rings := ints(f.Faces)
	if len(rings) == 0 {
		rings = enclosed(at, ints(f.Edges))
	}
	if len(rings) == 0 || len(rings) > MaxFaces {
		return nil, bad("faces_vertices", fmt.Sprintf("%d faces", len(rings)), fmt.Sprintf("1 to %d faces", MaxFaces))
	}
	out := make([][]int, len(rings))
	polys := make([]geom.Polygon, len(rings))
	for i, ring := range rings {
		name := fmt.Sprintf("faces_vertices[%d]", i)
		if len(ring) < 3 || len(ring) > MaxVertices {
			return nil, bad(name, fmt.Sprintf("%d vertices", len(ring)), "three or more")
		}
		var p geom.Polygon
		for _, v := range ring {
			if v < 0 || v >= len(at) {
				return nil, bad(name, fmt.Sprint(ring), fmt.Sprintf("vertices from 0 to %d", len(at)-1))
			}
			p = append(p, at[v])
		}
		ring = slices.Clone(ring)
		if p.Area() < 0 {
			slices.Reverse(ring)
			slices.Reverse(p)
		}
		if p.Area() < 1e-6 || len(ring) < 60 && !p.Straightened().Simple() {
			return nil, bad(name, fmt.Sprint(ring), "a face with area that does not cross itself")
		}
		out[i], polys[i] = ring, p
	}
	for i, p := range polys {
		for j := range i {
			if p.IsConvex() && polys[j].IsConvex() && geom.Overlaps(p, polys[j]) {
				return nil, bad(fmt.Sprintf("faces_vertices[%d]", i), fmt.Sprintf("a face that lies over face %d", j), "faces side by side on the flat sheet")
			}
		}
	}
	return out, nil
}

func ints(all [][]whole) [][]int {
	out := make([][]int, len(all))
	for i, row := range all {
		for _, v := range row {
			out[i] = append(out[i], int(v))
		}
	}
	return out
}

// addHinges joins faces at the edges they share.
func (c *Creases) addHinges(f *file, at []geom.Vec, rings [][]int) error {
	sides := map[[2]int]int{}
	for i, ring := range rings {
		for k, a := range ring {
			b := ring[(k+1)%len(ring)]
			if _, taken := sides[[2]int{a, b}]; taken {
				return bad(fmt.Sprintf("faces_vertices[%d]", i), fmt.Sprint(ring), "a face that shares each side with one other at most")
			}
			sides[[2]int{a, b}] = i
		}
	}
	for i, e := range f.Edges {
		left, ok1 := sides[[2]int{int(e[0]), int(e[1])}]
		right, ok2 := sides[[2]int{int(e[1]), int(e[0])}]
		if !ok1 || !ok2 {
			continue // the rim
		}
		h := fold.Hinge{A: fold.FacetID(left), B: fold.FacetID(right), P: at[e[0]], Q: at[e[1]], Crease: 1, Parent: -1}
		sense, either := fold.Flat, false
		switch f.Assigned[i] {
		case "M":
			sense = fold.Mountain
		case "V":
			sense = fold.Valley
		case "U":
			either = true
		case "J":
			h.Kind = fold.Construction
		case "B", "C":
			continue // a slit: the two faces do not hang together here
		}
		c.Flat.H = append(c.Flat.H, h)
		c.Sense, c.Any = append(c.Sense, sense), append(c.Any, either)
	}
	return nil
}

func (c *Creases) readOrders(f *file, faces int) {
	orders := f.Orders
	for _, fr := range f.Frames {
		if len(fr.Orders) > 0 {
			orders = fr.Orders
		}
	}
	if len(orders) == 0 {
		return
	}
	c.Orders = map[[2]int]int8{}
	for _, o := range ints(orders) {
		if len(o) == 3 && o[0] >= 0 && o[1] >= 0 && o[0] < faces && o[1] < faces && o[2]*o[2] <= 1 {
			c.Orders[[2]int{o[0], o[1]}] = int8(o[2])
		}
	}
}

func (c *Creases) sense(i int, _ fold.Hinge) (fold.Assignment, bool) { return c.Sense[i], c.Any[i] }

// Folded folds the pattern flat: it fails when the creases do not close up
// (CodeTear) or the layers have no order (CodeLayers). Where the file gives
// orders, they are kept if they are valid.
func (c *Creases) Folded() (*fold.State, error) {
	out, err := c.Flat.Flattened(c.sense)
	if err = c.rounded(err); err != nil || c.Orders == nil {
		return out, err
	}
	var hints []fold.Hint
	for i := range out.F {
		for j := range out.F {
			v := c.Orders[[2]int{i, j}]
			if v == 0 {
				continue
			}
			if !out.F[j].Iso.FaceUp() {
				v = -v
			}
			hints = append(hints, fold.Hint{I: fold.FacetID(i), J: fold.FacetID(j), Sign: v, Hard: true, Why: "the file's faceOrders cannot be"})
		}
	}
	return out.Resolve(hints)
}

// OrdersUpTo counts the valid layer orders, up to limit; unassigned creases mean
// either sense. The first face keeps its side.
func (c *Creases) OrdersUpTo(ctx context.Context, limit int) (n int, done bool, err error) {
	n, done, err = c.Flat.Orders(ctx, limit, c.sense)
	if err = c.rounded(err); err != nil {
		return 0, true, err
	}
	return n, done, nil
}

// rounded looks whether the file's numbers are exact enough for the pattern: where edges
// that ought to lie on one another miss by what was rounded off, it says so instead of an
// answer that may be wrong. It also stands for an error that rounding explains.
func (c *Creases) rounded(err error) error {
	if c.Decimals == 0 {
		return err
	}
	off := c.nearMiss()
	switch e := fold.As(err); {
	case off == 0 && err == nil:
		return nil
	case off == 0 && (e.Code != fold.CodeTear || e.GapMM == 0 || e.GapMM > tooFar*c.RoundedMM):
		return err
	case off == 0:
		off = e.GapMM
	}
	return fold.Errorf(fold.CodePrecision, "the file's numbers have %d decimals, and folded that adds up: edges that ought to lie on one another miss by %s mm; write it with 9 decimals or more",
		c.Decimals, strconv.FormatFloat(off, 'g', 2, 64))
}

const (
	// exactMM is what edges may miss each other by and are taken for one.
	exactMM = geom.OnLine * 0.8
	// tooFar times what was rounded off is no rounding any more.
	tooFar = 60
)

// nearMiss is by how much an edge of the folded pattern misses another at most, where that
// is so little that rounding explains it; 0 where all lie on one another or well apart.
func (c *Creases) nearMiss() float64 {
	isos, err := c.Flat.Walk(0, func(i int, _ fold.Hinge) bool { return c.Sense[i] != fold.Flat || c.Any[i] })
	if err != nil {
		return 0
	}
	var at []geom.Vec
	type run struct {
		l      geom.Line
		lo, hi float64
	}
	var runs []run
	for i, f := range c.Flat.F {
		p := f.Poly.Moved(isos[i])
		for k, v := range p {
			at = append(at, v)
			w := p[(k+1)%len(p)]
			if l, ok := geom.LineThrough(v, w); ok {
				a, b := l.Dir().Dot(v), l.Dir().Dot(w)
				runs = append(runs, run{l, min(a, b), max(a, b)})
			}
		}
	}
	most := tooFar * c.RoundedMM
	var worst float64
	for _, v := range at {
		for _, r := range runs {
			off := math.Abs(r.l.Side(v))
			if off > exactMM && off < most {
				if t := r.l.Dir().Dot(v); t > r.lo-most && t < r.hi+most {
					worst = max(worst, off)
				}
			}
		}
	}
	return worst
}
