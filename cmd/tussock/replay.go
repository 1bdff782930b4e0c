package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"strconv"
	"strings"

	"github.com/spf13/cobra"

	"tussock/internal/body"
	"tussock/internal/fold"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
)

type replayFlags struct {
	sheet          string
	gsm, thickness float64
	set            []string
	json           bool
}

// replayJSON is stable for scripts; see the README.
type replayJSON struct {
	OK    bool              `json:"ok"`
	Error *fold.Error       `json:"error,omitempty"`
	Sheet *sheetJSON        `json:"sheet,omitempty"`
	Steps []body.StepReport `json:"steps,omitempty"`
	Final *body.FinalReport `json:"final,omitempty"`
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
	c.Flags().StringVar(&f.sheet, "sheet", "", "sheet, like 210x297, 8.5x11in, A4 or letter; the pattern's own when absent")
	c.Flags().Float64Var(&f.gsm, "gsm", 80, "paper weight in g/m²")
	c.Flags().Float64Var(&f.thickness, "thickness", 0.1, "thickness of one layer in mm")
	c.Flags().StringArrayVar(&f.set, "set", nil, "a knob, like depth=3; may be given several times")
	c.Flags().BoolVar(&f.json, "json", false, "print JSON for scripts")
	return c
}

func replay(out, errOut io.Writer, name string, f replayFlags) error {
	r, failure := carryOut(name, f)
	if failure != nil {
		if !f.json {
			_, err := fmt.Fprintln(errOut, "tussock:", failure)
			return errors.Join(err, errReported)
		}
		return errors.Join(printJSON(out, replayJSON{Error: failure}), errReported)
	}
	steps, final := body.Steps(r), body.Final(r)
	if f.json {
		s := sheetJSON{r.Sheet.WidthMM, r.Sheet.HeightMM, r.Sheet.GSM, r.Sheet.ThicknessMM}
		return printJSON(out, replayJSON{OK: true, Sheet: &s, Steps: steps, Final: &final})
	}
	var b strings.Builder
	fmt.Fprintf(&b, "%s on %s x %s mm, %s g/m²\n", r.Pattern.Title, sheet.Number(r.Sheet.WidthMM), sheet.Number(r.Sheet.HeightMM), sheet.Number(r.Sheet.GSM))
	for _, s := range steps {
		fmt.Fprintf(&b, "%3d  %7.2f x %7.2f mm  %2d layers  %s\n", s.Step, s.Box[0], s.Box[1], s.MaxLayers, s.Text)
	}
	fmt.Fprintf(&b, "mass %.3f g, centre of mass %.2f, %.2f mm, %d mountain and %d valley creases\n", final.MassG, final.CoM[0], final.CoM[1], final.Mountain, final.Valley)
	_, err := io.WriteString(out, b.String())
	return err
}

// carryOut reads, replays and turns every failure into the one error shape.
func carryOut(name string, f replayFlags) (*sequence.Replay, *fold.Error) {
	p, err := findPattern(name)
	if err != nil {
		var pe *sequence.ParseError
		if errors.As(err, &pe) {
			return nil, &fold.Error{Line: pe.Line, Code: "parse", Detail: pe.Error()}
		}
		return nil, fold.Errorf("pattern", "%s", err)
	}
	w, h := p.WidthMM, p.HeightMM
	if f.sheet != "" {
		if w, h, err = sheet.ParseSize(f.sheet); err != nil {
			return nil, fold.Errorf(fold.CodeSheet, "%s", err)
		}
	}
	s, err := sheet.New(w, h, f.gsm, f.thickness)
	if err != nil {
		return nil, fold.Errorf(fold.CodeSheet, "%s", err)
	}
	knobs := map[string]float64{}
	for _, kv := range f.set {
		k, v, ok := strings.Cut(kv, "=")
		x, err := strconv.ParseFloat(v, 64)
		if !ok || err != nil {
			return nil, fold.Errorf(fold.CodeKnob, "--set %q is not a knob and a number, like depth=3", kv)
		}
		knobs[k] = x
	}
	r := p.Run(s, knobs)
	return r, r.Err
}

// findPattern takes a file if there is one of that name, else the shelf.
func findPattern(name string) (*sequence.Pattern, error) {
	text, err := os.ReadFile(name)
	if err == nil {
		return sequence.Parse(name, string(text))
	}
	if p, ok := shelf.Find(name); ok {
		return p, nil
	}
	return nil, fmt.Errorf("%q is neither a file nor a pattern of the shelf (%s)", name, strings.Join(shelf.Names(), ", "))
}

func printJSON(out io.Writer, v any) error {
	e := json.NewEncoder(out)
	e.SetIndent("", "  ")
	e.SetEscapeHTML(false)
	return e.Encode(v)
}
