package main

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strconv"
	"strings"

	"github.com/spf13/cobra"

	"tussock/internal/body"
	"tussock/internal/draw"
	"tussock/internal/exchange"
	"tussock/internal/fold"
	"tussock/internal/fold/layermap"
	"tussock/internal/say"
	"tussock/internal/sequence"
	"tussock/internal/sequence/lang"
	"tussock/internal/sequence/remarks"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
	"tussock/internal/ways"
)

type replayFlags struct {
	sheet              string
	gsm, thickness     float64
	set                []string
	json               bool
	step               int
	svg, fold, dxf     string
	contact, creaseMap string
	bundle             string
	essential          bool
	round              string
}

// replayJSON is stable for scripts; see the README.
type replayJSON struct {
	OK     bool              `json:"ok"`
	Error  error             `json:"error,omitempty"`
	Sheet  *sheetJSON        `json:"sheet,omitempty"`
	Steps  []body.StepReport `json:"steps,omitempty"`
	Final  *body.FinalReport `json:"final,omitempty"`
	Study  *body.Study       `json:"study,omitempty"`
	Survey *surveyJSON       `json:"survey,omitempty"`
}

// surveyJSON is what happens on a sheet that does not do.
type surveyJSON struct {
	Misses []sequence.Miss `json:"misses"`
	First  int             `json:"first_step"` // that misses or cannot be made
	Works  bool            `json:"works"`
	Ranges []rangeJSON     `json:"ranges"` // found by replaying: "ratio" is height over width, others are knobs
}

type rangeJSON struct {
	Name string  `json:"name"`
	Min  float64 `json:"min"`
	Max  float64 `json:"max"`
}

// surveyed looks at a sheet that does not do. Ranges of knobs are those around the
// pattern's own values, where these fold on this sheet.
func surveyed(r *sequence.Replay) (*surveyJSON, error) {
	f := remarks.FitOf(r.Pattern, r.Sheet, r.Given)
	out := &surveyJSON{Misses: []sequence.Miss{}, First: f.First, Works: f.Works, Ranges: []rangeJSON{}}
	for _, m := range f.Misses {
		m.Detail = say.Plain(m.Detail)
		out.Misses = append(out.Misses, m)
	}
	if f.Ratio != nil {
		out.Ranges = append(out.Ranges, rangeJSON{"ratio", f.Ratio.Min, f.Ratio.Max})
	}
	free := *r.Pattern
	free.MinRatio, free.MaxRatio = 0, 0
	reaches, err := remarks.ReachOf(context.Background(), &free, r.Sheet, nil)
	for _, q := range reaches {
		out.Ranges = append(out.Ranges, rangeJSON{q.Name, q.Min, q.Max})
	}
	return out, err
}

type sheetJSON struct {
	WidthMM     float64 `json:"width_mm"`
	HeightMM    float64 `json:"height_mm"`
	GSM         float64 `json:"gsm"`
	ThicknessMM float64 `json:"thickness_mm"`
}

func replayCommand() *cobra.Command {
	var f replayFlags
	c := &cobra.Command{Use: "replay FILE|NAME", Short: "Fold a pattern on a sheet and report every step", Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			return replay(cmd.OutOrStdout(), cmd.ErrOrStderr(), args[0], f)
		}}
	f.onSheet(c)
	c.Flags().BoolVar(&f.json, "json", false, "print JSON for scripts")
	c.Flags().IntVar(&f.step, "step", 0, "stop after this step; the files show it")
	c.Flags().StringVar(&f.svg, "svg", "", "write the folded toy as SVG, with the next step if --step is given")
	c.Flags().StringVar(&f.creaseMap, "map", "", "write the crease map and the toy's outline as SVG, true size")
	c.Flags().StringVar(&f.round, "round", "", "write the toy as it stands in the round as SVG")
	c.Flags().StringVar(&f.contact, "contact", "", "write all steps on one SVG")
	c.Flags().StringVar(&f.fold, "fold", "", "write the folded toy as FOLD")
	c.Flags().StringVar(&f.dxf, "dxf", "", "write the crease map and the toy's outline as DXF, true size in mm")
	c.Flags().BoolVar(&f.essential, "skip-optional", false, "leave out the steps that are optional")
	c.Flags().StringVar(&f.bundle, "bundle", "", "write pattern, sheet and knobs as one JSON file")
	return c
}

// onSheet adds the flags that say what is folded.
func (f *replayFlags) onSheet(c *cobra.Command) {
	c.Flags().StringVar(&f.sheet, "sheet", "", "sheet, like 210x297, 8.5x11in, A4 or letter; the pattern's own when absent")
	c.Flags().Float64Var(&f.gsm, "gsm", 80, "paper weight in g/m²")
	c.Flags().Float64Var(&f.thickness, "thickness", 0.1, "thickness of one layer in mm")
	c.Flags().StringArrayVar(&f.set, "set", nil, "a knob, like depth=3; may be given several times")
}

func replay(out, errOut io.Writer, name string, f replayFlags) error {
	r, failure := carryOut(name, f)
	if failure == nil && f.step != 0 {
		r, failure = upTo(r, f.step)
	}
	if failure != nil {
		if r != nil && f.svg != "" { // the last good state, with what the fault is about
			if err := os.WriteFile(f.svg, []byte(draw.Failure(r)), 0o644); err != nil {
				return err
			}
		}
		j := replayJSON{Error: failure}
		if f.json && r != nil {
			var err error
			if j.Survey, err = surveyed(r); err != nil {
				return err
			}
		}
		return refused(out, errOut, f.json, j, failure)
	}
	if err := f.write(r); err != nil {
		return err
	}
	steps, final := body.Steps(r), body.Final(r)
	if f.json {
		s := sheetJSON{r.Sheet.WidthMM, r.Sheet.HeightMM, r.Sheet.GSM, r.Sheet.ThicknessMM}
		study := body.StudyOf(r)
		return printJSON(out, replayJSON{OK: study.Round.Sound, Sheet: &s, Steps: steps, Final: &final, Study: &study})
	}
	var b strings.Builder
	fmt.Fprintf(&b, "%s on %s x %s mm, %s g/m²\n", r.Pattern.Title, sheet.Number(r.Sheet.WidthMM), sheet.Number(r.Sheet.HeightMM), sheet.Number(r.Sheet.GSM))
	for _, s := range steps {
		fmt.Fprintf(&b, "%3d  %7.2f x %7.2f mm  %2d layers  %s\n", s.Step, s.Box[0], s.Box[1], s.MaxLayers, s.Text)
	}
	fmt.Fprintf(&b, "mass %.3f g, centre of mass %.2f, %.2f mm, %d mountain and %d valley creases\n", final.MassG, final.CoM[0], final.CoM[1], final.Mountain, final.Valley)
	for _, w := range append(remarks.Warnings(r), body.Tears(r)...) {
		fmt.Fprintf(&b, "caution, step %d: %s\n", w.Step, say.Plain(w.Text))
	}
	_, err := io.WriteString(out, b.String())
	return err
}

// refused reports a failure, for scripts as j or for people, and ends the program
// with exit code 1.
func refused(out, errOut io.Writer, asJSON bool, j any, why error) error {
	if asJSON {
		return errors.Join(printJSON(out, j), errReported)
	}
	_, err := fmt.Fprintln(errOut, "tussock:", say.Plain(why.Error()))
	return errors.Join(err, errReported)
}

// upTo is a replay cut short after a step.
func upTo(r *sequence.Replay, step int) (*sequence.Replay, error) {
	if step < 1 || step > len(r.Steps) {
		return nil, fold.Errorf("step", "--step is %d; the pattern has steps 1 to %d", step, len(r.Steps))
	}
	return r.UpTo(step), nil
}

// write makes the files that are asked for.
func (f *replayFlags) write(r *sequence.Replay) error {
	s := r.Final()
	var drawing exchange.Drawing
	if f.dxf != "" || f.creaseMap != "" {
		drawing = exchange.CreaseMap(s, layermap.Silhouette(layermap.Cells(s)), r.Notes)
	}
	for _, file := range []struct {
		name string
		make func() ([]byte, error)
	}{
		{f.svg, func() ([]byte, error) { return []byte(f.picture(r)), nil }},
		{f.creaseMap, func() ([]byte, error) { return []byte(drawing.SVG()), nil }},
		{f.round, func() ([]byte, error) {
			return []byte(draw.SVG(draw.InSpace(body.Standing(r), draw.Slanted(28, 38)), nil, draw.Plain)), nil
		}},
		{f.contact, func() ([]byte, error) {
			w := ways.For(r.Pattern)
			return []byte(draw.Contact(r, draw.Plain, w.Look, w.Picture(r))), nil
		}},
		{f.fold, func() ([]byte, error) {
			return exchange.WriteFOLDAbout(s, exchange.About{Title: r.Pattern.Title, Author: r.Pattern.Credit, Description: shelf.Lineage(r.Pattern)})
		}},
		{f.dxf, func() ([]byte, error) { return []byte(drawing.DXF()), nil }},
		{f.bundle, func() ([]byte, error) { return exchange.WriteBundle(r) }},
	} {
		if file.name == "" {
			continue
		}
		b, err := file.make()
		if err != nil {
			return err
		}
		if err := os.WriteFile(file.name, b, 0o644); err != nil {
			return err
		}
	}
	return nil
}

// picture is the toy, or with --step the paper before that step with what to do.
func (f *replayFlags) picture(r *sequence.Replay) string {
	if f.step > 0 {
		st := draw.StageOf(r, f.step, ways.For(r.Pattern).Look)
		return draw.SVG(st.Picture, &st.Over, draw.Plain)
	}
	return draw.SVG(draw.At(r, len(r.Steps)), nil, draw.Plain)
}

// carryOut reads, replays and turns every failure into the one error shape.
func carryOut(name string, f replayFlags) (*sequence.Replay, error) {
	p, s, knobs, failure := f.given(name)
	if failure != nil {
		return nil, failure
	}
	if f.essential {
		r := p.RunEssential(s, knobs)
		return r, r.Err
	}
	r := p.Run(s, knobs)
	return r, r.Err
}

// given is the pattern, sheet and knobs that a command is to work on.
func (f *replayFlags) given(name string) (*sequence.Pattern, sheet.Sheet, map[string]float64, error) {
	var none sheet.Sheet
	p, s, knobs, err := findPattern(name)
	if err != nil {
		var pe *lang.ParseError
		if errors.As(err, &pe) {
			return nil, none, nil, &fold.Error{Line: pe.Line, Code: "parse", Detail: pe.Error()}
		}
		return nil, none, nil, fold.Errorf("pattern", "%s", err)
	}
	if s.WidthMM == 0 || f.sheet != "" {
		w, h := p.WidthMM, p.HeightMM
		if f.sheet != "" {
			if w, h, err = sheet.ParseSize(f.sheet); err != nil {
				return nil, none, nil, fold.Errorf(fold.CodeSheet, "%s", err)
			}
		}
		if s, err = sheet.New(w, h, f.gsm, f.thickness); err != nil {
			return nil, none, nil, fold.Errorf(fold.CodeSheet, "%s", err)
		}
	}
	for _, kv := range f.set {
		k, v, ok := strings.Cut(kv, "=")
		x, err := strconv.ParseFloat(v, 64)
		if !ok || err != nil {
			return nil, none, nil, fold.Errorf(fold.CodeKnob, "--set %q is not a knob and a number, like depth=3", kv)
		}
		knobs[k] = x
	}
	return p, s, knobs, nil
}

// findPattern takes a file if there is one of that name (a pattern, or a bundle
// with sheet and knobs), else the shelf or the study shelf. The sheet is zero
// unless a bundle brings one.
func findPattern(name string) (*sequence.Pattern, sheet.Sheet, map[string]float64, error) {
	var none sheet.Sheet
	info, err := os.Stat(name)
	if err == nil && !info.IsDir() {
		if info.Size() > exchange.MaxBytes {
			return nil, none, nil, fmt.Errorf("%q is larger than %d bytes", name, exchange.MaxBytes)
		}
		text, err := os.ReadFile(name)
		if err != nil {
			return nil, none, nil, err
		}
		if strings.EqualFold(filepath.Ext(name), ".json") {
			return exchange.ReadBundle(strings.NewReader(string(text)))
		}
		p, err := ways.Parse(name, string(text))
		return p, none, map[string]float64{}, err
	}
	if p, ok := shelf.Find(name); ok {
		return p, none, map[string]float64{}, nil
	}
	if p, ok := shelf.FindStudy(name); ok {
		return p, none, map[string]float64{}, nil
	}
	return nil, none, nil, fmt.Errorf("%q is neither a file nor a pattern of the shelf (%s) nor a study (%s)", name, strings.Join(shelf.Names(), ", "), strings.Join(shelf.StudyNames(), ", "))
}

func printJSON(out io.Writer, v any) error {
	var b strings.Builder
	e := json.NewEncoder(&b)
	e.SetIndent("", "  ")
	e.SetEscapeHTML(false)
	if err := e.Encode(v); err != nil {
		return err
	}
	_, err := io.WriteString(out, say.Plain(b.String()))
	return err
}
