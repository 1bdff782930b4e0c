package draw

import (
	"tussock/internal/fold"
	"tussock/internal/fold/layermap"
	"tussock/internal/geom"
)

// Map draws the flat sheet with every crease as it is folded in a state.
func Map(s *fold.State) (Picture, Overlay) {
	box := geom.EmptyBox()
	var pic Picture
	o := nothing(s.Box())
	seams := map[fold.FacetID][]geom.Segment{}
	for _, h := range s.H {
		if h.Kind == fold.Glue {
			continue
		}
		seam := geom.Segment{A: h.P, B: h.Q}
		seams[h.A], seams[h.B] = append(seams[h.A], seam), append(seams[h.B], seam)
		switch s.Assigned(h) {
		case fold.Mountain:
			o.Strokes = append(o.Strokes, Stroke{"mountain", flatPoints(h.P, h.Q)})
		case fold.Valley:
			o.Strokes = append(o.Strokes, Stroke{"valley", flatPoints(h.P, h.Q)})
		default:
			if h.Kind == fold.Crease {
				o.Strokes = append(o.Strokes, Stroke{"axis", flatPoints(h.P, h.Q)})
			}
		}
	}
	for i, f := range s.F {
		box = box.Grow(f.Poly...)
		pic.Faces = append(pic.Faces, Face{Points: flatPoints(f.Poly...), Front: true, Plain: true,
			Edges: edges(f.Poly, seams[fold.FacetID(i)], asItLies)})
	}
	pic.View = view(box)
	o.View = pic.View
	return pic, o
}

// XRay is what is hidden in a folded toy: folds and edges under other layers.
func XRay(s *fold.State, cells []layermap.Cell) Overlay {
	o := nothing(s.Box())
	for _, h := range layermap.Hidden(s, cells) {
		o.Strokes = append(o.Strokes, Stroke{"hidden", flatPoints(h.A, h.B)})
	}
	return o
}

// Pocket shows where a pocket is, and its mouth.
func Pocket(s *fold.State, p layermap.Pocket) Overlay {
	o := Overlay{View: view(s.Box()), Strokes: []Stroke{{"meet", flatPoints(p.Mouth.A, p.Mouth.B)}}, Arrows: []Arrow{}, Signs: []Sign{}, Moving: []Region{}}
	for _, r := range p.Region {
		o.Moving = append(o.Moving, Region{Points: flatPoints(r...), Layers: p.Cover})
	}
	return o
}
