package answer

import (
	"fmt"
	"math"

	"tussock/internal/bench"
	"tussock/internal/given"
	"tussock/internal/motion"
	"tussock/internal/say"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/sheet/divide"
	"tussock/internal/shelf"
)

// SheetInput is a sheet as a person gives it.
type SheetInput struct {
	Width       float64 `json:"width" doc:"in the unit given"`
	Height      float64 `json:"height" doc:"in the unit given"`
	Unit        string  `json:"unit" enum:"mm,cm,in" doc:"of width and height"`
	GSM         float64 `json:"gsm" doc:"paper weight, g/m²"`
	ThicknessMM float64 `json:"thickness_mm" doc:"of one layer, mm"`
	Paper       string  `json:"paper,omitempty" maxLength:"80" doc:"what the paper is called"`
	Front       string  `json:"front,omitempty" doc:"face colour, #rrggbb"`
	Back        string  `json:"back,omitempty" doc:"face colour, #rrggbb"`
	SheetOrigin
}

// SheetOrigin is what the sheet of a build brings along from before the first fold.
type SheetOrigin struct {
	Turned  bool             `json:"turned,omitempty" doc:"the paper lies with its own front down; front is the colour of its back"`
	Way     string           `json:"way,omitempty" maxLength:"80" doc:"how it was got from another sheet"`
	Made    [][4]float64     `json:"made,omitempty" maxItems:"64" doc:"creases that this left in it, x1 y1 x2 y2, mm"`
	ErrorMM float64          `json:"error_mm,omitempty" doc:"how exact its edges are, one standard deviation"`
	From    *bench.SheetFrom `json:"from,omitempty" doc:"the sheet it was got from, and what was wanted of it"`
}

// Spec checks the input and converts it to mm. Sides are refused in the unit
// that they were given in.
func (in SheetInput) Spec() (bench.SheetSpec, error) {
	out := bench.SheetSpec{GSM: in.GSM, ThicknessMM: in.ThicknessMM, Paper: in.Paper, Front: in.Front, Back: in.Back,
		Turned: in.Turned, Way: in.Way, Made: in.Made, ErrorMM: in.ErrorMM, From: in.From}
	for _, side := range []struct {
		field string
		v     float64
		mm    *float64
	}{{"width", in.Width, &out.WidthMM}, {"height", in.Height, &out.HeightMM}} {
		mm, err := sheet.ToMM(side.v, in.Unit)
		if err != nil {
			return out, err
		}
		if !sheet.SideRange.Holds(mm) {
			one, err := sheet.ToMM(1, in.Unit)
			if err != nil {
				return out, err
			}
			want := sheet.Range{Min: sheet.SideRange.Min / one, Max: sheet.SideRange.Max / one, Unit: in.Unit}
			return out, &given.Error{Field: side.field, Value: sheet.Number(side.v) + " " + in.Unit, Want: want.String()}
		}
		*side.mm = mm
	}
	if out.Front == "" {
		out.Front = bench.DefaultFront
	}
	if out.Back == "" {
		out.Back = bench.DefaultBack
	}
	return out, CheckSheet(out)
}

// CheckSheet refuses a sheet that cannot be.
func CheckSheet(s bench.SheetSpec) error {
	if _, err := sheet.New(s.WidthMM, s.HeightMM, s.GSM, s.ThicknessMM); err != nil {
		return err
	}
	if err := bench.CheckColour("front", s.Front); err != nil {
		return err
	}
	if err := bench.CheckColour("back", s.Back); err != nil {
		return err
	}
	return s.CheckMade()
}

// SizeInput is a length by a length with its unit.
type SizeInput struct {
	Width  float64 `json:"width"`
	Height float64 `json:"height"`
	Unit   string  `json:"unit" enum:"mm,cm,in"`
}

// Mm converts and checks a size against a range.
func (in SizeInput) Mm(least float64) (w, h float64, err error) {
	r := sheet.Range{Min: least, Max: sheet.SideRange.Max, Unit: "mm"}
	for _, side := range []struct {
		field string
		v     float64
		to    *float64
	}{{"width", in.Width, &w}, {"height", in.Height, &h}} {
		v, err := sheet.ToMM(side.v, in.Unit)
		if err != nil {
			return 0, 0, err
		}
		if !r.Holds(v) {
			return 0, 0, &given.Error{Field: side.field, Value: sheet.Number(side.v) + " " + in.Unit, Want: r.String()}
		}
		*side.to = v
	}
	return w, h, nil
}

// FindPattern looks a pattern up; the problem names those there are.
func FindPattern(id string) (*sequence.Pattern, error) {
	p, ok := shelf.Find(id)
	if !ok {
		return nil, Refuse("pattern", id, fmt.Sprintf("there is no pattern %q; there are %v", id, shelf.Names()))
	}
	return p, nil
}

// CheckKnobs refuses knobs that the pattern does not have and values outside
// the declared range.
func CheckKnobs(p *sequence.Pattern, knobs map[string]float64) error {
	for name, v := range knobs {
		i := p.KnobIndex(name)
		if i < 0 || p.Knobs[i].Plain {
			return Refuse("body.knobs."+name, v, fmt.Sprintf("%s has no knob %q", p.Title, name))
		}
		if k := p.Knobs[i]; math.IsNaN(v) || v < k.Min || v > k.Max {
			return Refuse("body.knobs."+name, v, fmt.Sprintf("%s is %s; it must be %s", k.Label, say.Value(v, k.Told(), 3), say.Between(k.Min, k.Max, k.Told(), 3)))
		}
	}
	return nil
}

// CheckRecipes refuses recipes for what is no length of the pattern.
func CheckRecipes(p *sequence.Pattern, recipes map[string]int) error {
	for name, n := range recipes {
		if i := p.KnobIndex(name); i < 0 || p.Knobs[i].Unit != "mm" || n < 1 || n > divide.MaxCreases {
			return Refuse("body.recipes."+name, n, fmt.Sprintf("a recipe belongs to a length of the pattern and has 1 to %d creases", divide.MaxCreases))
		}
	}
	return nil
}

// Planned is a pattern with a set-up for it, and the sheet of that. Studies are looked
// at like patterns.
func (in SetupInput) Planned(pattern string) (*sequence.Pattern, bench.Setup, sheet.Sheet, error) {
	p, found := shelf.FindStudy(pattern)
	if !found {
		var err error
		if p, err = FindPattern(pattern); err != nil {
			return nil, bench.Setup{}, sheet.Sheet{}, err
		}
	}
	setup, err := in.of(p)
	if err != nil {
		return nil, setup, sheet.Sheet{}, err
	}
	sh, err := sheet.New(setup.Sheet.WidthMM, setup.Sheet.HeightMM, setup.Sheet.GSM, setup.Sheet.ThicknessMM)
	return p, setup, sh, AsProblem(err, "body.sheet.")
}

// SetupInput is a sheet and the knobs that are moved.
type SetupInput struct {
	Sheet SheetInput         `json:"sheet"`
	Knobs map[string]float64 `json:"knobs,omitempty"`
	// Recipes are the knobs whose length is found by folding, and the recipe's creases.
	Recipes map[string]int `json:"recipes,omitempty"`
	Written motion.Written `json:"written,omitempty" doc:"what is written on the toy, by place"`
}

// Setup checks a set-up against its pattern.
func (in SetupInput) Setup(pattern string) (bench.Setup, error) {
	p, err := FindPattern(pattern)
	if err != nil {
		return bench.Setup{}, err
	}
	return in.of(p)
}

func (in SetupInput) of(p *sequence.Pattern) (bench.Setup, error) {
	spec, err := in.Sheet.Spec()
	if err != nil {
		return bench.Setup{}, AsProblem(err, "body.sheet.")
	}
	if err := CheckKnobs(p, in.Knobs); err != nil {
		return bench.Setup{}, err
	}
	if err := CheckRecipes(p, in.Recipes); err != nil {
		return bench.Setup{}, err
	}
	written, err := in.Written.Clean()
	if err != nil {
		return bench.Setup{}, AsProblem(err, "body.written.")
	}
	if len(written) == 0 {
		written = nil
	}
	return bench.Setup{Sheet: spec, Knobs: p.FullKnobs(in.Knobs), Recipes: in.Recipes, Written: written}, nil
}

// PathID is a number in the path.
type PathID struct {
	ID int64 `path:"id" minimum:"1"`
}

// ReplayInput asks for a pattern on a sheet.
type ReplayInput struct {
	ID   string `path:"id" maxLength:"80"`
	Body SetupInput
}
