package web_test

import (
	"math"
	"strings"
	"testing"

	"tussock/internal/web/papers"
)

func TestDivisions(t *testing.T) {
	c := serve(t, false)
	a4 := `"sheet":{"width":210,"height":297,"unit":"mm"}`
	v := ask[papers.DivisionView](c, "POST", "/divisions", `{`+a4+`,"what":"fraction","part":1,"of":3}`)
	last := v.Recipes[len(v.Recipes)-1]
	if !last.Exact || math.Abs(last.Value-1.0/3) > 1e-9 || v.Correcting == nil || v.Correcting.Folds != "01" || math.Abs(v.Correcting.AfterMM[0]-1.25) > 1e-9 {
		t.Errorf("a third: %+v", v)
	}
	for _, s := range last.Steps {
		if s.Words == "" || len(s.Over.Strokes) == 0 {
			t.Errorf("a step without words or picture: %+v", s)
		}
	}
	if v := ask[papers.DivisionView](c, "POST", "/divisions", `{"sheet":{"width":6,"height":6,"unit":"in"},"what":"angle","part":45}`); len(v.Recipes) != 1 || !v.Recipes[0].Exact || v.WidthMM != 152.4 || v.Correcting != nil {
		t.Errorf("45 degrees: %+v", v)
	}
	for body, want := range map[string]string{
		`{` + a4 + `,"what":"fraction","part":3,"of":3}`:                                      "between 0 and 1",
		`{` + a4 + `,"what":"fraction","part":1}`:                                             "fraction",
		`{` + a4 + `,"what":"angle","part":120}`:                                              "0.5 to 89.5",
		`{"sheet":{"width":2,"height":297,"unit":"mm"},"what":"angle","part":45}`:             "width",
		`{"sheet":{"width":210,"height":297,"unit":"feet"},"what":"angle","part":45}`:         "unit",
		`{` + a4 + `,"what":"guess","part":45}`:                                               "what",
		`{` + a4 + `,"what":"angle","part":45,"colour":"red"}`:                                "colour",
		`{"what":"angle","part":45}`:                                                          "sheet",
		`{"sheet":{"width":-210,"height":297,"unit":"mm"},"what":"fraction","part":1,"of":3}`: "width",
	} {
		if status, b := c.send("POST", "/divisions", body); status < 400 || status >= 500 || !strings.Contains(string(b), want) {
			t.Errorf("%s: %d %s, want %q", body, status, b, want)
		}
	}
}

func TestSFolds(t *testing.T) {
	c := serve(t, false)
	v := ask[papers.SFoldView](c, "POST", "/s-folds", `{"first_mm":101,"middle_mm":97,"last_mm":99}`)
	if v.Done || v.FirstMM != -2 || v.SecondMM != 0 || v.ThirdMM != 99 {
		t.Errorf("101, 97, 99: %+v", v)
	}
	if v := ask[papers.SFoldView](c, "POST", "/s-folds", `{"first_mm":99.2,"middle_mm":99,"last_mm":98.9}`); !v.Done {
		t.Errorf("as good as it gets: %+v", v)
	}
	for body, want := range map[string]string{
		`{"first_mm":0,"middle_mm":97,"last_mm":99}`:    "first_mm",
		`{"first_mm":101,"middle_mm":-1,"last_mm":99}`:  "middle_mm",
		`{"first_mm":101,"middle_mm":97,"last_mm":1e9}`: "last_mm",
		`{"first_mm":101,"middle_mm":97}`:               "last_mm",
	} {
		if status, b := c.send("POST", "/s-folds", body); status < 400 || status >= 500 || !strings.Contains(string(b), want) {
			t.Errorf("%s: %d %s, want %q", body, status, b, want)
		}
	}
}

func TestMeasuredSheets(t *testing.T) {
	c := serve(t, false)
	v := ask[papers.SquarenessView](c, "POST", "/measured-sheets", `{"width_mm":150,"height_mm":150,"rising_mm":213.06,"falling_mm":211.21}`)
	if math.Abs(v.OffDeg-0.5) > 0.003 || v.Square || v.Misread || math.Abs(v.TrimWideMM-148.69) > 0.01 || v.OffByDeg <= 0 {
		t.Errorf("off by half a degree: %+v", v)
	}
	if v := ask[papers.SquarenessView](c, "POST", "/measured-sheets", `{"width_mm":150,"height_mm":150,"falling_mm":212.1}`); !v.Square {
		t.Errorf("square by one diagonal: %+v", v)
	}
	if v := ask[papers.SquarenessView](c, "POST", "/measured-sheets", `{"width_mm":150,"height_mm":150,"rising_mm":216,"falling_mm":216}`); !v.Misread {
		t.Errorf("diagonals of another sheet: %+v", v)
	}
	for body, want := range map[string]string{
		`{"width_mm":150,"height_mm":150}`:                   "has 212.1 mm",
		`{"width_mm":150,"height_mm":150,"rising_mm":900}`:   "no sheet of this size",
		`{"width_mm":150,"height_mm":150,"falling_mm":900}`:  "falling_mm",
		`{"width_mm":-150,"height_mm":150,"rising_mm":212}`:  "width",
		`{"width_mm":150,"height_mm":9999,"falling_mm":212}`: "height",
	} {
		if status, b := c.send("POST", "/measured-sheets", body); status < 400 || status >= 500 || !strings.Contains(string(b), want) {
			t.Errorf("%s: %d %s, want %q", body, status, b, want)
		}
	}
}

func TestCutPlans(t *testing.T) {
	c := serve(t, false)
	v := ask[papers.CutPlanView](c, "POST", "/cut-plans", `{"pieces":[{"name":"square","size":{"width":105,"height":99,"unit":"mm"},"count":6}],"papers":[{"name":"leaflet","size":{"width":210,"height":297,"unit":"mm"},"count":3}]}`)
	if len(v.Sheets) != 1 || math.Abs(v.Yield-1) > 1e-9 || !v.Exact || len(v.Missing) != 0 || len(v.Sheets[0].Parts) != 6 || len(v.Sheets[0].Cuts) != 5 {
		t.Errorf("six from one sheet: %+v", v)
	}
	v = ask[papers.CutPlanView](c, "POST", "/cut-plans", `{"pieces":[{"name":"letter sheet","size":{"width":8.5,"height":11,"unit":"in"},"count":2}],"papers":[{"size":{"width":210,"height":297,"unit":"mm"},"count":3}]}`)
	if len(v.Sheets) != 0 || len(v.Missing) != 1 || v.Missing[0] != "2 of letter sheet" {
		t.Errorf("letter from A4: %+v", v)
	}
	for body, want := range map[string]string{
		`{"pieces":[],"papers":[]}`: "pieces",
		`{"pieces":[{"size":{"width":1,"height":99,"unit":"mm"},"count":6}],"papers":[]}`:                                                                        "width",
		`{"pieces":[{"size":{"width":50,"height":99,"unit":"mm"},"count":0}],"papers":[{"size":{"width":210,"height":297,"unit":"mm"},"count":3}]}`:              "count",
		`{"kerf_mm":99,"pieces":[{"size":{"width":50,"height":99,"unit":"mm"},"count":1}],"papers":[{"size":{"width":210,"height":297,"unit":"mm"},"count":3}]}`: "kerf",
		`{"pieces":[{"size":{"width":50,"height":99,"unit":"mm"},"count":1,"grain":"up"}],"papers":[{"size":{"width":210,"height":297,"unit":"mm"},"count":3}]}`: "grain",
	} {
		if status, b := c.send("POST", "/cut-plans", body); status < 400 || status >= 500 || !strings.Contains(string(b), want) {
			t.Errorf("%s: %d %s, want %q", body, status, b, want)
		}
	}
}

func TestSheetFacts(t *testing.T) {
	c := serve(t, false)
	v := ask[papers.FactsView](c, "POST", "/sheet-facts", `{"width":210,"height":297,"unit":"mm"}`)
	if v.Size != "A4" || len(v.Squares) != 4 || v.Squares[1].SideMM != 87 || v.Equal[0].SideMM != 148.5 {
		t.Errorf("%+v", v)
	}
	for _, o := range v.Others {
		if o.Name == "Letter" && (o.Possible || math.Abs(o.HeightMM-271.76) > 0.01 || math.Abs(o.InchMM/2-12.35) > 0.01) {
			t.Errorf("letter from A4: %+v", o)
		}
	}
	if status, b := c.send("POST", "/sheet-facts", `{"width":0,"height":297,"unit":"mm"}`); status != 422 || !strings.Contains(string(b), "width") {
		t.Errorf("%d %s", status, b)
	}
}
