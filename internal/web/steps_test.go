package web_test

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"tussock/internal/web/folding"
)

// A knob's reach follows the sheet and the other knobs, and says what ends it.
func TestReachOfKnobs(t *testing.T) {
	c := serve(t, false)
	reach := func(sheet, knobs string) map[string]folding.ReachView {
		out := map[string]folding.ReachView{}
		for _, r := range ask[[]folding.ReachView](c, "POST", "/patterns/curlew/reach", `{"sheet":`+sheet+`,"knobs":`+knobs+`}`) {
			out[r.Knob] = r
		}
		return out
	}
	own := reach(a4Sheet, `{}`)
	nose := own["nose"]
	if nose.Max < 45 || nose.Max > 60 || nose.Below != nil || nose.Above == nil || nose.Above.Step == 0 || nose.Above.Why == "" || nose.Above.At <= nose.Max {
		t.Errorf("nose: %+v", nose)
	}
	if e := own["depth"].Below; e == nil || e.Other != "Nose width, each side" || e.Unit != "mm" || e.To <= 0 || e.To > 80 {
		t.Errorf("depth needs another knob: %+v", own["depth"])
	}
	if small := reach(`{"width":150,"height":212,"unit":"mm","gsm":80,"thickness_mm":0.1}`, `{}`)["nose"]; small.Max >= nose.Max-5 || small.Max < 20 {
		t.Errorf("on a smaller sheet %+v", small)
	}
	if blunt := reach(a4Sheet, `{"nose":20}`)["depth"]; blunt.Min >= own["depth"].Min {
		t.Errorf("with a blunt nose %+v, without %+v", blunt, own["depth"])
	}
	refused(c, "POST", "/patterns/curlew/reach", `{"sheet":`+a4Sheet+`,"knobs":{"tail":3}}`, "tail")
}

// Care, looks and slips follow the sheet and the knobs that they are asked for.
// Long because all its questions are asked of one build.
func TestCareLooksAndSlips(t *testing.T) {
	c := serve(t, false)
	body := `{"sheet":` + a4Sheet + `}`
	care := ask[[]folding.CareView](c, "POST", "/patterns/curlew/care", body)
	if len(care) != 10 {
		t.Fatalf("%d steps", len(care))
	}
	share := 0.0
	classes := map[string]int{}
	for _, s := range care {
		share += s.Share
		classes[s.Class]++
		if s.Made && (s.Tool == "" || s.PerMM > 0 && s.Worst == "") {
			t.Errorf("step %d: %+v", s.No, s)
		}
	}
	if math.Abs(share-1) > 1e-6 || len(classes) < 2 {
		t.Errorf("shares %v, classes %v", share, classes)
	}
	thick := ask[[]folding.CareView](c, "POST", "/patterns/curlew/care", strings.Replace(body, `"thickness_mm":0.1`, `"thickness_mm":0.3`, 1))
	if thick[4].StackMM <= care[4].StackMM || thick[6].Tool == care[6].Tool {
		t.Errorf("thicker paper: %+v and %+v", thick[6], care[6])
	}

	look := ask[folding.LookView](c, "POST", "/patterns/curlew/steps/5/look", body)
	kinds := map[string]bool{}
	for _, m := range look.Mistakes {
		kinds[m.Kind] = true
		if len(m.Picture.Faces) == 0 || m.Words == "" || m.Cure == "" {
			t.Errorf("%s: no picture or words", m.Kind)
		}
	}
	if !kinds["past"] || !kinds["short"] || len(look.Map.Picture.Faces) == 0 {
		t.Errorf("%v", kinds)
	}

	// The top left corner, pointed at on the flat sheet and where it lies after step 2:
	// the same point, and it has not moved since.
	flat := ask[folding.WhenceView](c, "POST", "/patterns/curlew/whence?step=0&x=2&y=-295", body)
	if flat.Words != "the top left corner" || flat.Sheet != [2]float64{0, -297} || len(flat.Steps) != 10 {
		t.Fatalf("%+v", flat)
	}
	p := flat.Steps[1].At
	again := ask[folding.WhenceView](c, "POST", fmt.Sprintf("/patterns/curlew/whence?step=2&x=%v&y=%v", p[0]-1, p[1]-1), body)
	if again.Words != flat.Words || *again.Steps[9].At != *flat.Steps[9].At {
		t.Errorf("%+v", again)
	}
	if w := ask[folding.WhenceView](c, "POST", "/patterns/curlew/whence?step=0&x=60&y=-100", body); w.Words != "60 mm from the left, 100 mm from below" {
		t.Errorf("%+v", w)
	}
	refused(c, "POST", "/patterns/curlew/whence?step=0&x=-50&y=-100", body, "no paper at this spot")
	refused(c, "POST", "/patterns/curlew/whence?step=11&x=5&y=-10", body, "has 10 steps")

	small := ask[folding.SlipView](c, "POST", "/patterns/curlew/steps/2/slip?past_mm=0.2", body)
	large := ask[folding.SlipView](c, "POST", "/patterns/curlew/steps/2/slip?past_mm=8", body)
	if small.Verdict != "accept" || large.Verdict == "accept" || math.Abs(large.RMSMM-40*small.RMSMM) > 1e-6 || len(large.Moved) == 0 {
		t.Errorf("%s (%v), %s (%v)", small.Verdict, small.RMSMM, large.Verdict, large.RMSMM)
	}
	if len(large.Rest) == 0 || large.Rest[0].No != 2 || large.Stops == "" && large.Rest[len(large.Rest)-1].No != 10 {
		t.Errorf("%d steps after it, %q", len(large.Rest), large.Stops)
	}
	for _, r := range large.Remedies {
		if r.Step <= 2 || r.LeftMM >= large.RMSMM {
			t.Errorf("%+v", r)
		}
	}
	// Measured at a landmark instead: the slip that puts it there.
	name, mm := large.Moved[0].Name, large.Moved[0].MM
	if v := ask[folding.SlipView](c, "POST", fmt.Sprintf("/patterns/curlew/steps/2/slip?landmark=%s&off_mm=%v", name, mm), body); math.Abs(v.PastMM-8) > 1e-6 {
		t.Errorf("%s %v mm off comes from a slip of %v mm", name, mm, v.PastMM)
	}
	refused(c, "POST", "/patterns/curlew/steps/2/slip?landmark=nowhere&off_mm=2", body, "does not move this landmark")
	refused(c, "POST", "/patterns/curlew/steps/2/slip?landmark="+name+"&off_mm=-2", body, "0 to 40 mm")
	refused(c, "POST", "/patterns/curlew/steps/2/slip?past_mm=50", body, "−20 to 20 mm")
	refused(c, "POST", "/patterns/curlew/steps/8/slip?past_mm=1", body, "nothing is creased by hand")
	refused(c, "POST", "/patterns/curlew/steps/77/slip?past_mm=1", body, "has 10 steps")
	refused(c, "POST", "/patterns/curlew/steps/77/look", body, "has 10 steps")
	refused(c, "POST", "/patterns/curlew/care?hand=giant", body, "hand")
	refused(c, "POST", "/patterns/shelduck/care", `{"sheet":{"width":150,"height":150,"unit":"mm","gsm":80,"thickness_mm":0.1}}`, "1.2 and 1.6 times")

	// The picture turned by away_deg shows the flap going up.
	r := ask[folding.ReplayView](c, "POST", "/patterns/curlew/replay", body)
	if a := r.Steps[0].AwayDeg; math.Abs(math.Abs(a)-90) > 0.01 {
		t.Errorf("side to side is turned by %v", a)
	}
	if r.Steps[7].AwayDeg != 0 {
		t.Error("turning over is turned")
	}
}

// A motion comes as pictures from before to after, from any side; a fold rises between.
func TestMotionFrames(t *testing.T) {
	c := serve(t, false)
	body := `{"sheet":` + a4Sheet + `}`
	m := ask[folding.MotionView](c, "POST", "/patterns/curlew/steps/2/motion", body)
	if !m.Shown || len(m.Frames) < 20 || m.TornMM > 0.01 {
		t.Fatalf("%v, %d frames, torn %v", m.Shown, len(m.Frames), m.TornMM)
	}
	for _, f := range m.Frames {
		v := f.View
		if len(f.Faces) == 0 || v[0] < m.View[0]-0.02 || v[1] < m.View[1]-0.02 || v[0]+v[2] > m.View[0]+m.View[2]+0.02 || v[1]+v[3] > m.View[1]+m.View[3]+0.02 {
			t.Errorf("%v lies outside of %v", v, m.View)
		}
	}
	under := ask[folding.MotionView](c, "POST", "/patterns/curlew/steps/2/motion?elevation=-60", body)
	if under.Frames[0].Faces[0].Front == m.Frames[0].Faces[0].Front {
		t.Error("from underneath the same face shows")
	}
	refused(c, "POST", "/patterns/curlew/steps/2/motion?elevation=95", body, "elevation")
	refused(c, "POST", "/patterns/curlew/steps/44/motion", body, "has 10 steps")
}
