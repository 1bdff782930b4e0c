package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"strings"
	"time"

	"github.com/spf13/cobra"

	"tussock/internal/body"
	"tussock/internal/exchange"
	"tussock/internal/fold"
	"tussock/internal/say"
	"tussock/internal/sequence"
	"tussock/internal/sequence/manual"
	"tussock/internal/sequence/remarks"
	"tussock/internal/sequence/spread"
	"tussock/internal/sheet"
	"tussock/internal/ways"
)

// countLimit and countTime bound tussock orders.
const (
	countLimit = 10_000_000
	countTime  = 2 * time.Minute
)

// ordersCommand counts the ways in which the layers of a crease pattern can lie.
func ordersCommand() *cobra.Command {
	var asJSON bool
	var scale float64
	c := &cobra.Command{Use: "orders FILE.fold", Short: "Count the valid layer orders of a crease pattern; unassigned creases mean either sense", Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			file, err := os.Open(args[0])
			if err != nil {
				return err
			}
			n, done, err := countOrders(cmd.Context(), file, scale)
			err = errors.Join(err, file.Close())
			return reportOrders(cmd.OutOrStdout(), cmd.ErrOrStderr(), n, done, err, asJSON)
		}}
	c.Flags().BoolVar(&asJSON, "json", false, "print JSON for scripts")
	c.Flags().Float64Var(&scale, "scale", 0, "mm that one unit of a file without a unit is; 200 mm for its longer side when absent")
	return c
}

func countOrders(ctx context.Context, r io.Reader, scale float64) (int, bool, error) {
	ctx, cancel := context.WithTimeout(ctx, countTime)
	defer cancel()
	p, err := exchange.ReadFOLDScaled(r, scale)
	if err != nil {
		return 0, false, err
	}
	n, done, ferr := p.OrdersUpTo(ctx, countLimit)
	if ferr != nil {
		return 0, false, ferr
	}
	return n, done, nil
}

func reportOrders(out, errOut io.Writer, n int, done bool, err error, asJSON bool) error {
	switch {
	case err != nil:
		code := "file"
		if fe := fold.As(err); fe != nil {
			code = string(fe.Code)
		}
		return refused(out, errOut, asJSON, map[string]any{"ok": false, "error": map[string]any{"code": code, "detail": err.Error()}}, err)
	case asJSON:
		return printJSON(out, map[string]any{"ok": true, "orders": n, "complete": done})
	case !done:
		_, err = fmt.Fprintf(out, "at least %d (the count was given up)\n", n)
	default:
		_, err = fmt.Fprintln(out, n)
	}
	return err
}

type spreadFlags struct {
	replayFlags
	hand    string
	sigma   float64
	samples int
	seed    uint64
}

// spreadJSON is what tussock spread prints for scripts.
type spreadJSON struct {
	OK         bool           `json:"ok"`
	Error      error          `json:"error,omitempty"`
	SigmaMM    float64        `json:"sigma_mm,omitempty"`
	Samples    int            `json:"samples,omitempty"`
	Seed       uint64         `json:"seed,omitempty"`
	CoM        *scatterJSON   `json:"com,omitempty"`
	Landmarks  []scatterJSON  `json:"landmarks,omitempty"`
	Steps      []stepErrorRow `json:"steps,omitempty"`
	LopsidedMM float64        `json:"left_right_mm,omitempty"`
	Pairs      int            `json:"pairs,omitempty"`
	Box        [2]float64     `json:"box,omitempty"`
	BoxSD      [2]float64     `json:"box_sd,omitempty"`
	StretchMM  float64        `json:"stretch_mm,omitempty"`
	TightMM    float64        `json:"tight_mm"`
	Tight      bool           `json:"tight"`
}

type scatterJSON struct {
	Name string     `json:"name,omitempty"`
	At   [2]float64 `json:"at"`
	SX   float64    `json:"sd_x"`
	SY   float64    `json:"sd_y"`
	RMS  float64    `json:"rms"`
}

type stepErrorRow struct {
	Step   int     `json:"step"`
	Text   string  `json:"text"`
	Share  float64 `json:"share"`
	CoM    float64 `json:"share_com"`
	Sides  float64 `json:"share_left_right"`
	PerMM  float64 `json:"mm_per_mm"`
	Worst  string  `json:"worst_landmark,omitempty"`
	Class  string  `json:"class"`
	Author string  `json:"class_by_author,omitempty"`
	GapMM  float64 `json:"gap_mm"`
}

// spreadCommand says what small errors of the hand do to the finished toy.
func spreadCommand() *cobra.Command {
	var f spreadFlags
	c := &cobra.Command{Use: "spread FILE|NAME", Short: "Say what small errors of the hand do to the finished toy, and which step matters most", Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			return studySpread(cmd.OutOrStdout(), cmd.ErrOrStderr(), args[0], f)
		}}
	f.onSheet(c)
	c.Flags().StringVar(&f.hand, "hand", "adult", "whose hand: adult (0.3 mm) or child (0.8 mm)")
	c.Flags().Float64Var(&f.sigma, "sigma", 0, "standard deviation of a crease's ends in mm, instead of --hand")
	c.Flags().IntVar(&f.samples, "samples", 1000, "toys folded, 10 to 100000")
	c.Flags().Uint64Var(&f.seed, "seed", 1, "the same seed gives the same figures")
	c.Flags().BoolVar(&f.json, "json", false, "print JSON for scripts")
	return c
}

func (f *spreadFlags) hands() (float64, error) {
	if f.samples < 10 || f.samples > 100_000 {
		return 0, fold.Errorf("samples", "--samples is %d; it must be 10 to 100000", f.samples)
	}
	if f.sigma != 0 {
		if !(f.sigma > 0 && f.sigma <= 5) {
			return 0, fold.Errorf("sigma", "--sigma is %g; it must be above 0 and at most 5 mm", f.sigma)
		}
		return f.sigma, nil
	}
	if h, found := spread.FindHand(f.hand); found {
		return h.MM, nil
	}
	return 0, fold.Errorf("hand", "--hand is %q; it must be adult or child", f.hand)
}

func studySpread(out, errOut io.Writer, name string, f spreadFlags) error {
	var s *spread.Spread
	sigma, failure := f.hands()
	var r *sequence.Replay
	if failure == nil {
		r, failure = carryOut(name, f.replayFlags)
	}
	if failure == nil {
		s, failure = spread.Of(r, sigma, f.samples, f.seed)
	}
	if failure != nil {
		return refused(out, errOut, f.json, spreadJSON{Error: failure}, failure)
	}
	if f.json {
		return printJSON(out, spreadOf(r, s))
	}
	_, err := io.WriteString(out, spreadText(r, s))
	return err
}

func spreadOf(r *sequence.Replay, s *spread.Spread) spreadJSON {
	scatter := func(l spread.Landmark) scatterJSON {
		return scatterJSON{l.Name, [2]float64{l.At.X, l.At.Y}, l.SX, l.SY, l.RMSMM}
	}
	com := scatter(s.CoM)
	j := spreadJSON{OK: true, SigmaMM: s.SigmaMM, Samples: s.Samples, Seed: s.Seed, CoM: &com, LopsidedMM: s.LopsidedMM, Pairs: s.Pairs,
		Box: s.BoxMM, BoxSD: s.BoxSD, StretchMM: s.StretchMM, TightMM: s.TightMM, Tight: s.Tight}
	for _, l := range s.Landmarks {
		j.Landmarks = append(j.Landmarks, scatter(l))
	}
	for i, st := range s.Steps {
		d := r.Steps[i]
		j.Steps = append(j.Steps, stepErrorRow{st.No, d.Text, st.Share, st.ShareCoM, st.ShareLopsided, st.PerMM, st.Worst, string(st.Class), d.Class, st.GapMM})
	}
	return j
}

func spreadText(r *sequence.Replay, s *spread.Spread) string {
	var b strings.Builder
	fmt.Fprintf(&b, "%s, %d toys folded with creases off by %.2g mm (standard deviation), seed %d\n", r.Pattern.Title, s.Samples, s.SigmaMM, s.Seed)
	fmt.Fprintf(&b, "centre of mass scatters by %.2f, %.2f mm; left and right differ by %.2f mm; the paper gives %.2f mm\n", s.CoM.SX, s.CoM.SY, s.LopsidedMM, s.StretchMM)
	b.WriteString("step  share  1 mm here moves      class     gap   what\n")
	for i, st := range s.Steps {
		fmt.Fprintf(&b, "%4d  %4.0f%%  %-4s by %5.2f mm    %-8s  %.2f  %s\n", st.No, 100*st.Share, st.Worst, st.PerMM, st.Class, st.GapMM, r.Steps[i].Text)
	}
	if s.Tight {
		fmt.Fprintf(&b, "caution: on this paper the layers bind by %.2f mm; leave the gaps given\n", s.TightMM)
	}
	return b.String()
}

// checkCommand looks a pattern over.
func checkCommand() *cobra.Command {
	var asJSON bool
	c := &cobra.Command{Use: "check FILE|NAME", Short: "Look a pattern over: unused names, missing words, bends, ambiguity, range of ratios", Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			out := cmd.OutOrStdout()
			p, _, _, err := findPattern(args[0])
			if err != nil {
				return refused(out, cmd.ErrOrStderr(), asJSON, map[string]any{"ok": false, "error": err.Error()}, err)
			}
			found := append(remarks.Lint(p), torn(p)...)
			failed := false
			for _, f := range found {
				failed = failed || f.Kind == "fold" || f.Kind == "bent" || f.Kind == "torn"
			}
			if asJSON {
				if found == nil {
					found = []remarks.Finding{}
				}
				err = printJSON(out, map[string]any{"ok": !failed, "findings": found})
			} else {
				for _, f := range found {
					if _, err := fmt.Fprintf(out, "%s:%d: %s: %s\n", p.File, f.Line, f.Kind, say.Plain(f.Text)); err != nil {
						return err
					}
				}
				if len(found) == 0 {
					_, err = fmt.Fprintln(out, "nothing to remark")
				}
			}
			if failed {
				return errors.Join(err, errReported)
			}
			return err
		}}
	c.Flags().BoolVar(&asJSON, "json", false, "print JSON for scripts")
	return c
}

// torn are the steps after which a toy on its own sheet cannot stand as it is set.
func torn(p *sequence.Pattern) []remarks.Finding {
	s, err := sheet.New(p.WidthMM, p.HeightMM, 80, 0.1)
	if err != nil {
		return nil
	}
	r := p.Run(s, nil)
	if r.Err != nil {
		return nil // told by the look over the steps
	}
	var out []remarks.Finding
	for _, w := range body.Tears(r) {
		out = append(out, remarks.Finding{Line: r.Steps[w.Step-1].Step.Line, Kind: w.Kind, Text: w.Text})
	}
	return out
}

// wordsCommand writes the reference of the pattern language.
func wordsCommand() *cobra.Command {
	return &cobra.Command{Use: "words", Short: "Print every word of the pattern language with an example", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			_, err := io.WriteString(cmd.OutOrStdout(), manual.Text(ways.Language()))
			return err
		}}
}

// modelsCommand writes what the models rest on.
func modelsCommand() *cobra.Command {
	return &cobra.Command{Use: "models", Short: "Print the constants of every model, with range, confidence and source", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			_, err := io.WriteString(cmd.OutOrStdout(), ways.ModelsText())
			return err
		}}
}
