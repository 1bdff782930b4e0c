// Package demo makes the data of the Saltmarsh Ferry waiting hall: an invented
// place where passengers fold timetable leaflets while they wait for the tide.
// Every person, ferry and throw is made up; throws are drawn with a fixed seed.
package demo

import (
	"cmp"
	"context"
	"fmt"
	"math/rand/v2"
	"time"

	"tussock/internal/bench"
	"tussock/internal/motion"
	"tussock/internal/motion/toys"
	"tussock/internal/packs"
	"tussock/internal/prepare"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
	"tussock/internal/store"
	"tussock/internal/ways"
)

// Papers of the waiting hall.
var (
	leaflet = bench.SheetSpec{WidthMM: 210, HeightMM: 297, GSM: 80, ThicknessMM: 0.1, Paper: "Timetable leaflet", Front: "#fdf8ea", Back: "#b5c9c4"}
	form    = bench.SheetSpec{WidthMM: 215.9, HeightMM: 279.4, GSM: 75, ThicknessMM: 0.098, Paper: "Lost property form", Front: "#f7f3fa", Back: "#c9c2de"}
	square  = bench.SheetSpec{WidthMM: 152.4, HeightMM: 152.4, GSM: 62, ThicknessMM: 0.075, Paper: "Sweet wrapper square", Front: "#f6d9a8", Back: "#f4f1e6"}
	wrap    = bench.SheetSpec{WidthMM: 250, HeightMM: 350, GSM: 90, ThicknessMM: 0.12, Paper: "Parcel wrap", Front: "#d9bf96", Back: "#efe6d2"}
	// What the leaflet's strip gives, and half of a square.
	twin   = bench.SheetSpec{WidthMM: 61.5, HeightMM: 87, GSM: 80, ThicknessMM: 0.1, Paper: "Leftover of Timetable leaflet", Front: "#fdf8ea", Back: "#b5c9c4"}
	halved = bench.SheetSpec{WidthMM: 76.2, HeightMM: 152.4, GSM: 62, ThicknessMM: 0.075, Paper: "Sweet wrapper square, halved", Front: "#f6d9a8", Back: "#f4f1e6"}
	tag    = bench.SheetSpec{WidthMM: 100, HeightMM: 100, GSM: 70, ThicknessMM: 0.085, Paper: "Luggage tag square", Front: "#e9d9ef", Back: "#fbf7fc"}
	ring   = bench.SheetSpec{WidthMM: 297, HeightMM: 40, GSM: 80, ThicknessMM: 0.1, Paper: "Rim of a timetable leaflet", Front: "#fdf8ea", Back: "#b5c9c4"}
	spring = bench.SheetSpec{WidthMM: 297, HeightMM: 24, GSM: 80, ThicknessMM: 0.1, Paper: "Rim of a timetable leaflet", Front: "#fdf8ea", Back: "#b5c9c4"}
	ticket = bench.SheetSpec{WidthMM: 52, HeightMM: 190, GSM: 110, ThicknessMM: 0.14, Paper: "Ticket strip", Front: "#f2d7c9", Back: "#f2d7c9"}
)

// drawer is what lies in the hall's drawer, and how much is left of it.
var drawer = []struct {
	sheet            bench.SheetSpec
	grain, stiffness string
	left             int
}{
	{leaflet, "height", "ordinary", 140}, {form, "height", "ordinary", 36}, {square, "", "soft", 22}, {wrap, "width", "crisp", 9}, {ticket, "height", "crisp", 60},
}

// tweak is one set-up of the story: what changed, why, and how it flew.
type tweak struct {
	set      map[string]float64
	why      string
	n        int
	mean, sd float64 // metres
	drift    float64 // to the right, metres
	aside    float64 // scatter of the drift, metres; 0 when nobody looked
	seen     []string
	chance   float64 // that one of seen is noted
	pace     float64 // metres ahead a second; 0 for the usual four and a half
	// Of a hop: its height, metres, and half flips.
	height, flips float64
	towards       float64 // of a token: o'clock that it leans to; 0 when nobody looked
}

type story struct {
	pattern, name, thrower string
	sheet                  bench.SheetSpec
	day                    int // of the year 2026
	parent, parentTweak    int // index into stories + 1, 0 for none
	step                   int
	squared                bool // the sheet is the square cut from it with one fold
	draft                  map[string]float64
	pack                   string // that it is filled from
	tweaks                 []tweak
}

// What was logged lies about where it is predicted, but for the Spadefoot from the leftover:
// so small a toy of so many layers leaps less than the model has it; and for the tide gauge,
// which has a stamp under its right half that nobody told the model of.
var stories = []story{
	{pattern: "curlew", name: "Leaflet Curlew", thrower: "Ilse, upper deck", sheet: leaflet, day: 258, step: 10, tweaks: []tweak{
		{set: map[string]float64{"curl": 0}, why: "Tail edge left flat", n: 9, mean: 4.2, sd: 0.4, aside: 0.2, pace: 5.2, seen: []string{"dived"}, chance: 0.8},
		{set: map[string]float64{"curl": 3}, why: "It dives. Curl the tail up.", n: 8, mean: 6.7, sd: 0.6, aside: 0.3, pace: 5.4, seen: []string{"dived", "glided", "glided"}, chance: 0.7},
		{set: map[string]float64{"curl": 4, "wing": 84}, why: "A little more of the same, and tips up against the rolling", n: 11, mean: 7.2, sd: 0.5, aside: 0.3, seen: []string{"glided"}, chance: 0.7},
	}},
	{pattern: "curlew", name: "Blunt Curlew", thrower: "Ilse, upper deck", sheet: leaflet, day: 286, step: 10, parent: 1, parentTweak: 3, tweaks: []tweak{
		{set: map[string]float64{"wing": 84, "nose": 12, "curl": 4}, why: "A blunter nose, to sit softer in the hand", n: 10, mean: 6.6, sd: 0.5, aside: 0.4, drift: -1.6, seen: []string{"turned left"}, chance: 0.8},
		{set: map[string]float64{"wing": 84, "nose": 12, "curl": 5, "rudder": 1}, why: "It turns left. Bend the keel's tail to the right.", n: 12, mean: 6.5, sd: 0.5, aside: 0.4, seen: []string{"glided"}, chance: 0.8},
	}},
	{pattern: "curlew", name: "Lost property Curlew", thrower: "Bram, ticket office", sheet: form, day: 265, step: 10, tweaks: []tweak{
		{set: map[string]float64{"curl": 1}, why: "Same folds on the wider form", n: 7, mean: 5.6, sd: 0.6, aside: 0.4, pace: 6.6, seen: []string{"dived"}, chance: 0.7},
		{set: map[string]float64{"curl": 5, "wing": 84}, why: "Copying Ilse", n: 6, mean: 6.8, sd: 0.6, aside: 0.4, drift: 1.6, seen: []string{"turned right"}, chance: 0.9},
	}},
	{pattern: "shelduck", name: "Shelduck at slack water", thrower: "Marek of the Grebe", sheet: leaflet, day: 272, step: 12, tweaks: []tweak{
		{set: map[string]float64{"curl": 16}, why: "First try, the tail well up", n: 8, mean: 4.2, sd: 0.4, aside: 0.5, pace: 2.2, seen: []string{"glided"}, chance: 0.6},
		{set: map[string]float64{"curl": 10, "wing": 87}, why: "Less curl, and a flat V against the wobble", n: 8, mean: 4.8, sd: 0.4, aside: 0.5, pace: 2.2, seen: []string{"glided"}, chance: 0.6},
		{set: map[string]float64{"curl": 5, "wing": 87}, why: "And a bit less", n: 9, mean: 5.5, sd: 0.4, aside: 0.5, pace: 2.2, seen: []string{"glided"}, chance: 0.7},
	}},
	{pattern: "shelduck", name: "Shelduck, deep keel", thrower: "Marek of the Grebe", sheet: leaflet, day: 300, step: 12, parent: 4, parentTweak: 3,
		draft: map[string]float64{"wing": 84, "depth": 32, "curl": 6}, tweaks: []tweak{
			{set: map[string]float64{"wing": 87, "depth": 32, "curl": 6}, why: "More keel, to fly straight past the ticket machine", n: 9, mean: 5.6, sd: 0.4, aside: 0.4, pace: 3.3, seen: []string{"glided"}, chance: 0.7},
		}},
	{pattern: "shelduck", name: "Parcel Shelduck", thrower: "Tova, car deck", sheet: wrap, day: 293, step: 12, tweaks: []tweak{
		{set: map[string]float64{"drop": 8, "curl": -1, "depth": 25}, why: "Heavy wrap; the edges came out bent down", n: 6, mean: 4.4, sd: 0.5, aside: 0.4, pace: 4.9, seen: []string{"dived"}, chance: 0.9},
	}},
	{pattern: "curlew", name: "Sweet wrapper Curlew", thrower: "Tova, car deck", sheet: square, day: 312, step: 6},
	{pattern: "fortune", name: "Slack water oracle", thrower: "Ilse, upper deck", sheet: leaflet, squared: true, day: 318, step: 17, pack: "wishes", tweaks: []tweak{
		{set: map[string]float64{}, why: "For the queue at the ticket desk", n: 18, mean: 9.6, sd: 0.6, seen: []string{"opened both ways"}, chance: 0.5},
	}},
	{pattern: "spadefoot", name: "Leaflet Spadefoot", thrower: "Nele, galley", sheet: leaflet, day: 296, step: 15, tweaks: []tweak{
		{why: "From a whole leaflet: big, and it leaps all the same", n: 10, mean: 0.21, sd: 0.04, height: 0.11, flips: 1.4, seen: []string{"leapt forward", "landed on its back", "landed on its feet"}, chance: 0.7},
	}},
	{pattern: "spadefoot", name: "Spadefoot from the leftover", thrower: "Nele, galley", sheet: twin, day: 297, step: 15, tweaks: []tweak{
		{why: "The same folds from the strip that came off: hard to press", n: 10, mean: 0.19, sd: 0.04, height: 0.10, flips: 1.6, seen: []string{"leapt forward", "landed on its back", "landed on its feet"}, chance: 0.7},
	}},
	{pattern: "sandhopper", name: "Sweet wrapper Sandhopper", thrower: "Tova, car deck", sheet: square, day: 303, step: 20, tweaks: []tweak{
		{why: "Both last folds soft, as the pattern has it", n: 9, mean: 0.185, sd: 0.035, height: 0.10, flips: 3, seen: []string{"leapt forward", "landed on its back", "landed on its side"}, chance: 0.7},
		{set: map[string]float64{"hip_radius": 0.3, "catch_radius": 0.3}, why: "Bram says firm creases give the power", n: 9, mean: 0.06, sd: 0.015, height: 0.035, flips: 1, seen: []string{"leapt forward", "landed on its back"}, chance: 0.7},
	}},
	{pattern: "natterjack", name: "Counter Natterjack", thrower: "Bram, ticket office", sheet: square, day: 305, step: 18, tweaks: []tweak{
		{set: map[string]float64{"last": 0.47}, why: "Last fold a bit short of the middle", n: 6, mean: 0.07, sd: 0.02, height: 0.045, flips: 1, seen: []string{"caught the finger"}, chance: 0.9},
	}},
	{pattern: "backswimmer", name: "Backswimmer of the Grebe", thrower: "Marek of the Grebe", sheet: square, day: 307, step: 19, tweaks: []tweak{
		{why: "Bent, not creased", n: 7, mean: 0.085, sd: 0.02, height: 0.075, flips: 1.3, seen: []string{"leapt backward", "landed on its feet", "landed on its back"}, chance: 0.8},
	}},
	{pattern: "mudskipper", name: "Half a wrapper", thrower: "Ilse, upper deck", sheet: halved, day: 315, step: 9},
	{pattern: "lapwing", name: "Lapwing of the Grebe", thrower: "Marek of the Grebe", sheet: square, day: 319, step: 18, tweaks: []tweak{
		{set: map[string]float64{"neck_open": 22, "tail_open": 24}, why: "Straight from folding: the tail hardly comes", n: 7, mean: 6, sd: 1.5, seen: []string{"locked", "locked", "tail would not pull"}, chance: 0.9},
		{set: map[string]float64{}, why: "It locks at the neck. Opened neck and tail a few times.", n: 8, mean: 16, sd: 2, seen: []string{"flapped"}, chance: 0.8},
		{set: map[string]float64{"neck_open": 60, "tail_open": 60, "wing_curve": 5, "hump_rest": 10}, why: "Looser still, a curve in the wings, the hump pressed flat", n: 9, mean: 22, sd: 2.5, seen: []string{"flapped"}, chance: 0.8},
	}},
	{pattern: "mudlark", name: "Galley Mudlark", thrower: "Nele, galley", sheet: square, day: 320, step: 11, tweaks: []tweak{
		{set: map[string]float64{"girth": 60}, why: "Rolled on a broom handle", n: 5, mean: 17, sd: 4, seen: []string{"slipped off the finger"}, chance: 0.9},
		{set: map[string]float64{"girth": 54}, why: "It slides off. Rolled to 54 mm, for her finger of 55.", n: 9, mean: 21, sd: 3, seen: []string{"flapped"}, chance: 0.8},
		{set: map[string]float64{"girth": 54, "crease_in": 75}, why: "The short crease pushed in further", n: 8, mean: 26, sd: 4, seen: []string{"flapped"}, chance: 0.8},
	}},
	{pattern: "cockle", name: "Bollard Cockle", thrower: "Tova, car deck", sheet: square, day: 321, step: 16, tweaks: []tweak{
		{set: map[string]float64{"pivot_right": 2}, why: "The tip stood up a little crooked", n: 7, mean: 1.3, sd: 0.4, towards: 9, seen: []string{"leaned"}, chance: 0.8},
		{set: map[string]float64{}, why: "It leans to 9 o'clock. Bent the tip back, 2 mm that way.", n: 8, mean: 2.7, sd: 0.6, towards: 8, seen: []string{"spun steadily"}, chance: 0.7},
		{set: map[string]float64{"edges_up": 0.1}, why: "All loose edges pressed flat with a nail", n: 9, mean: 4.4, sd: 0.8, seen: []string{"spun steadily"}, chance: 0.8},
	}},
	{pattern: "tidegauge", name: "Tide gauge for the window", thrower: "Bram, ticket office", sheet: leaflet, day: 322, step: 9, tweaks: []tweak{
		{set: map[string]float64{}, why: "On a pin in a cork; the right half hangs low", n: 6, mean: 8, sd: 1, towards: 3, seen: []string{"leaned"}, chance: 0.9},
		{set: map[string]float64{"found_right": 2, "pivot_right": 2}, why: "Heavier on the right by a stamp. Set the pin 2 mm that way.", n: 8, mean: 2, sd: 0.7, seen: []string{"hung level"}, chance: 0.8},
	}},
	{pattern: "seaaster", name: "Ticket desk Sea aster", thrower: "Wout, ticket desk", sheet: square, day: 323, step: 20, tweaks: []tweak{
		{set: map[string]float64{"gap_1": 3.5, "gap_3": 5.5, "gap_4": 6}, why: "As it was twisted; counted 3.5, 5, 5.5, 6 and 5 folds between its blades", n: 6, mean: 4.6, sd: 0.9, seen: []string{"wobbled"}, chance: 0.8},
		{set: map[string]float64{}, why: "Blades moved until all gaps had five folds", n: 8, mean: 5.8, sd: 0.8, seen: []string{"turned steadily"}, chance: 0.8},
		{set: map[string]float64{"blade_angle": 24}, why: "Pressed and twisted further: blades at 24 degrees", n: 8, mean: 7.1, sd: 0.9, seen: []string{"turned steadily"}, chance: 0.8},
	}},
	{pattern: "seaaster", name: "Gallery Sea aster, six blades", thrower: "Isa, gallery", sheet: leaflet, day: 324, step: 20, tweaks: []tweak{
		{set: map[string]float64{"n": 6, "hand": -1, "rim": 40}, why: "Six blades, the other way round, dropped tip down from the gallery rail", n: 7, mean: 1.05, sd: 0.05, height: 2, seen: []string{"floated down"}, chance: 0.7},
	}},
	{pattern: "marshmill", name: "Marsh mill on a skewer", thrower: "Bram, ticket office", sheet: tag, day: 325, step: 21, tweaks: []tweak{
		{set: map[string]float64{"pin_radius": 2.5}, why: "On a skewer that was only broken off", n: 5, mean: 3.1, sd: 1.2, seen: []string{"did not start"}, chance: 0.9},
		{set: map[string]float64{"pin_radius": 0.6}, why: "The skewer whittled to 0.6 mm and blunted", n: 8, mean: 17, sd: 3, seen: []string{"turned steadily"}, chance: 0.8},
	}},
	{pattern: "slipway", name: "Slipway oracle for the deck school", thrower: "Isa, gallery", sheet: leaflet, squared: true, day: 326, step: 4, pack: "indoors"},
	{pattern: "slackring", name: "Slack water ring", thrower: "Wout, ticket desk", sheet: ring, day: 327, step: 19, tweaks: []tweak{
		{set: map[string]float64{}, why: "From the rim of a leaflet, zigzagged", n: 6, mean: 3, sd: 0.3, seen: []string{"flexed smoothly"}, chance: 0.7},
	}},
	{pattern: "springring", name: "Spring tide ring", thrower: "Nele, galley", sheet: spring, day: 328, step: 26, tweaks: []tweak{
		{set: map[string]float64{}, why: "Nineteen triangles; the galley finds three faces, again and again", n: 7, mean: 5.6, sd: 0.7, seen: []string{"faces could not be found"}, chance: 0.7},
	}},
}

// Seed fills an empty store with the demo data and marks it as such, in one step; a store
// with anything in it is left alone.
func Seed(ctx context.Context, s *store.Store) error {
	var papers []bench.Paper
	for _, p := range drawer {
		papers = append(papers, bench.Paper{Name: p.sheet.Paper, Sheet: p.sheet, Grain: p.grain, Stiffness: p.stiffness, Left: &p.left})
	}
	left := leaflet
	left.WidthMM, left.HeightMM, left.Paper = 87, 210, "Leftover of Timetable leaflet"
	some := 3
	papers = append(papers, bench.Paper{Name: left.Paper, Sheet: left, Grain: "width", Stiffness: "ordinary", Left: &some, Origin: leaflet.Paper})
	r := rand.New(rand.NewPCG(1871, 42))
	builds := make([]bench.Build, len(stories))
	for i, st := range stories {
		b, err := st.build(r)
		if err != nil {
			return err
		}
		if st.parent > 0 {
			parent := int64(st.parent)
			b.ParentID, b.ParentTweak = &parent, &st.parentTweak
		}
		builds[i] = b
	}
	return s.Fill(ctx, store.Demo, papers, builds)
}

func (st story) build(r *rand.Rand) (bench.Build, error) {
	all, err := shelf.All()
	if err != nil {
		return bench.Build{}, err
	}
	var p *sequence.Pattern
	for _, x := range all {
		if x.ID == st.pattern {
			p = x
		}
	}
	at := time.Date(2026, 1, 1, 15, 40, 0, 0, time.UTC).AddDate(0, 0, st.day)
	if st.squared {
		if st.sheet, err = squared(st.sheet); err != nil {
			return bench.Build{}, err
		}
	}
	b := bench.Build{Pattern: st.pattern, Name: st.name, Step: st.step, CreatedAt: at}
	height := 1.5 + 0.1*float64(len(st.thrower)%4)
	if p.Moves == "reveal" { // drawn apart, so that the others stay as they are
		r = rand.New(rand.NewPCG(uint64(st.day), 42))
	}
	for i, t := range st.tweaks {
		at = at.Add(20*time.Minute + time.Duration(i)*3*24*time.Hour)
		setup, err := st.setup(p, t.set)
		if err != nil {
			return bench.Build{}, err
		}
		tw := bench.Tweak{No: i + 1, Why: t.why, Setup: setup, CreatedAt: at}
		air := []string{"still", "draught from the doors", "still, damp"}[(st.day+i)%3]
		for range t.n {
			at = at.Add(time.Duration(40+r.IntN(80)) * time.Second)
			n, note := ways.For(p).Invent(r, t.meant(height))
			tw.Trials = append(tw.Trials, bench.Trial{Kind: n.Kind, Read: n.Read, Under: n.Under, Seen: n.Chips, Thrower: st.thrower, Place: "Waiting hall", Air: air, Note: note, At: at})
		}
		b.Tweaks = append(b.Tweaks, tw)
	}
	if st.draft != nil || len(st.tweaks) == 0 {
		d, err := st.setup(p, st.draft)
		if err != nil {
			return bench.Build{}, err
		}
		b.Draft = &d
	}
	return b, nil
}

// squared is the square that one fold and one cut make of a sheet.
func squared(s bench.SheetSpec) (bench.SheetSpec, error) {
	have, err := sheet.New(s.WidthMM, s.HeightMM, s.GSM, s.ThicknessMM)
	if err != nil {
		return s, err
	}
	ways, err := prepare.Ways(have, prepare.Want{Kind: prepare.Square}, false)
	if err != nil {
		return s, err
	}
	w := ways[0]
	s.From = &bench.SheetFrom{WidthMM: s.WidthMM, HeightMM: s.HeightMM, Want: bench.SheetWant{Kind: string(prepare.Square)}}
	s.WidthMM, s.HeightMM, s.Way, s.ErrorMM = w.Piece.WidthMM, w.Piece.HeightMM, w.Name, w.ErrorMM
	for _, c := range w.Creases {
		s.Made = append(s.Made, [4]float64{c.A.X, c.A.Y, c.B.X, c.B.Y})
	}
	return s, nil
}

func (st story) setup(p *sequence.Pattern, set map[string]float64) (bench.Setup, error) {
	out := bench.Setup{Sheet: st.sheet, Knobs: map[string]float64{}}
	for _, k := range p.Knobs {
		if !k.Plain {
			out.Knobs[k.Name] = k.Default
		}
	}
	for k, v := range set {
		out.Knobs[k] = v
	}
	if st.pack == "" {
		return out, nil
	}
	w, err := st.written(p, out)
	out.Written = w
	return out, err
}

// written is what stands on the toy: filled from the pack of the story, pictures on the panels.
func (st story) written(p *sequence.Pattern, setup bench.Setup) (motion.Written, error) {
	all, err := packs.Shipped()
	if err != nil {
		return nil, err
	}
	sh, err := setup.Sheet.Plain()
	if err != nil {
		return nil, err
	}
	q := ways.For(p).Writing
	places, err := q.Places(p.Run(sh, setup.Knobs))
	if err != nil {
		return nil, err
	}
	for _, x := range all {
		if x.ID != st.pack {
			continue
		}
		x.Read = true
		w, _ := q.FillFrom(places, nil, x, uint64(st.day))
		for i, shape := range []string{"wave", "boat", "sun", "fish"} {
			at := fmt.Sprintf("outer %d", i+1)
			m := w[at]
			m.Picture = shape
			if m.Colour == "" {
				m.Colour = toys.Tints()[i].Colour
			}
			w[at] = m
		}
		return w, nil
	}
	return nil, fmt.Errorf("no pack is called %s", st.pack)
}

// meant is what the trials of a tweak scatter about, for toys that are let go at a height.
func (t tweak) meant(height float64) toys.Meant {
	return toys.Meant{Mean: t.mean, SD: t.sd, Seen: t.seen, Chance: t.chance,
		More: map[string]float64{"from": height, "aside": t.drift, "scatter aside": t.aside, "height": t.height, "flips": t.flips, "towards": t.towards, "pace": cmp.Or(t.pace, 4.6)}}
}

// Names of the builds of the demo data, in their order.
func Names() []string {
	var out []string
	for _, st := range stories {
		out = append(out, st.name)
	}
	return out
}
