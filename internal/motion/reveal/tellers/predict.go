package tellers

import (
	"context"
	"errors"
	"fmt"
	"math"
	"strings"

	"tussock/internal/draw"
	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/reveal/teller"
	"tussock/internal/motion/toys"
	"tussock/internal/say"
)

// TellerDrawing is a fortune teller with what is written on it.
type TellerDrawing struct {
	Shut    draw.Picture   `json:"shut"`
	Opens   []TellerOpens  `json:"opens"` // the two ways, in turn
	Words   []TellerWord   `json:"words"`
	Halves  []TellerHalf   `json:"halves"` // clockwise, from the right half of the upper flap
	Rounds  int            `json:"rounds"` // numbers counted before one is opened
	Assumed bool           `json:"assumed"`
	Fair    bool           `json:"fair"`
	Says    string         `json:"says"`    // of the chances
	Changes []TellerChange `json:"changes"` // the fewest that make it fair
	// Fingers: millimetres across, inside, and the side of a sheet that fits them.
	FingerMM   float64 `json:"finger_mm"`
	InsideMM   float64 `json:"inside_mm"`
	DepthMM    float64 `json:"depth_mm"`
	ProposedMM float64 `json:"proposed_mm"`
	RoomMM     float64 `json:"room_mm"`
	TrimMM     float64 `json:"trim_mm"`
}

// TellerOpens is one way that it opens: pictures from shut to open, and the halves that show.
type TellerOpens struct {
	Title   string         `json:"title"`
	Frames  []draw.Picture `json:"frames"`
	Shows   []int          `json:"shows"` // numbers of halves, from 1
	FullMM  float64        `json:"full_mm"`
	AlikeMM float64        `json:"alike_mm"`
}

// TellerWord is what is spelled of an outer panel.
type TellerWord struct {
	Word    string   `json:"word"`
	Letters []string `json:"letters"` // that are spelled, a move each
	Moves   int      `json:"moves"`
	Opens   int      `json:"opens"` // which way it is open then, 0 or 1
	Colour  string   `json:"colour"`
	Picture string   `json:"picture"`
}

// TellerHalf is a number with the message under it.
type TellerHalf struct {
	Number  string  `json:"number"`
	Moves   int     `json:"moves"`
	Message string  `json:"message"`
	Colour  string  `json:"colour"`
	Chance  float64 `json:"chance"` // 0 to 1
	Opens   int     `json:"opens"`  // the way of opening that shows it
}

// TellerChange is another number for a half.
type TellerChange struct {
	Half int    `json:"half"` // from 1
	From string `json:"from"`
	To   string `json:"to"`
}

// frames of an opening that are drawn.
const frames = 7

// drawing shows the toy shut, and opening both ways.
func (w *Workbench) drawing(s set) *TellerDrawing {
	inks, _ := toys.Inked(s.Places, w.written)
	d := &TellerDrawing{Rounds: w.rounds, Assumed: s.assumed, Fair: teller.Fair(s.odds), Changes: []TellerChange{}, Words: []TellerWord{}, Halves: []TellerHalf{}, Opens: []TellerOpens{},
		FingerMM: round1(w.fingerMM), InsideMM: round1(s.inside), DepthMM: round1(teller.DepthMM(s.SideMM)), ProposedMM: teller.ProposedMM(w.fingerMM, teller.MostSideMM), RoomMM: round1(s.roomMM), TrimMM: round1(s.trimMM)}
	for _, side := range []teller.Side{teller.A, teller.B} {
		o := TellerOpens{Title: side.String(), Shows: []int{}, FullMM: round1(teller.Open(teller.Full).TipGapMM(s.SideMM)), AlikeMM: round1(teller.Open(teller.AlikeRad()).TipGapMM(s.SideMM))}
		for _, h := range side.Visible() {
			o.Shows = append(o.Shows, h+1)
		}
		for i := range frames {
			o.Frames = append(o.Frames, s.seen(side, geom.Rad(drawnDeg)*float64(i)/(frames-1), inks))
		}
		d.Opens = append(d.Opens, o)
	}
	d.Shut = d.Opens[teller.A].Frames[0]
	for i, word := range s.words {
		m := w.written[place(teller.Outer, i)]
		if s.assumed && m == (motion.Mark{}) {
			m = usual()[place(teller.Outer, i)]
		}
		d.Words = append(d.Words, TellerWord{word, Letters(word), s.game.Words[i], int(teller.After(s.game.Words[i])), m.Colour, m.Picture})
	}
	for h := range s.odds {
		d.Halves = append(d.Halves, TellerHalf{s.numbers[h], s.game.Numbers[h], s.messages[h], w.written[place(teller.Message, h)].Colour, s.odds[h], int(teller.Shown(h))})
	}
	if !d.Fair {
		for _, c := range s.game.FairNumbers() {
			d.Changes = append(d.Changes, TellerChange{c.Half + 1, s.number(c.Half), fmt.Sprint(c.To)})
		}
	}
	d.Says = s.oddsWords()
	return d
}

func round1(v float64) float64 { return math.Round(10*v) / 10 }

// oddsWords say how evenly messages come up.
func (s set) oddsWords() string {
	if teller.Fair(s.odds) {
		return "Every message comes up in one game of eight."
	}
	never := teller.Never(s.odds)
	least, most := teller.Rarest(s.odds)
	if len(never) > 0 {
		why := "the numbers keep it open the same way"
		if _, one := s.game.OneParity(); one && s.game.Rounds == 0 {
			why = "all words open it the same way, and no number is counted"
		}
		which := "The message under " + s.listed(never) + " never comes"
		if len(never) > 1 {
			which = "The messages under " + s.listed(never) + " never come"
		}
		return fmt.Sprintf("%s up: %s.", which, why)
	}
	return fmt.Sprintf("Some messages come up in %s %% of games, others in %s %%.", say.Decimal(100*most, 1), say.Decimal(100*least, 1))
}

// opensOf is how many of ten openings go freely.
func opensOf(free []float64) motion.Outcome {
	return motion.RangeOf(free).Outcome(Opens, "Opens freely, of ten", "", 0)
}

// rarest is the chance of the rarest message, per cent: exact.
func (s set) rarest() motion.Outcome {
	least, _ := teller.Rarest(s.odds)
	v := 100 * least
	return motion.Range{Lo: v, Middle: v, Hi: v, Lo95: v, Hi95: v}.Outcome("rarest", "Chance of the rarest message", "%", 1)
}

// Predict opens and plays a set-up.
func (w *Workbench) Predict(ctx context.Context, knobs map[string]float64, _ []motion.Ghost) (motion.Prediction, error) {
	out := motion.Prediction{Readings: []motion.Reading{}, Checks: []motion.Check{}, Modes: []motion.Share{}, Outcomes: []motion.Outcome{}, Tries: motion.Draws}
	s, err := w.at(ctx, knobs)
	if errors.Is(err, ErrNoTeller) {
		out.Mode, out.ModeWords = "no zones", say.Capital(err.Error())+"."
		return out, nil
	}
	if err != nil {
		return out, err
	}
	out.Works = true
	modes, room, free := w.scatter(s, motion.Whole)
	out.Modes = motion.Shares(modes, motion.Draws)
	out.Mode = out.Modes[0].Mode
	opens := 100 * float64(modes[modeOpens]) / motion.Draws
	out.Outcomes = []motion.Outcome{opensOf(free), s.rarest(), motion.RangeOf(room).Outcome("room", "Room in the middle", "mm", 1)}
	out.ModeWords = w.modeWords(s, opens)
	out.Readings = w.readings(s, room, opens)
	out.Checks = w.checks(s, modes)
	out.Drawing = &motion.Drawing{Kind: "teller", Data: w.drawing(s)}
	return out, ctx.Err()
}

// Outlook is the first outcome alone.
func (w *Workbench) Outlook(ctx context.Context, knobs map[string]float64) (motion.Outlook, error) {
	s, err := w.at(ctx, knobs)
	if err != nil {
		return motion.Outlook{}, err
	}
	modes, _, free := w.scatter(s, motion.Whole)
	return motion.Outlook{Outcome: opensOf(free), Mode: motion.Shares(modes, motion.Draws)[0].Mode}, nil
}

func (w *Workbench) modeWords(s set, opens float64) string {
	hands := "steady hands"
	if w.hands == byChild {
		hands = "small hands"
	}
	says := fmt.Sprintf("Folded by %s, about %s of 100 open both ways.", hands, say.Decimal(opens, 0))
	if !teller.Holds(s.soft) {
		says = fmt.Sprintf("A finger %s across goes %s into its pocket, even if it is soft: too little to hold it.", say.MM(w.fingerMM, 0), say.MM(math.Max(0, s.soft), 0))
	}
	if s.assumed {
		says += " Nothing is written yet: chances are those of RED, BLUE, GREEN, YELLOW and 1 to 8 in order."
	}
	return says
}

// readings are its numbers.
func (w *Workbench) readings(s set, room []float64, opens float64) []motion.Reading {
	var out []motion.Reading
	exact := func(id, label, unit string, v float64, decimals int, lo, hi float64, meaning, moved string) {
		out = append(out, motion.Reading{ID: id, Label: label, Unit: unit, Value: v, Lo: v, Hi: v, Decimals: decimals, UsualLo: lo, UsualHi: hi, Meaning: meaning, MovedBy: moved})
	}
	least, most := teller.Rarest(s.odds)
	exact("rarest", "Chance of the rarest message", "%", 100*least, 1, 12.5, 12.5, "Exact, for choices without a preference: a chain of two openings. Even is 12.5 %, one in eight.", "numbers, words, how many are counted")
	out[0].Brief = "chance of the rarest message"
	exact("likeliest", "Chance of the likeliest message", "%", 100*most, 1, 12.5, 12.5, "The other end.", "numbers, words")
	r := motion.RangeOf(append([]float64{}, room...))
	out = append(out, motion.Reading{ID: "room", Label: "Room in the middle", Unit: "mm", Value: r.Middle, Lo: r.Lo, Hi: r.Hi, Decimals: 1, UsualLo: 0.3, UsualHi: 2, Predicted: true,
		Meaning: "Left between corners, after the thickness of what lies inside; below nought they overlap, and openings bind.", MovedBy: "gap, squareness, paper, hands"})
	out = append(out, motion.Reading{ID: "opens", Label: "Opens both ways", Unit: "%", Value: opens, Lo: math.Max(0, opens-15), Hi: math.Min(100, opens+10), Decimals: 0, UsualLo: 80, UsualHi: 100, Predicted: true,
		Meaning: "Of a hundred that are folded so. The figure for how exactly hands fold is a usual one.", MovedBy: "gap, hands, squareness"})
	out = append(out, motion.Reading{ID: "inside", Label: "Finger in its pocket", Unit: "mm", Value: math.Max(0, s.inside), Lo: math.Max(0, s.inside), Hi: math.Max(0, s.soft), Decimals: 1, UsualLo: teller.ComfortMM, UsualHi: 30,
		Meaning: fmt.Sprintf("Of a stiff finger %s across, to one that gives by 15 %% as fingers and paper do; 10 mm hold well.", say.MM(w.fingerMM, 1)), MovedBy: "sheet, finger"})
	out = append(out, motion.Reading{ID: "side", Label: "Sheet for that finger", Unit: "mm", Value: teller.SideFor(w.fingerMM), Lo: teller.SideFor(teller.Soft(w.fingerMM)), Hi: teller.SideFor(w.fingerMM),
		Meaning: "Side of the square whose pockets hold it by 10 mm: 46.2 + 5.164 d. Soft fingers do with less.", MovedBy: "finger"})
	b, f, p := teller.Sizes(s.SideMM)
	exact("blintz", "After the first four folds", "mm", b, 1, 0, 0, "Side of the square: 0.707 of the sheet.", "sheet")
	exact("finished", "Finished, flat", "mm", f, 1, 0, 0, "Side of the square: half the sheet. So it lies in a book.", "sheet")
	exact("pocket", "Pocket", "mm", p, 1, 0, 0, "Side of an outer panel: a quarter of the sheet.", "sheet")
	exact("tips", "Points apart, fully open", "mm", teller.Open(teller.Full).TipGapMM(s.SideMM), 0, 0, 0, "Between the two pairs of points: (S/√2) sin γ, with γ at 45°.", "sheet")
	exact("trim", "To trim for a square", "mm", s.trimMM, 1, 0, 0.5, "Off the longer side of the sheet.", "sheet")
	exact("mass", "Mass", "g", s.MassG, 2, 0, 0, "Paper.", "sheet and paper")
	return out
}

// checks are what to look at before it is played.
func (w *Workbench) checks(s set, modes map[string]int) []motion.Check {
	var out []motion.Check
	add := func(id, title string, ok bool, good, bad string, fix []motion.Change, do string) {
		c := motion.Check{ID: id, Title: title, OK: ok, Says: good, Fix: []motion.Change{}}
		if !ok {
			c.Says, c.Do = bad, do
			if fix != nil {
				c.Fix = fix
			}
		}
		out = append(out, c)
	}
	binds := 100 * float64(modes[modeBinds]) / motion.Draws
	want := teller.GapMM(s.ThickMM)
	add("gap", "Room in the middle", binds < 20, fmt.Sprintf("%s of 100 would bind.", say.Decimal(binds, 0)), fmt.Sprintf("%s of 100 would bind: leave %s, from thickness and how exactly one folds.", say.Decimal(binds, 0), say.MM(want, 1)),
		[]motion.Change{w.Change(s.values, knobGap, math.Max(want, s.GapMM+math.Max(0, givesMM-s.roomMM))-s.GapMM)}, "Leave more")
	add("square", "Square", s.trimMM < 0.5, "both sides are alike.", fmt.Sprintf("one side is %s longer, so flaps meet by %s in the middle. Trim so much off.", say.MM(s.trimMM, 1), say.MM(s.trimMM, 1)), nil, "")
	add("fingers", "Fingers", s.inside >= teller.ComfortMM, fmt.Sprintf("%s of a finger are inside.", say.MM(s.inside, 0)),
		fmt.Sprintf("only %s of a finger %s across go in. A sheet of %s holds it; or put two fingers in each half.", say.MM(math.Max(0, s.inside), 0), say.MM(w.fingerMM, 0), say.MM(teller.ProposedMM(w.fingerMM, teller.MostSideMM), 0)), nil, "")
	var changed []string
	for _, c := range s.game.FairNumbers() {
		changed = append(changed, fmt.Sprintf("%s to %d", s.number(c.Half), c.To))
	}
	fair := teller.Fair(s.odds)
	bad := s.oddsWords()
	if len(changed) > 0 && s.game.Rounds > 0 {
		bad += " Change " + strings.Join(changed, ", ") + "."
	} else if s.game.Rounds == 0 {
		bad += " Count one number before one is opened."
	}
	add("fair", "Chances", fair, "every message is as likely as any other.", strings.ToLower(bad[:1])+bad[1:], nil, "")
	return out
}
