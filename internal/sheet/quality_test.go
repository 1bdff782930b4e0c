package sheet_test

import (
	"math"
	"strings"
	"testing"

	"tussock/internal/sheet"
	"tussock/internal/ways"
)

func TestWeightAndThicknessFromAPile(t *testing.T) {
	// Ten A4 sheets of 80 g/m² weigh 49.9 g; a ream of 500 is 52 mm high.
	w, err := sheet.Weighed(49.896, 10, 210, 297)
	if err != nil {
		t.Fatal(err)
	}
	close(t, "weight", w.Value, 80, 0.001)
	one, _ := sheet.Weighed(4.99, 1, 210, 297)
	close(t, "ten sheets are ten times as sure as one", one.By/w.By, 10, 1e-9)
	p, err := sheet.Piled(52, 500)
	if err != nil {
		t.Fatal(err)
	}
	close(t, "thickness", p.Value, 0.104, 1e-9)
	for _, c := range []struct {
		err  error
		says string
	}{
		{second(sheet.Weighed(-3, 1, 210, 297)), "more than 0 g"},
		{second(sheet.Weighed(math.NaN(), 1, 210, 297)), "more than 0 g"},
		{second(sheet.Weighed(5, 0, 210, 297)), "1 to 10000 sheets"},
		{second(sheet.Weighed(500, 1, 210, 297)), "that would be 8017 g/m²"},
		{second(sheet.Piled(-1, 10)), "0.01 to 2 mm"},
		{second(sheet.Piled(10, -4)), "1 to 10000 sheets"},
	} {
		if c.err == nil || !strings.Contains(c.err.Error(), c.says) {
			t.Errorf("%v does not say %q", c.err, c.says)
		}
	}
	if sheet.DensityOdd(80, 0.104) || !sheet.DensityOdd(80, 0.3) || !sheet.DensityOdd(80, 0.05) {
		t.Error("density")
	}
}

func second(_ sheet.Reading, err error) error { return err }

// The published stiffness of ordinary papers, 1e-4 N·m, from thickness alone.
func TestBendingStiffness(t *testing.T) {
	for mm, want := range map[float64]float64{0.078: 1.27, 0.080: 1.37, 0.090: 1.94, 0.104: 3.00, 0.115: 4.06, 0.150: 9.00, 0.195: 19.8} {
		close(t, "stiffness", sheet.Bending(sheet.Ordinary, mm)*1e4, want, 0.005*want+0.005)
	}
	close(t, "twice as thick is eight times as stiff", sheet.Bending(sheet.Crisp, 0.2)/sheet.Bending(sheet.Crisp, 0.1), 8, 1e-9)
	if !(sheet.Bending(sheet.Soft, 0.1) < sheet.Bending(sheet.Ordinary, 0.1) && sheet.Bending(sheet.Ordinary, 0.1) < sheet.Bending(sheet.Crisp, 0.1)) {
		t.Error("classes are not in order")
	}
}

// A paper gets worse, never better, as it leaves the middle, and the reason names
// what decides.
func TestSuitability(t *testing.T) {
	rank := map[sheet.Verdict]int{sheet.Good: 0, sheet.Fair: 1, sheet.Poor: 2}
	for _, moves := range ways.All() {
		worst := 0
		for n := 1; n <= 64; n *= 2 {
			v := rank[sheet.SuitsFor(moves.Paper, 70, 0.085, sheet.Ordinary, "Curlew", n).Verdict]
			if v < worst {
				t.Errorf("%s: more layers make it better", moves.Name)
			}
			worst = v
		}
		if worst != 2 {
			t.Errorf("%s: 64 layers are not too many", moves.Name)
		}
		for _, gsm := range []float64{20, 300} {
			s := sheet.SuitsFor(moves.Paper, gsm, sheet.UsualThickness(gsm), sheet.Ordinary, "Curlew", 4)
			if s.Verdict == sheet.Good || s.Why == "" {
				t.Errorf("%s on %v g/m²: %+v", moves.Name, gsm, s)
			}
		}
	}
	if s := sheet.SuitsFor(ways.Of("fly").Paper, 80, 0.1, sheet.Ordinary, "Shelduck", 24); s.Verdict != sheet.Fair || !strings.Contains(s.Why, "24 layers of it, the thickest stack of Shelduck, are ⟨2.4|mm|1⟩") {
		t.Errorf("%+v", s)
	}
	if s := sheet.SuitsFor(ways.Of("reveal").Paper, 80, 0.1, sheet.Ordinary, "Oracle", 8); s.Verdict != sheet.Good {
		t.Errorf("%+v", s)
	}
}
