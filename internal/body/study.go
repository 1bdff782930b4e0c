package body

import (
	"math"

	"tussock/internal/fold"
	"tussock/internal/fold/layermap"
	"tussock/internal/geom"
	"tussock/internal/say"
	"tussock/internal/sequence"
	"tussock/internal/sequence/remarks"
)

// Study is all that is known of a folded toy beside its steps, in the form that
// scripts read. Lengths mm, areas mm², angles degrees, masses g, inertia g mm².
type Study struct {
	// Sound tells that every hinge is closed, no layer passes through a fold, and
	// the angle and count rules of flat folding hold at every vertex (Kawasaki,
	// Maekawa).
	Sound      bool              `json:"sound"`
	Outline    [][][2]float64    `json:"outline"` // rims counter-clockwise, holes clockwise
	Holes      int               `json:"holes"`
	Layers     []LayerArea       `json:"layers"`
	Top        FaceAreas         `json:"seen_from_above"`
	Bottom     FaceAreas         `json:"seen_from_behind"`
	HiddenMM   float64           `json:"hidden_edges_mm"`
	Pockets    []PocketReport    `json:"pockets"`
	Symmetry   []SymmetryReport  `json:"symmetry,omitempty"`
	Round      RoundReport       `json:"in_the_round"`
	Labels     []LabelReport     `json:"labels,omitempty"`
	Warnings   []remarks.Warning `json:"warnings"`
	LeftoverMM float64           `json:"cut_off_mm2"`
}

// LayerArea is how much of the toy has so many layers.
type LayerArea struct {
	Layers      int     `json:"layers"`
	AreaMM2     float64 `json:"area_mm2"`
	ThicknessMM float64 `json:"thickness_mm"`
}

// FaceAreas is how much of each face shows, started front up; started back up,
// the two change places.
type FaceAreas struct {
	FrontMM2 float64 `json:"front_mm2"`
	BackMM2  float64 `json:"back_mm2"`
}

// PocketReport is one pocket, the best for a tuck first.
type PocketReport struct {
	Mouth   [2][2]float64 `json:"mouth"`
	WidthMM float64       `json:"width_mm"`
	DepthMM float64       `json:"depth_mm"`
	Cover   int           `json:"layers_over"`
	Beneath int           `json:"layers_under"`
	Closed  float64       `json:"closed_share"`
}

// SymmetryReport is how far two landmarks that mirror each other on the sheet
// come to lie from each other's mirror image.
type SymmetryReport struct {
	Left  string  `json:"left"`
	Right string  `json:"right"`
	MM    float64 `json:"mm"`
}

// RoundReport is the toy set in the round.
type RoundReport struct {
	MassG      float64    `json:"mass_g"`
	CoM        [3]float64 `json:"com"`
	Ixx        float64    `json:"ixx"`
	Iyy        float64    `json:"iyy"`
	Izz        float64    `json:"izz"`
	Ixy        float64    `json:"ixy"`
	Ixz        float64    `json:"ixz"`
	Iyz        float64    `json:"iyz"`
	ResidualMM float64    `json:"residual_mm"` // worst gap at a hinge
	MissedDeg  float64    `json:"missed_deg"`  // worst difference of an angle asked and reached
	Crossing   int        `json:"crossing"`    // pairs of pieces that pass through each other
	Sound      bool       `json:"sound"`
	Why        string     `json:"why,omitempty"` // it is not sound
}

// LabelReport is what is written on the paper, and where it has got to.
type LabelReport struct {
	Kind    string     `json:"kind"`
	Text    string     `json:"text,omitempty"`
	At      [2]float64 `json:"at"`
	Visible bool       `json:"visible"` // on the top layer, with its face up
	Back    bool       `json:"back"`    // written on the sheet's back
	SizeMM  float64    `json:"size_mm,omitempty"`
	TurnDeg float64    `json:"turn_deg"` // as it lies now, against the clock, seen from above
	Zone    string     `json:"zone,omitempty"`
}

// StudyOf gathers it all for a replay's last good state.
func StudyOf(r *sequence.Replay) Study {
	s := r.Final()
	cells := layermap.Cells(s)
	st := Study{Sound: len(s.Faults()) == 0, Outline: [][][2]float64{}, Layers: []LayerArea{}, Pockets: []PocketReport{}, Warnings: append(remarks.Warnings(r), Tears(r)...)}
	if st.Warnings == nil {
		st.Warnings = []remarks.Warning{}
	}
	for _, rim := range layermap.Silhouette(cells) {
		ring := make([][2]float64, len(rim))
		for i, v := range rim {
			ring[i] = pair(v)
		}
		st.Outline = append(st.Outline, ring)
		if rim.Area() < 0 {
			st.Holes++
		}
	}
	area := map[int]float64{}
	most := 0
	for _, c := range cells {
		area[len(c.Stack)] += c.Poly.Area()
		most = max(most, len(c.Stack))
	}
	for n := 1; n <= most; n++ {
		if area[n] > 0 {
			st.Layers = append(st.Layers, LayerArea{n, area[n], float64(n) * r.Sheet.ThicknessMM})
		}
	}
	top, bottom := layermap.Visible(s, cells)
	st.Top, st.Bottom = FaceAreas(top), FaceAreas(bottom)
	for _, h := range layermap.Hidden(s, cells) {
		st.HiddenMM += h.Len()
	}
	for _, p := range layermap.Pockets(s, cells) {
		st.Pockets = append(st.Pockets, PocketReport{[2][2]float64{pair(p.Mouth.A), pair(p.Mouth.B)}, p.Mouth.Len(), p.DepthMM, p.Cover, p.Beneath, p.Closed})
	}
	st.symmetry(r, s)
	m := Standing(r)
	w := m.Weigh()
	st.Round = RoundReport{w.G, [3]float64{w.CoM.X, w.CoM.Y, w.CoM.Z}, w.Ixx, w.Iyy, w.Izz, w.Ixy, w.Ixz, w.Iyz, m.Residual, m.MissDeg, len(m.Crossing), m.Sound(), say.Plain(m.Unsound())}
	for _, n := range r.Notes {
		st.Labels = append(st.Labels, labelled(s, n))
	}
	for _, p := range s.Removed {
		st.LeftoverMM += p.Area()
	}
	return st
}

func (st *Study) symmetry(r *sequence.Replay, s *fold.State) {
	at := map[string]geom.Vec{}
	for n, p := range r.Landmarks {
		if v, ok := sequence.Place(s, p); ok {
			at[n] = v
		}
	}
	res, _ := layermap.Mirror(r.Sheet.WidthMM, r.Landmarks, at)
	for _, q := range res {
		st.Symmetry = append(st.Symmetry, SymmetryReport(q))
	}
}

func labelled(s *fold.State, n sequence.Note) LabelReport {
	out := LabelReport{Kind: string(n.Kind), Text: n.Text, Back: n.OnBack, SizeMM: n.SizeMM, Zone: n.Zone}
	f := s.FacetsAtSheet(n.At)
	if len(f) == 0 {
		return out
	}
	at := s.F[f[0]].Iso.Apply(n.At)
	out.At = pair(at)
	run := geom.Vec{X: math.Cos(geom.Rad(n.TurnDeg)), Y: math.Sin(geom.Rad(n.TurnDeg))}
	if n.OnBack {
		run.X = -run.X
	}
	run = s.F[f[0]].Iso.Turn(run)
	out.TurnDeg = geom.Deg(math.Atan2(run.Y, run.X))
	if top, ok := s.TopAt(at); ok {
		for _, g := range f {
			out.Visible = out.Visible || g == top && s.F[g].Iso.FaceUp() != n.OnBack
		}
	}
	return out
}
