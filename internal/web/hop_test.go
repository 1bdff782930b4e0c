package web_test

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"tussock/internal/motion"
	"tussock/internal/motion/hop"
	"tussock/internal/web/builds"
	"tussock/internal/web/motions"
)

const slip = `{"width":75,"height":150,"unit":"mm","gsm":70,"thickness_mm":0.09}`

func hopping(c client, knobs, conditions string) motions.PredictionView {
	c.t.Helper()
	return ask[motions.PredictionView](c, "POST", "/patterns/mudskipper/prediction", `{"sheet":`+slip+`,"knobs":{`+knobs+`},"conditions":{`+conditions+`}}`)
}

// A hop has numbers with bands, a push, an arc from the table and back, what touches the
// table, and checks; softer folds carry it higher, and its drawing is its own.
func TestHopOfASetUp(t *testing.T) {
	c := serve(t, false)
	v := hopping(c, "", "")
	d := drawn[hop.LeapDrawing](t, v.Drawing, "leap")
	if !v.Works || len(v.Readings) < 18 || len(v.Checks) < 4 || v.Own.Trials != 0 {
		t.Fatalf("%+v", v)
	}
	if first, last := d.Push[0], d.Push[len(d.Push)-1]; first.Open >= last.Open || last.T < 1e-3 || last.T > 0.03 {
		t.Errorf("the push goes from %+v to %+v", first, last)
	}
	if p := d.Path; p[0].Y <= 0 || math.Abs(p[len(p)-1].Y-p[0].Y) > 0.003 || p[len(p)-1].X <= p[0].X {
		t.Errorf("the arc goes from %+v to %+v", p[0], p[len(p)-1])
	}
	if len(d.Feet) < 6 || len(d.Hull) < 4 || len(d.Outline) == 0 || len(d.Band) < 5 {
		t.Errorf("%d feet, %d corners of them, %d outlines", len(d.Feet), len(d.Hull), len(d.Outline))
	}
	hard, soft := hopping(c, `"hip_radius":0.2,"catch_radius":0.2`, ""), hopping(c, `"hip_radius":2,"catch_radius":2`, "")
	if hard.Outcomes[1].Middle >= v.Outcomes[1].Middle || soft.Outcomes[1].Middle <= v.Outcomes[1].Middle {
		t.Errorf("heights %v, %v, %v", hard.Outcomes[1], v.Outcomes[1], soft.Outcomes[1])
	}
	if slick, cloth := hopping(c, "", `"surface":1`), hopping(c, "", `"surface":2`); slick.Outcomes[0].Middle >= cloth.Outcomes[0].Middle {
		t.Errorf("%v on glass, %v on cloth", slick.Outcomes[0], cloth.Outcomes[0])
	}
	refused(c, "POST", "/patterns/mudskipper/prediction", `{"sheet":`+slip+`,"conditions":{"rope":0.1}}`, "rope_at", "given too")
	refused(c, "POST", "/patterns/mudskipper/prediction", `{"sheet":`+slip+`,"conditions":{"drop":9}}`, "drop", "is 900 cm; it must be 5 to 150 cm")
	k := ask[map[string]float64](c, "POST", "/patterns/mudskipper/measured", `{"sheet":`+slip+`,"measured":{"opening":88,"overhang":-1}}`)
	if k["opening"] != 88 || k["last"] >= 0.53 || k["last"] < 0.5 {
		t.Errorf("%v", k)
	}
	refused(c, "POST", "/patterns/mudskipper/measured", `{"sheet":`+slip+`,"measured":{"overhang":15}}`, "overhang", "reach")
}

// hops logs hops of a build, each with its kind.
func hopsOf(c client, build int, kind, id string, v ...float64) {
	c.t.Helper()
	for _, x := range v {
		ask[builds.LoggedView](c, "POST", fmt.Sprintf("/builds/%d/trials", build), fmt.Sprintf(`{"kind":%q,"read":{%q:%v},"under":{"surface":"wood or laminate"}}`, kind, id, x))
	}
}

// Hops of every build are learnt from, until they are binned; the switch turns it off.
// Kinds are kept apart, and each refuses what is not its own.
func TestHopsAreLearntFrom(t *testing.T) {
	c := serve(t, false)
	ask[builds.BuildView](c, "POST", "/builds", `{"pattern":"mudskipper","sheet":`+slip+`}`)
	before := hopping(c, "", "")
	far := before.Outcomes[0].Middle
	hopsOf(c, 1, "distance", "distance", 2*far, 2.2*far, 1.9*far, 2.1*far)
	hopsOf(c, 1, "table", "dropped", 0.6, 0.7, 0.65)
	hopsOf(c, 1, "target", "miss", 0.05, 0.02)
	after := hopping(c, "", "")
	if after.Own.Trials != 4 || after.Own.Builds != 1 || after.Own.Factor <= 1.1 || after.Outcomes[0].Middle <= far {
		t.Errorf("%+v, %v after %v", after.Own, after.Outcomes[0], before.Outcomes[0])
	}
	if off := hopping(c, "", `"own":0`); off.Own.Trials != 0 || off.Outcomes[0].Middle != far {
		t.Errorf("switched off: %+v", off.Own)
	}
	b := ask[builds.BuildView](c, "GET", "/builds/1", "")
	s := b.Tweaks[0].Stats
	if s["distance"].N != 4 || s["dropped"].N != 3 || s["miss"].Best != 0.02 || b.Conditions.Kind != "target" {
		t.Errorf("%+v, %+v", s, b.Conditions)
	}
	refused(c, "POST", "/builds/1/trials", `{"kind":"juggling","read":{"distance":1}}`, "kind", "distance, height")
	refused(c, "POST", "/builds/1/trials", `{"read":{"time":1}}`, "time", "not measured of this toy")
	refused(c, "POST", "/builds/1/trials", `{"seen":["dived"]}`, "seen", "landed on its feet")
	for _, x := range b.Tweaks[0].Trials[:2] {
		ask[builds.BuildView](c, "DELETE", fmt.Sprintf("/trials/%d", x.ID), "")
	}
	if v := hopping(c, "", ""); v.Own.Trials != 0 {
		t.Errorf("two hops teach %+v", v.Own)
	}
}

// Sizes: builds of the pattern with what was logged of them, sizes to think of, and what
// follows. Schools: both ways with a plan, and what the log says.
func TestSizesAndSchools(t *testing.T) {
	if testing.Short() {
		t.Skip("nothing here runs side by side: races have nothing to find")
	}
	c := serve(t, false)
	small := strings.NewReplacer("75", "50", "150", "100").Replace(slip)
	ask[builds.BuildView](c, "POST", "/builds", `{"pattern":"mudskipper","sheet":`+slip+`,"name":"Big"}`)
	ask[builds.BuildView](c, "POST", "/builds", `{"pattern":"mudskipper","sheet":`+small+`,"name":"Small"}`)
	v := ask[motions.SizesView](c, "POST", "/builds/1/sizes", `{}`)
	if !strings.Contains(v.Advice, "Log at least three") || len(v.Sizes) < 4 {
		t.Errorf("%+v", v)
	}
	hopsOf(c, 1, "distance", "distance", 0.02, 0.025, 0.03, 0.02, 0.025)
	hopsOf(c, 2, "distance", "distance", 0.05, 0.055, 0.045, 0.05, 0.06)
	v = ask[motions.SizesView](c, "POST", "/builds/1/sizes", `{}`)
	if !strings.Contains(v.Advice, "comes to 2.0 times what Big does") || !strings.Contains(v.Advice, "The smaller one does better") {
		t.Errorf("%s", v.Advice)
	}
	last := 0.0
	for _, r := range v.Sizes {
		if r.WidthMM < last || r.LengthMM <= 0 || len(r.Outcomes) != 2 || (r.Measured != nil) != (r.Build != nil) || r.Here != (r.Build != nil && r.Build.Name == "Big") {
			t.Errorf("%+v", r)
		}
		last = r.WidthMM
	}
	schools := ask[[]motions.SchoolView](c, "POST", "/builds/1/schools", `{}`)
	if len(schools) != 2 || schools[0].ID != "D01" || schools[0].SideA.Outlook.Middle <= schools[0].SideB.Outlook.Middle || schools[0].Each < 3 || schools[0].Verdict != "" || schools[0].SideA.Tweak != 1 {
		t.Fatalf("%+v", schools)
	}
	ask[builds.BuildView](c, "PATCH", "/builds/1/draft", `{"sheet":`+slip+`,"knobs":{"hip_radius":0.3,"catch_radius":0.3}}`)
	hopsOf(c, 1, "distance", "distance", 0.01, 0.012)
	if s := ask[[]motions.SchoolView](c, "POST", "/builds/1/schools", `{}`)[0]; s.SideB.Tweak != 2 || !strings.Contains(s.Verdict, "Too few") {
		t.Errorf("%+v", s)
	}
	hopsOf(c, 1, "distance", "distance", 0.01, 0.011, 0.012)
	if s := ask[[]motions.SchoolView](c, "POST", "/builds/1/schools", `{}`)[0]; !strings.Contains(s.Verdict, "Your trials say: soft") || s.SideA.Stats.N != 5 || s.SideB.Stats.N != 5 {
		t.Errorf("%+v", s)
	}
	// Gliders have sizes too, and nothing that folders disagree on in knobs.
	ask[builds.BuildView](c, "POST", "/builds", `{"pattern":"curlew","sheet":`+a4Sheet+`}`)
	if g := ask[motions.SizesView](c, "POST", "/builds/3/sizes", `{}`); len(g.Sizes) < 3 || g.Sizes[0].Outcomes[0].ID != "distance" {
		t.Errorf("%+v", g)
	}
	if g := ask[[]motions.SchoolView](c, "POST", "/builds/3/schools", `{}`); len(g) != 0 {
		t.Errorf("%+v", g)
	}
}

// The clinic over the API: a caught finger, its remedy, and no finding from one hop.
func TestHopClinic(t *testing.T) {
	if testing.Short() {
		t.Skip("nothing here runs side by side: races have nothing to find")
	}
	c := serve(t, false)
	ask[builds.BuildView](c, "POST", "/builds", `{"pattern":"mudskipper","sheet":`+slip+`}`)
	ask[builds.BuildView](c, "PATCH", "/builds/1/draft", `{"sheet":`+slip+`,"knobs":{"last":0.47}}`)
	say := func() motion.Finding { return ask[motions.ClinicView](c, "POST", "/builds/1/clinic", `{}`).Finding }
	if f := say(); f.Wants != 3 || f.Remedy != nil {
		t.Errorf("%+v", f)
	}
	for i := range 3 {
		ask[builds.LoggedView](c, "POST", "/builds/1/trials", `{"kind":"distance","read":{"distance":0.01},"seen":["caught the finger"]}`)
		if f := say(); i == 0 && (f.Remedy != nil || f.Wants != 2) {
			t.Errorf("after one hop: %+v", f)
		}
	}
	f := say()
	if f.Remedy == nil || f.Confidence != motion.Likely || f.Remedy.Changes[0].Knob != "last" || f.Remedy.Changes[0].To <= 0.5 || f.Remedy.After.Middle <= f.Remedy.Now.Middle || f.Remedy.After.Unit != "cm" {
		t.Errorf("%+v", f)
	}
}
