package exchange

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"math"
	"slices"

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
	Spec     float64      `json:"file_spec"`
	Creator  string       `json:"file_creator,omitempty"`
	Title    string       `json:"file_title,omitempty"`
	Classes  []string     `json:"file_classes,omitempty"`
	Frame    []string     `json:"frame_classes,omitempty"`
	Unit     string       `json:"frame_unit,omitempty"`
	Vertices [][]float64  `json:"vertices_coords,omitempty"`
	Edges    [][]int      `json:"edges_vertices,omitempty"`
	Assigned []string     `json:"edges_assignment,omitempty"`
	Faces    [][]int      `json:"faces_vertices,omitempty"`
	Orders   [][]int      `json:"faceOrders,omitempty"`
	Frames   []childFrame `json:"file_frames,omitempty"`
	// Root is where the first face lies in the folded state, exactly: the motion
	// (x, y) to (a x + b y + tx, c x + d y + ty) as [a, b, c, d, tx, ty].
	Root []float64 `json:"tussock:root,omitempty"`
}

type childFrame struct {
	Frame    []string    `json:"frame_classes,omitempty"`
	Parent   *int        `json:"frame_parent,omitempty"`
	Inherit  bool        `json:"frame_inherit,omitempty"`
	Vertices [][]float64 `json:"vertices_coords,omitempty"`
	Orders   [][]int     `json:"faceOrders,omitempty"`
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
}

func bad(field, value, want string) error {
	return &given.Error{Field: field, Value: value, Want: want}
}

// WriteFOLD writes a folded state: the crease pattern as the file's frame, the
// folded state with its layer order as a frame that inherits from it.
func WriteFOLD(s *fold.State, title string) ([]byte, error) {
	m := meshOf(s)
	f := file{Spec: 1.2, Creator: "Tussock", Title: title, Classes: []string{"singleModel"}, Frame: []string{"creasePattern"}, Unit: "mm"}
	folded := childFrame{Frame: []string{"foldedForm"}, Parent: new(int), Inherit: true}
	for i, v := range m.at {
		f.Vertices = append(f.Vertices, []float64{v.X, v.Y}) // exact: folding adds up what is rounded off
		p := s.F[m.of[i]].Iso.Apply(v)
		folded.Vertices = append(folded.Vertices, []float64{tidy(p.X), tidy(p.Y)})
	}
	f.Faces = m.rings
	for _, e := range m.edges {
		f.Edges = append(f.Edges, []int{e.a, e.b})
		f.Assigned = append(f.Assigned, e.assigned)
	}
	for i := range s.F {
		for j := range i {
			if v := s.Above(fold.FacetID(i), fold.FacetID(j)); v != 0 {
				if !s.F[j].Iso.FaceUp() {
					v = -v
				}
				folded.Orders = append(folded.Orders, []int{i, j, int(v)})
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
	return b.Bytes(), nil
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

// ReadFOLD reads a crease pattern or a folded state with its crease pattern.
func ReadFOLD(r io.Reader) (*Creases, error) {
	data, err := io.ReadAll(io.LimitReader(r, MaxBytes+1))
	if err != nil {
		return nil, err
	}
	if len(data) > MaxBytes {
		return nil, bad("file", fmt.Sprintf("over %d bytes", MaxBytes), "smaller")
	}
	var f file
	if err := json.Unmarshal(data, &f); err != nil {
		return nil, bad("file", "not readable as FOLD: "+jsonPlace(data, err), "a FOLD file (JSON with vertices_coords, edges_vertices, edges_assignment)")
	}
	return f.creases()
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

func (f *file) creases() (*Creases, error) {
	at, scale, err := f.vertices()
	if err != nil {
		return nil, err
	}
	if err := f.checkEdges(len(at)); err != nil {
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
		return nil, err
	}
	c := &Creases{Flat: &fold.State{Sheet: sh}, Scale: scale}
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

func (f *file) vertices() ([]geom.Vec, float64, error) {
	n := len(f.Vertices)
	if n < 3 || n > MaxVertices {
		return nil, 0, bad("vertices_coords", fmt.Sprintf("%d vertices", n), fmt.Sprintf("3 to %d vertices", MaxVertices))
	}
	var at []geom.Vec
	box := geom.EmptyBox()
	for i, v := range f.Vertices {
		name := fmt.Sprintf("vertices_coords[%d]", i)
		if len(v) < 2 || len(v) > 3 {
			return nil, 0, bad(name, fmt.Sprintf("%d numbers", len(v)), "x and y")
		}
		p := geom.Vec{X: v[0], Y: v[1]}
		if !p.Finite() || math.Abs(p.X) > 1e6 || math.Abs(p.Y) > 1e6 || len(v) == 3 && math.Abs(v[2]) > 1e-9 {
			return nil, 0, bad(name, fmt.Sprint(v), "ordinary numbers in one plane, below a million")
		}
		at = append(at, p)
		box = box.Grow(p)
	}
	scale := 1.0
	switch f.Unit {
	case "mm":
	case "cm":
		scale = 10
	case "in":
		scale = sheet.MMPerInch
	case "m":
		scale = 1000
	default: // no unit: the longer side is taken as 200 mm
		size := math.Max(box.Width(), box.Height())
		if size < 1e-9 {
			return nil, 0, bad("vertices_coords", "all on one spot", "a sheet with some size")
		}
		scale = 200 / size
	}
	for i := range at {
		at[i] = at[i].Scale(scale)
	}
	return at, scale, nil
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
		if len(e) != 2 || e[0] < 0 || e[1] < 0 || e[0] >= vertices || e[1] >= vertices || e[0] == e[1] {
			return bad(name, fmt.Sprint(e), fmt.Sprintf("two different vertices from 0 to %d", vertices-1))
		}
		key := [2]int{min(e[0], e[1]), max(e[0], e[1])}
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
	rings := f.Faces
	if len(rings) == 0 {
		rings = enclosed(at, f.Edges)
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
		left, ok1 := sides[[2]int{e[0], e[1]}]
		right, ok2 := sides[[2]int{e[1], e[0]}]
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
	for _, o := range orders {
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
	if err != nil || c.Orders == nil {
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
	return c.Flat.Orders(ctx, limit, c.sense)
}
