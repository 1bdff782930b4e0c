package web_test

import (
	"encoding/json"
	"fmt"
	"math"
	"strings"
	"testing"

	"tussock/internal/sheet"
	"tussock/internal/shelf"
	"tussock/internal/web/builds"
	"tussock/internal/web/folding"
	"tussock/internal/web/papers"
)

// refused sends what must be refused with a sentence that holds some words.
func refused(c client, method, path, body string, words ...string) {
	c.t.Helper()
	status, b := c.send(method, path, body)
	if status < 400 || status >= 500 {
		c.t.Errorf("%s %s %s is answered %d", method, path, body, status)
	}
	for _, w := range words {
		if !strings.Contains(string(b), w) {
			c.t.Errorf("%s %s: %s does not say %q", path, body, b, w)
		}
	}
}

// A square toy from an office sheet: it does not do and says why; the square that is
// suggested does; the crease that squaring left is not asked for again; and the
// leftover lies in the drawer.
// Long because it is one way from a sheet to a toy, each answer asked with the one before.
func TestFromSheetToSquareToy(t *testing.T) {
	c := serve(t, false)
	fit := ask[papers.FitView](c, "POST", "/patterns/fortune/fit", `{"sheet":`+a4Sheet+`}`)
	if fit.Does || fit.Why == "" || len(fit.Wants) != 1 || fit.Wants[0].Want.Kind != "square" {
		t.Fatalf("%+v", fit)
	}
	want, err := json.Marshal(fit.Wants[0].Want)
	if err != nil {
		t.Fatal(err)
	}
	v := ask[papers.WaysView](c, "POST", "/sheet-ways", `{"sheet":{"width":210,"height":297,"unit":"mm"},"want":`+string(want)+`}`)
	if len(v.Ways) != 4 || v.Why != "" {
		t.Fatalf("%d ways, %q", len(v.Ways), v.Why)
	}
	way := v.Ways[0]
	for _, s := range way.Steps {
		if s.Words == "" || len(s.Before.Faces) == 0 {
			t.Errorf("a step without words or picture: %+v", s)
		}
	}
	cautions := 0
	for _, s := range way.Steps {
		cautions += len(s.Cautions)
	}
	if cautions != 2 { // scissors and scraps, once each
		t.Errorf("%d cautions", cautions)
	}
	made, err := json.Marshal(way.Made)
	if err != nil {
		t.Fatal(err)
	}
	piece := `{"width":210,"height":210,"unit":"mm","gsm":80,"thickness_mm":0.1,"way":"` + way.Name + `","error_mm":0.42,"made":` + string(made) + `}`
	b := ask[builds.BuildView](c, "POST", "/builds", `{"pattern":"fortune","sheet":`+piece+`}`)
	if len(b.Setup.Sheet.Made) == 0 {
		t.Fatal("the creases are lost")
	}
	r := ask[folding.ReplayView](c, "POST", "/patterns/fortune/replay", `{"sheet":`+piece+`}`)
	if !r.OK || !r.Steps[0].Made || r.Steps[1].Made {
		t.Errorf("made: %v, %v", r.Steps[0].Made, r.Steps[1].Made)
	}
	plain := ask[folding.ReplayView](c, "POST", "/patterns/fortune/replay", `{"sheet":{"width":210,"height":210,"unit":"mm","gsm":80,"thickness_mm":0.1}}`)
	if plain.Steps[0].Made || len(plain.Start.Faces[0].Creases) != 0 || len(r.Start.Faces[0].Creases) == 0 {
		t.Error("a plain square has creases")
	}
	if g := r.Steps[2].Gap; g == nil || g.Verdict != "leave" || g.MM != 0.8 || len(g.Picture.Faces) == 0 {
		t.Errorf("gap %+v", g)
	}
	left := ask[[]papers.PaperView](c, "POST", "/leftovers", `{"of":"leaflet","sheet":`+a4Sheet+`,"pieces":[{"width_mm":87,"height_mm":210,"count":1}]}`)
	again := ask[[]papers.PaperView](c, "POST", "/leftovers", `{"of":"leaflet","sheet":`+a4Sheet+`,"pieces":[{"width_mm":87,"height_mm":210,"count":2}]}`)
	if len(left) != 1 || len(again) != 1 || *again[0].Left != 3 || again[0].Sheet.WidthMM != 87 {
		t.Errorf("%+v then %+v", left, again)
	}
	uses := ask[[]papers.UseView](c, "POST", "/sheet-uses", `{"size":{"width":87,"height":210,"unit":"mm"},"gsm":80,"thickness_mm":0.1}`)
	found := map[string]papers.UseView{}
	for _, u := range uses {
		found[u.Pattern] = u
		if u.WidthMM > 210+1e-9 || u.HeightMM > 210+1e-9 || math.Min(u.WidthMM, u.HeightMM) > 87+1e-9 || u.LengthMM <= 0 || u.Picture == nil {
			t.Errorf("%+v", u)
		}
	}
	if u := found["fortune"]; u.Count != 2 || math.Abs(u.WidthMM-87) > 1e-9 {
		t.Errorf("%+v", u)
	}
	if u := found["curlew"]; math.Abs(u.HeightMM-174) > 1e-6 { // twice as high as wide at most
		t.Errorf("%+v", u)
	}

	refused(c, "POST", "/sheet-ways", `{"sheet":{"width":210,"height":297,"unit":"mm"},"want":{"kind":"square","width_mm":-5}}`, "width_mm", "20 mm or more")
	refused(c, "POST", "/sheet-ways", `{"sheet":{"width":210,"height":297,"unit":"mm"},"want":{"kind":"ngon","n":12}}`, "n is 12", "3 to 8 corners")
	refused(c, "POST", "/sheet-ways", `{"sheet":{"width":0,"height":297,"unit":"mm"},"want":{"kind":"half"}}`, "width")
	refused(c, "POST", "/builds", `{"pattern":"fortune","sheet":`+strings.Replace(piece, `"made":`, `"made":[[0,0,500,0]],"x":`, 1)+`}`, "unexpected property")
	refused(c, "POST", "/builds", `{"pattern":"fortune","sheet":`+strings.Replace(piece, string(made), `[[0,0,500,0]]`, 1)+`}`, "made[0]", "on the sheet")
	refused(c, "POST", "/leftovers", `{"of":"x","sheet":`+a4Sheet+`,"pieces":[{"width_mm":3,"height_mm":210,"count":1}]}`, "too small to keep")
	refused(c, "POST", "/sheet-uses", `{"size":{"width":87,"height":210,"unit":"mm"},"gsm":0,"thickness_mm":0.1}`, "gsm is 0")
	if v := ask[papers.WaysView](c, "POST", "/sheet-ways", `{"sheet":{"width":210,"height":297,"unit":"mm"},"want":{"kind":"size","width_mm":215.9,"height_mm":279.4}}`); len(v.Ways) != 0 || !strings.Contains(v.Why, "215.9 mm wide") || v.Instead == nil || math.Abs(v.Instead.HeightMM-271.76) > 0.01 {
		t.Errorf("letter from A4: %+v", v)
	}
	if v := ask[papers.WaysView](c, "POST", "/sheet-ways", `{"sheet":{"width":210,"height":297,"unit":"mm"},"want":{"kind":"ngon","n":7}}`); len(v.Ways) != 0 || v.Why == "" || v.LargestMM < 80 {
		t.Errorf("seven corners: %q, %v", v.Why, v.LargestMM)
	}
}

// A glider made for A4 on letter: it does; what is fixed scales or stays; a tiny sheet
// is told to be small, with the least that fingers fold.
func TestFitOfAnotherSheet(t *testing.T) {
	c := serve(t, false)
	on := func(w, h string) string {
		return `{"sheet":{"width":` + w + `,"height":` + h + `,"unit":"mm","gsm":80,"thickness_mm":0.1},"knobs":{"nose":12}}`
	}
	v := ask[papers.FitView](c, "POST", "/patterns/curlew/fit", on("215.9", "279.4"))
	if !v.Does || v.Own.Possible || math.Abs(v.Own.WidthMM-197.56) > 0.01 || len(v.Fixed) != 1 || v.Fixed[0].NowMM != 12 || math.Abs(v.Fixed[0].ScaledMM-11.3) > 0.05 {
		t.Errorf("%+v", v)
	}
	if v.Small || v.LeastWMM <= 0 || v.LeastWMM > 100 {
		t.Errorf("least %v", v.LeastWMM)
	}
	tiny := ask[papers.FitView](c, "POST", "/patterns/curlew/fit", `{"sheet":{"width":25,"height":35,"unit":"mm","gsm":80,"thickness_mm":0.1}}`)
	if !tiny.Small || tiny.SmallAt == 0 || tiny.LeastWMM <= 25 {
		t.Errorf("a tiny sheet: %+v", tiny)
	}
	// The least sheet is not small, one a little smaller is.
	lying := ask[papers.FitView](c, "POST", "/patterns/curlew/fit", on("297", "210"))
	if lying.Does || lying.Wants[0].Want.Kind != "size" || lying.Wants[0].Want.WidthMM != 210 {
		t.Errorf("lying across: %+v", lying.Wants)
	}
	// What is suggested does.
	for _, w := range ask[papers.FitView](c, "POST", "/patterns/shelduck/fit", on("150", "150")[:len(on("150", "150"))-len(`,"knobs":{"nose":12}}`)]+"}").Wants {
		want, err := json.Marshal(w.Want)
		if err != nil {
			t.Fatal(err)
		}
		ways := ask[papers.WaysView](c, "POST", "/sheet-ways", `{"sheet":{"width":150,"height":150,"unit":"mm"},"want":`+string(want)+`}`)
		p := ways.Ways[0]
		b, err := json.Marshal(map[string]any{"sheet": map[string]any{"width": p.WidthMM, "height": p.HeightMM, "unit": "mm", "gsm": 80, "thickness_mm": 0.1}})
		if err != nil {
			t.Fatal(err)
		}
		if v := ask[papers.FitView](c, "POST", "/patterns/shelduck/fit", string(b)); !v.Does {
			t.Errorf("%s gives %v × %v, which does not do: %s", w.Words, p.WidthMM, p.HeightMM, v.Why)
		}
	}
}

// The drawer: what is measured, what is refused, and how a paper changes.
func TestDrawer(t *testing.T) {
	c := serve(t, true)
	m := ask[papers.PaperMeasures](c, "POST", "/paper-measures", `{"size":{"width":210,"height":297,"unit":"mm"},"grams":49.9,"sheets":10,"pile_mm":10.4,"pile_sheets":100}`)
	if math.Abs(m.GSM-80) > 0.1 || math.Abs(m.ThicknessMM-0.104) > 1e-9 || m.Odd || m.GSMBy <= 0 || m.ThicknessBy <= 0 {
		t.Errorf("%+v", m)
	}
	if m := ask[papers.PaperMeasures](c, "POST", "/paper-measures", `{"size":{"width":210,"height":297,"unit":"mm"},"grams":49.9,"sheets":10,"pile_mm":40,"pile_sheets":100}`); !m.Odd {
		t.Error("a bulky paper passes")
	}
	refused(c, "POST", "/paper-measures", `{"size":{"width":210,"height":297,"unit":"mm"},"grams":-2,"sheets":10}`, "grams is -2 g")
	refused(c, "POST", "/paper-measures", `{"size":{"width":210,"height":297,"unit":"mm"},"pile_mm":10,"pile_sheets":0}`, "pile_sheets")
	list := ask[[]papers.PaperView](c, "GET", "/papers", "")
	if len(list) != 6 {
		t.Fatalf("%d list", len(list))
	}
	for _, p := range list {
		if len(p.Suits) != 5 || p.Left == nil {
			t.Errorf("%s: %+v", p.Name, p)
		}
		for _, s := range p.Suits {
			if s.Why == "" {
				t.Errorf("%s, %s: no reason", p.Name, s.Moves)
			}
		}
	}
	heavy := ask[papers.PaperView](c, "POST", "/papers", `{"name":"Board","sheet":{"width":300,"height":300,"unit":"mm","gsm":300,"thickness_mm":0.4},"stiffness":"crisp","grain":"width","left":2}`)
	for _, s := range heavy.Suits {
		if s.Verdict != string(sheet.Poor) {
			t.Errorf("board is %s to %s: %s", s.Verdict, s.Moves, s.Why)
		}
	}
	path := "/papers/" + jsonNumber(heavy.ID)
	if v := ask[papers.PaperView](c, "PUT", path, `{"name":"Card","sheet":{"width":300,"height":300,"unit":"mm","gsm":90,"thickness_mm":0.12},"left":1}`); v.Name != "Card" || *v.Left != 1 || v.Stiffness != "ordinary" || v.Grain != "" {
		t.Errorf("%+v", v)
	}
	refused(c, "PUT", path, `{"name":"Card","sheet":`+a4Sheet+`,"left":-1}`, "left is -1", "0 to 100000 sheets")
	refused(c, "PUT", path, `{"name":"Card","sheet":`+a4Sheet+`,"grain":"sideways"}`, "grain", "width, height")
	refused(c, "PUT", path, `{"name":"Card","sheet":`+a4Sheet+`,"stiffness":"hard"}`, "stiffness", "soft, ordinary or crisp")
	refused(c, "PUT", "/papers/9999", `{"name":"Card","sheet":`+a4Sheet+`}`, "does not exist")
	// Cutting two sheets of a counted paper takes two away.
	first := list[0]
	ask[[]papers.PaperView](c, "POST", "/leftovers", `{"paper_id":`+jsonNumber(first.ID)+`,"used":2,"of":"`+first.Name+`","sheet":`+a4Sheet+`,"pieces":[]}`)
	for _, p := range ask[[]papers.PaperView](c, "GET", "/papers", "") {
		if p.ID == first.ID && *p.Left != *first.Left-2 {
			t.Errorf("%d of %d are left", *p.Left, *first.Left)
		}
	}
}

func jsonNumber(v int64) string {
	b, err := json.Marshal(v)
	if err != nil {
		panic(err)
	}
	return string(b)
}

// Measured places of a step, and the recipes that replace the ruler.
func TestPlacements(t *testing.T) {
	c := serve(t, false)
	body := `{"sheet":` + a4Sheet + `,"knobs":{"nose":24}}`
	v := ask[[]folding.PlacementView](c, "POST", "/patterns/curlew/steps/2/placements", body)
	if len(v) != 1 || v[0].Knob != "nose" || math.Abs(v[0].MM-81) > 1e-9 || v[0].Edge != "the upper edge" || v[0].From != "the upper left corner" {
		t.Fatalf("%+v", v)
	}
	least := math.Inf(1)
	for _, r := range v[0].Recipes {
		// The knob that a recipe gives is as far off as its mark.
		if off := math.Abs(r.ValueMM - 24); math.Abs(off-r.ErrorMM) > 1e-6 || off > least {
			t.Errorf("%d creases: %v mm for an error of %v", r.Creases, r.ValueMM, r.ErrorMM)
		}
		least = math.Abs(r.ValueMM - 24)
		if r.Creases != len(r.Steps) {
			t.Errorf("%d creases in %d steps", r.Creases, len(r.Steps))
		}
	}
	if least > 1 {
		t.Errorf("the best recipe is %v mm off", least)
	}
	if v := ask[[]folding.PlacementView](c, "POST", "/patterns/curlew/steps/1/placements", body); len(v) != 0 {
		t.Errorf("step 1 measures nothing: %+v", v)
	}
	refused(c, "POST", "/patterns/curlew/steps/99/placements", body, "has 10 steps")
	refused(c, "POST", "/patterns/curlew/replay", `{"sheet":`+a4Sheet+`,"recipes":{"wing":2}}`, "recipes.wing", "a length of the pattern")
	refused(c, "POST", "/patterns/curlew/replay", `{"sheet":`+a4Sheet+`,"recipes":{"nose":9}}`, "1 to 4 creases")
}

// A size near a known one is asked about; a sheet that is a little off is judged for
// the toy.
func TestNearAndMeasuredSheets(t *testing.T) {
	c := serve(t, false)
	if v := ask[[]papers.MeantView](c, "POST", "/near-sizes", `{"width":30,"height":21,"unit":"cm"}`); len(v) != 1 || v[0].Name != "A4" || v[0].WidthMM != 297 {
		t.Errorf("%+v", v)
	}
	if v := ask[[]papers.MeantView](c, "POST", "/near-sizes", `{"width":210,"height":297,"unit":"mm"}`); len(v) != 0 {
		t.Errorf("%+v", v)
	}
	v := ask[papers.SquarenessView](c, "POST", "/measured-sheets", `{"width_mm":151,"height_mm":150,"pattern":"fortune"}`)
	if v.Toy == nil || v.Toy.Why != "" || len(v.Toy.Misfits) != 4 || !v.Toy.Trim || math.Abs(v.Toy.TrimWMM-150) > 1e-6 || math.Abs(v.Toy.OffWMM-1) > 1e-6 || v.Toy.Picture == nil {
		t.Fatalf("%+v", v.Toy)
	}
	kinds := map[string]int{}
	for _, m := range v.Toy.Misfits {
		kinds[m.Kind]++
		if math.Abs(m.MM-1) > 0.15 {
			t.Errorf("%+v", m)
		}
	}
	if kinds["gap"] != 2 || kinds["overlap"] != 2 {
		t.Errorf("%v", kinds)
	}
	if v := ask[papers.SquarenessView](c, "POST", "/measured-sheets", `{"width_mm":150,"height_mm":150,"pattern":"fortune"}`); v.Toy == nil || len(v.Toy.Misfits) != 0 || v.Toy.Trim {
		t.Errorf("an exact square: %+v", v.Toy)
	}
	if v := ask[papers.SquarenessView](c, "POST", "/measured-sheets", `{"width_mm":210,"height_mm":297,"rising_mm":364.8,"falling_mm":362.7,"pattern":"curlew"}`); v.Toy == nil || len(v.Toy.Misfits) == 0 || !v.Toy.Trim {
		t.Errorf("a skewed leaflet: %+v", v.Toy)
	}
	refused(c, "POST", "/measured-sheets", `{"width_mm":150,"height_mm":150,"pattern":"heron"}`, "no pattern")
}

// Prints come as PDF and SVG; what cannot be printed is refused.
func TestPrints(t *testing.T) {
	c := serve(t, false)
	b := newBuild(c, "curlew")
	for path, begins := range map[string]string{
		"/builds/" + jsonNumber(b.ID) + "/print?face=both&page=letter&units=in": "%PDF-",
		"/builds/" + jsonNumber(b.ID) + "/print?format=svg&face=back":           "<svg ",
		"/outlines?width=210&height=297&n=5":                                    "%PDF-",
		"/outlines?width=152.4&height=152.4&format=svg":                         "<svg ",
	} {
		if status, body := c.send("GET", path, ""); status != 200 || !strings.HasPrefix(string(body), begins) {
			t.Errorf("%s: %d %.40s", path, status, body)
		}
	}
	refused(c, "GET", "/outlines?width=210&height=297&n=2", "", "3 to 8 corners")
	refused(c, "GET", "/outlines?width=-1&height=297", "", "width_mm is -1")
	refused(c, "GET", "/outlines?width=210&height=297&page=a3", "", "page")
	refused(c, "GET", "/builds/999/print", "", "does not exist")
}

// Pieces of other shapes are planned by the rectangles that hold them.
func TestCutPlanOfShapes(t *testing.T) {
	c := serve(t, false)
	order := func(shape string) string {
		return `{"pieces":[{"size":{"width":60,"height":60,"unit":"mm"},"count":3,` + shape + `}],"papers":[{"size":{"width":210,"height":297,"unit":"mm"},"count":1}]}`
	}
	plan := ask[papers.CutPlanView](c, "POST", "/cut-plans", order(`"shape":"triangle"`))
	shapes := 0
	for _, p := range plan.Sheets[0].Parts {
		shapes += len(p.Outlines)
	}
	if shapes != 4 || math.Abs(plan.Yield-3*1800/(210*297.0)) > 1e-9 {
		t.Errorf("%d triangles, yield %v", shapes, plan.Yield)
	}
	if hex := ask[papers.CutPlanView](c, "POST", "/cut-plans", order(`"shape":"ngon","n":6`)); len(hex.Sheets[0].Parts[0].Outlines) != 1 || len(hex.Sheets[0].Parts[0].Outlines[0]) != 12 {
		t.Errorf("%+v", hex.Sheets[0].Parts[0])
	}
	refused(c, "POST", "/cut-plans", order(`"shape":"ngon","n":2`), "pieces[0].n", "3 to 8 corners")
	refused(c, "POST", "/cut-plans", order(`"shape":"star"`), "shape")
}

// Steps print in three styles; the picture of any step is small.
func TestStepPrints(t *testing.T) {
	c := serve(t, false)
	b := newBuild(c, "shelduck")
	at := "/builds/" + jsonNumber(b.ID)
	for _, style := range []string{"usual", "large", "summary"} {
		if status, body := c.send("GET", at+"/step-sheets?page=letter&style="+style, ""); status != 200 || !strings.HasPrefix(string(body), "%PDF-") {
			t.Errorf("%s: %d", style, status)
		}
	}
	for _, n := range []string{"1", "7", "12"} {
		if status, body := c.send("GET", at+"/steps/"+n+"/picture", ""); status != 200 || !strings.Contains(string(body), "<svg") || len(body) > 60_000 {
			t.Errorf("step %s: %d, %d bytes", n, status, len(body))
		}
	}
	refused(c, "GET", at+"/steps/13/picture", "", "12 steps")
	refused(c, "GET", at+"/step-sheets?style=tiny", "", "style")
}

// A name in another script is told before a PDF is made, and whole in the SVG; one in Latin,
// Greek or Cyrillic letters is whole in both.
func TestPrintsTellMissingLetters(t *testing.T) {
	c := serve(t, false)
	for name, lacks := range map[string]string{"李 at the pier": "李", "Łódź Щука Ελένη": "", "نورس": "نورس"} {
		b := newBuild(c, "curlew")
		at := "/builds/" + jsonNumber(b.ID)
		if got := ask[builds.BuildView](c, "PATCH", at, `{"name":"`+name+`"}`); got.Unprinted != lacks || got.Name != name {
			t.Errorf("%q lacks %q", name, got.Unprinted)
		}
		for _, path := range []string{"/step-sheets?format=svg&style=summary", "/print?format=svg&face=front"} {
			if status, body := c.send("GET", at+path, ""); status != 200 || !strings.Contains(string(body), name) || !strings.Contains(string(body), "<path") {
				t.Errorf("%s of %q: %d", path, name, status)
			}
		}
	}
}

// A sheet that does not do says what is required, and what goes wrong first where it is
// folded all the same; no sheet is offered that is 0 times as high as wide.
func TestWhyASheetDoesNotDo(t *testing.T) {
	c := serve(t, false)
	square := `{"sheet":{"width":150,"height":150,"unit":"mm","gsm":80,"thickness_mm":0.1}}`
	f := ask[papers.FitView](c, "POST", "/patterns/turnstone/fit", square)
	if f.Does || f.Step != 9 || !strings.Contains(f.Why, "1.2 and 1.5") || f.StepWhy == "" || strings.Contains(f.StepWhy, "times as high") {
		t.Errorf("%+v", f)
	}
	if f := ask[papers.FitView](c, "POST", "/patterns/curlew/fit", `{"sheet":`+a4Sheet+`}`); !f.Does || f.Step != 0 || f.StepWhy != "" {
		t.Errorf("%+v", f)
	}
	all, err := shelf.All()
	if err != nil {
		t.Fatal(err)
	}
	for _, p := range all {
		for _, size := range [][2]float64{{297, 210}, {75, 150}} {
			f := ask[papers.FitView](c, "POST", "/patterns/"+p.ID+"/fit", fmt.Sprintf(`{"sheet":{"width":%v,"height":%v,"unit":"mm","gsm":80,"thickness_mm":0.1}}`, size[0], size[1]))
			for _, w := range f.Wants {
				least := math.Min(0.2, 0.5*p.HeightMM/p.WidthMM) // strips are wanted as strips
				if w.Want.Kind == "ratio" && (w.Want.Ratio < least || w.Want.Ratio > 5) || strings.Contains(w.Words, " 0 times") {
					t.Errorf("%s on %v: %+v", p.ID, size, w)
				}
			}
			if !f.Does && f.Why == "" {
				t.Errorf("%s on %v does not do and says nothing", p.ID, size)
			}
		}
	}
}
