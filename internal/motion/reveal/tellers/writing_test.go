package tellers_test

import (
	"bytes"
	"fmt"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"tussock/internal/draw"
	"tussock/internal/fold"
	"tussock/internal/foldtest"
	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/reveal/tellers"
	"tussock/internal/motion/toys"
	"tussock/internal/packs"
	"tussock/internal/prints"
	"tussock/internal/sequence"
)

func on(t *testing.T, side float64) (*sequence.Replay, []toys.Place) {
	t.Helper()
	r := foldtest.On(t, foldtest.Toy(t, "teller"), side, side, nil)
	text := strings.Replace(r.Pattern.Text, "moves reveal\n", "moves reveal\nzones outer number message\n", 1)
	r = foldtest.On(t, foldtest.Parse(t, text), side, side, nil)
	if r.Err != nil {
		t.Fatal(r.Err)
	}
	places, err := tellers.Writing().Places(r)
	if err != nil {
		t.Fatal(err)
	}
	return r, places
}

// from is a teller filled from a pack.
func from(t *testing.T, places []toys.Place, p packs.Pack, seed uint64) motion.Written {
	t.Helper()
	q := tellers.Writing()
	words, messages := q.Wants(places)
	spelled, entries := p.Draw(words, messages, seed)
	var said []string
	for _, e := range entries {
		said = append(said, e.Text)
	}
	if words != 4 || messages != 8 {
		t.Fatalf("it takes %d words and %d messages", words, messages)
	}
	return q.Fill(places, nil, spelled, said, p.Read)
}

func languages(t *testing.T) map[string]packs.Pack {
	t.Helper()
	all, err := packs.Shipped()
	if err != nil {
		t.Fatal(err)
	}
	out := map[string]packs.Pack{}
	for _, p := range all {
		if _, there := out[p.Language]; !there {
			out[p.Language] = p
		}
	}
	if len(out) < 5 {
		t.Fatalf("packs in %d languages", len(out))
	}
	return out
}

// box are the corners of a text on the sheet.
func box(k draw.Ink) (out [4]geom.Vec) {
	along, up := k.Upright()
	w, h := prints.Printed(k.Text)*k.SizeMM/2, k.SizeMM/2
	for i, q := range [4][2]float64{{-1, -1}, {1, -1}, {1, 1}, {-1, 1}} {
		out[i] = k.At.Add(along.Scale(q[0] * w)).Add(up.Scale(q[1] * h))
	}
	return out
}

// No text crosses a fold, an edge or another text, at any size, in five languages; and hardly any
// is too long for a sheet that is folded.
func TestTextsKeepOffFolds(t *testing.T) {
	for side := 80.0; side <= 300; side += 20 {
		r, places := on(t, side)
		s := r.Final()
		outline := r.Sheet.Outline()
		long, all := 0, 0
		for name, p := range languages(t) {
			for seed := range uint64(3) {
				inks, faults := toys.Inked(places, from(t, places, p, seed))
				long += len(faults)
				var boxes [][4]geom.Vec
				for _, k := range inks {
					if k.Text == "" || k.SizeMM < prints.LeastTypeMM {
						continue
					}
					all++
					b := box(k)
					poly := geom.Polygon(b[:])
					if poly.Area() < 0 {
						poly = geom.Polygon{b[3], b[2], b[1], b[0]}
					}
					for _, v := range poly {
						if !outline.Contains(v, -1) {
							t.Errorf("%g mm, %s: %q is less than 1 mm from the edge", side, name, k.Text)
						}
					}
					for _, h := range s.H {
						if h.Kind == fold.Crease && crosses(poly, geom.Segment{A: h.P, B: h.Q}) {
							t.Fatalf("%g mm, %s: %q lies over a fold", side, name, k.Text)
						}
					}
					for _, c := range boxes {
						other := geom.Polygon(c[:])
						if other.Area() < 0 {
							other = geom.Polygon{c[3], c[2], c[1], c[0]}
						}
						if common := geom.ClipConvex(poly, other); common != nil && math.Abs(common.Area()) > 1e-3 {
							t.Errorf("%g mm, %s: %q lies over another text", side, name, k.Text)
						}
					}
					boxes = append(boxes, b)
				}
			}
		}
		if all < 100 || side >= 150 && long > 0 {
			t.Errorf("%g mm: %d texts, %d too long", side, all, long)
		}
	}
}

// Rendered and measured: the boxes that a reader of the printed PDF finds its words in lie within
// the places that they belong to, at three sizes and in five languages.
func TestRenderedTextsKeepTheirPlaces(t *testing.T) {
	if _, err := exec.LookPath("pdftotext"); err != nil {
		t.Fatal("pdftotext measures prints; make test installs it")
	}
	word := regexp.MustCompile(`<word xMin="([0-9.]+)" yMin="([0-9.]+)" xMax="([0-9.]+)" yMax="([0-9.]+)">`)
	const pt = 25.4 / 72
	for _, side := range []float64{80, 150, 300} {
		r, places := on(t, side)
		for name, p := range languages(t) {
			inks, _ := toys.Inked(places, from(t, places, p, 1))
			o := prints.Order{Title: ".", Outline: r.Sheet.Outline(), Notes: inks, Back: true, Page: prints.Page{Name: "large", WidthMM: 340, HeightMM: 400}}
			leaves, err := prints.Lay(o)
			if err != nil || len(leaves) != 1 {
				t.Fatal(len(leaves), err)
			}
			leaves[0].Words = slices.DeleteFunc(leaves[0].Words, func(w prints.Word) bool { return !w.Middle })
			file := filepath.Join(t.TempDir(), "t.pdf")
			var b bytes.Buffer
			if err := prints.PDF(&b, "t", leaves); err != nil {
				t.Fatal(err)
			}
			if err := os.WriteFile(file, b.Bytes(), 0o600); err != nil {
				t.Fatal(err)
			}
			text, err := exec.CommandContext(t.Context(), "pdftotext", "-bbox", file, "-").Output()
			if err != nil {
				t.Fatal(err)
			}
			left, bottom := 340.0-prints.MarginMM-side, 0.0
			for _, s := range leaves[0].Strokes {
				if s.Kind == prints.Cut {
					bottom = math.Max(bottom, math.Max(s.A.Y, s.B.Y))
				}
			}
			found := 0
			for _, m := range word.FindAllStringSubmatch(string(text), -1) {
				var v [4]float64
				for i := range v {
					if v[i], err = strconv.ParseFloat(m[i+1], 64); err != nil {
						t.Fatal(err)
					}
				}
				found++
				middle := geom.Vec{X: side - ((v[0]+v[2])/2*pt - left), Y: bottom - (v[1]+v[3])/2*pt}
				in := 0
				for _, q := range places {
					if q.Text.Contains(middle, 0) {
						in++
						for _, x := range []float64{v[0], v[2]} {
							for _, y := range []float64{v[1], v[3]} {
								// The reader's box is as high as the font, ascent to descent.
								at := geom.Vec{X: side - (x*pt - left), Y: bottom - y*pt}
								if !q.Text.Contains(at, 0.02*side) {
									t.Errorf("%g mm, %s: a word at %v leaves %s", side, name, at, q.Name)
								}
							}
						}
					}
				}
				if in != 1 {
					t.Errorf("%g mm, %s: a word at %v is in %d places", side, name, middle, in)
				}
			}
			if found < 20 {
				t.Errorf("%g mm, %s: %d words on the page", side, name, found)
			}
		}
	}
}

// crosses tells whether a segment runs through the inside of a convex shape, grown by nearly the
// margin.
func crosses(p geom.Polygon, s geom.Segment) bool {
	line, ok := geom.LineThrough(s.A, s.B)
	if !ok {
		return false
	}
	in, ok := p.ClipLine(line)
	if !ok || in.Len() < 1e-6 {
		return false
	}
	d := s.B.Sub(s.A).Unit()
	lo, hi := d.Dot(in.A.Sub(s.A)), d.Dot(in.B.Sub(s.A))
	if lo > hi {
		lo, hi = hi, lo
	}
	return lo < s.Len()-1e-6 && hi > 1e-6
}

// What is printed on the page is carried through the fold by the engine: it comes to lie upright,
// where the picture of the toy shows it.
func TestPrintComesUpright(t *testing.T) {
	for _, side := range []float64{120, 150, 210} {
		r, places := on(t, side)
		all, err := packs.Shipped()
		if err != nil {
			t.Fatal(err)
		}
		inks, _ := toys.Inked(places, from(t, places, all[0], 3))
		o := prints.Order{Title: "t", Outline: r.Sheet.Outline(), Notes: inks, Front: true, Back: true, Page: prints.Pages[0]}
		leaves, err := prints.Lay(o)
		if err != nil || len(leaves) != 2 {
			t.Fatal(err, len(leaves))
		}
		back := leaves[1]
		// On the page, seen from the back: the cut lines tell where the sheet lies.
		left, bottom := math.Inf(1), math.Inf(-1)
		for _, s := range back.Strokes {
			if s.Kind == prints.Cut {
				left, bottom = math.Min(left, math.Min(s.A.X, s.B.X)), math.Max(bottom, math.Max(s.A.Y, s.B.Y))
			}
		}
		views := map[string]draw.Picture{}
		for _, v := range tellers.Writing().Views(r, inks) {
			views[v.Name] = v.Picture
		}
		pressed := r.Steps[0].After
		for _, d := range r.Steps {
			if d.InTheRound() {
				break
			}
			pressed = d.After
		}
		seen := map[string]int{}
		for _, w := range back.Words {
			if !w.Middle {
				continue
			}
			// From the page to the sheet, mirrored: a second way than the one that laid it out.
			at := geom.Vec{X: side - (w.At.X - left), Y: bottom - w.At.Y}
			for _, f := range pressed.FacetsAtSheet(at) {
				iso := pressed.F[f].Iso
				spot := iso.Apply(at)
				sin, cos := math.Sincos(geom.Rad(w.TurnDeg))
				along := iso.Turn(geom.Vec{X: -cos, Y: sin})
				stack := pressed.StackAt(spot)
				name, want := "numbers", geom.Vec{X: 1}
				switch {
				case stack[0] == f && !iso.FaceUp():
				case stack[len(stack)-1] == f && iso.FaceUp(): // looked at from the other side, turned over from side to side
					name, want = "outside", geom.Vec{X: -1}
				default:
					continue // a message, under its flap
				}
				if along.Dist(want) > 1e-6 {
					t.Errorf("%g mm: %q runs along %v on the %s", side, w.Text, along, name)
				}
				found := false
				for _, q := range views[name].Written {
					if q.Text == w.Text && math.Abs(q.Place[0]-1) < 1e-3 && math.Abs(q.SizeMM-w.SizeMM) < 0.01 {
						x := q.Place[4]
						if name == "outside" {
							b := pressed.Box()
							x = b.MinX + b.MaxX - x
						}
						found = found || geom.Vec{X: x, Y: -q.Place[5]}.Dist(spot) < 0.02*side // layers are drawn fanned out
					}
				}
				if !found {
					t.Errorf("%g mm: %q is not in the picture of the %s at %v", side, w.Text, name, spot)
				}
				seen[name]++
			}
		}
		if seen["numbers"] != 8 || seen["outside"] != 4 {
			t.Errorf("%g mm: %v", side, seen)
		}
		outward(t, side, views["messages"])
	}
}

// outward looks that messages read from the middle outward when their flap is up: in the picture
// the crease is below each, and the rim above.
func outward(t *testing.T, side float64, p draw.Picture) {
	t.Helper()
	messages := 0
	for _, q := range p.Written {
		if q.Text == "" {
			continue
		}
		c := p.View
		middle := geom.Vec{X: c[0] + c[2]/2, Y: c[1] + c[3]/2}
		out := geom.Vec{X: q.Place[4], Y: q.Place[5]}.Sub(middle)
		up := geom.Vec{X: -q.Place[2], Y: -q.Place[3]}
		if out.Unit().Dot(up) < 0.5 {
			t.Errorf("%g mm: the message %q does not stand outward", side, q.Text)
		}
		messages++
	}
	if messages < 8 {
		t.Errorf("%g mm: %d lines of messages", side, messages)
	}
}

// Both openings show the numbers that the law says, and no others.
func TestOpeningsShowTheirNumbers(t *testing.T) {
	r, places := on(t, 150)
	w := motion.Written{}
	for i := range 8 {
		w[fmt.Sprintf("number %d", i+1)] = motion.Mark{Text: fmt.Sprint(i + 1)}
	}
	inks, _ := toys.Inked(places, w)
	for _, v := range tellers.Writing().Views(r, inks) {
		want := map[string]string{"a": "1 4 5 8", "b": "2 3 6 7", "numbers": "1 2 3 4 5 6 7 8", "outside": "", "messages": ""}[v.Name]
		has := map[string]bool{}
		for _, q := range v.Picture.Written {
			has[q.Text] = true
		}
		var got []string
		for i := range 8 {
			if has[fmt.Sprint(i+1)] {
				got = append(got, fmt.Sprint(i+1))
			}
		}
		if v.Name != "messages" && strings.Join(got, " ") != want {
			t.Errorf("%s shows %v, want %s", v.Title, got, want)
		}
	}
}

func TestFaultsAreNamed(t *testing.T) {
	_, places := on(t, 150)
	all, err := packs.Shipped()
	if err != nil {
		t.Fatal(err)
	}
	q := tellers.Writing()
	good := from(t, places, all[0], 1)
	if f := q.Check(places, good); len(f) > 0 {
		t.Errorf("a filled teller: %+v", f)
	}
	for _, c := range []struct {
		kind   string
		change func(motion.Written)
	}{
		{toys.FaultEmpty, func(w motion.Written) { delete(w, "message 3") }},
		{toys.FaultTwice, func(w motion.Written) { w["message 3"] = w["message 4"] }},
		{toys.FaultNumber, func(w motion.Written) { w["number 2"] = motion.Mark{Text: "two"} }},
		{"zero", func(w motion.Written) { w["number 2"] = motion.Mark{Text: "0"} }},
		{toys.FaultUnread, func(w motion.Written) { w["message 1"] = motion.Mark{Text: "mine"} }},
		{"parity", func(w motion.Written) {
			for i, c := range []string{"BLUE", "PINK", "YELLOW", "PURPLE"} {
				w[fmt.Sprintf("outer %d", i+1)] = motion.Mark{Text: c}
			}
		}},
		{"moves", func(w motion.Written) { w["outer 1"] = motion.Mark{Text: "1 2 3"} }},
	} {
		w := motion.Written{}
		for k, v := range good {
			w[k] = v
		}
		c.change(w)
		found := false
		for _, f := range q.Check(places, w) {
			found = found || f.Kind == c.kind && f.Says != ""
		}
		if !found {
			t.Errorf("%s is not named: %+v", c.kind, q.Check(places, w))
		}
	}
	w := motion.Written{"message 1": {Text: strings.Repeat("a", 100)}}
	if _, f := toys.Inked(places, w); len(f) != 1 || f[0].Kind != toys.FaultLong {
		t.Errorf("a text that is too long: %+v", f)
	}
}

// Plays that were written down, by people who made a slip.
func TestFollow(t *testing.T) {
	_, places := on(t, 150)
	w := tellers.Writing().Fill(places, motion.Written{}, []string{"RED", "BLUE", "GREEN", "YELLOW"}, nil, false)
	for _, c := range []struct {
		play string
		ok   bool
		says string
	}{
		{"RED 1 2", true, "That play can be"},     // 3: 1 4 5 8; 1 move: 2 3 6 7
		{"red, 4, 8", true, "That play can be"},   // 4 moves: the same four
		{"BLUE 2 → 6", true, "That play can be"},  // 4: 2 3 6 7; 2 moves: the same four
		{"RED 2 3", false, "move 2: 2 lies shut"}, // 2 does not show
		{"RED 1 4", false, "move 3: 4 lies shut"}, // after 1 move the others show
		{"YELLOW", false, "No number was opened"},
	} {
		got, err := tellers.Writing().Follow(w, c.play)
		if err != nil || got.OK != c.ok || !strings.Contains(got.Says, c.says) || !c.ok && got.Fix == "" {
			t.Errorf("%s: %+v, %v", c.play, got, err)
		}
	}
	w["outer 1"] = motion.Mark{Text: "SEA-PINK BAY"} // ten letters, of three parts
	if got, err := tellers.Writing().Follow(w, "sea pink bay: 2, 6"); err != nil || !got.OK {
		t.Errorf("a word of three parts: %+v, %v", got, err)
	}
	if got, err := tellers.Writing().Follow(w, "Sea-pink bay 1 4"); err != nil || got.OK {
		t.Errorf("a word of three parts with a slip: %+v, %v", got, err)
	}
	for _, bad := range []string{"", "PURPLE 1", "BLUE 9", "SEA 1"} {
		if _, err := tellers.Writing().Follow(w, bad); err == nil {
			t.Errorf("%q is followed", bad)
		}
	}
	if n := len(tellers.Letters("Żółć-ab 3")); n != 6 {
		t.Errorf("%d letters", n)
	}
}

// The sheet that is proposed for a finger is the law's, and a soft finger does with less.
func TestSheetForAFinger(t *testing.T) {
	way := tellers.Way()
	r, _ := on(t, 150)
	for _, girth := range []float64{40, 47, 55, 62.8, 80} {
		b := way.On(r.Pattern, r.Sheet).Under(motion.Conditions{"finger": girth, "rounds": 2}, motion.Calibration{})
		out, err := b.Predict(t.Context(), nil, nil)
		if err != nil {
			t.Fatal(err)
		}
		across := girth / math.Pi
		for _, r := range out.Readings {
			switch r.ID {
			case "side":
				if math.Abs(r.Value-(46.2+5.164*across)) > 0.1 || r.Lo >= r.Value || r.Lo < 0.85*r.Value || r.Hi != r.Value {
					t.Errorf("a girth of %g mm wants a sheet of %.1f mm, from %.1f to %.1f", girth, r.Value, r.Lo, r.Hi)
				}
			case "inside":
				if want := math.Max(0, 0.2165*150-1.118*across); math.Abs(r.Value-want) > 0.02 || r.Hi <= r.Value {
					t.Errorf("a girth of %g mm goes in by %.2f mm, not %.2f", girth, r.Value, want)
				}
			}
		}
	}
}
