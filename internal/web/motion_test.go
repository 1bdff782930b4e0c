package web_test

import (
	"bufio"
	"context"
	"fmt"
	"math"
	"net/http"
	"strings"
	"testing"
	"time"

	"tussock/internal/motion"
	"tussock/internal/motion/glide"
	"tussock/internal/motion/reveal/tellers"
	"tussock/internal/web/builds"
	"tussock/internal/web/motions"
)

const level = `"conditions":{}`

func predicted(c client, pattern, knobs, how string) motions.PredictionView {
	c.t.Helper()
	return ask[motions.PredictionView](c, "POST", "/patterns/"+pattern+"/prediction", `{"sheet":`+a4Sheet+`,"knobs":{`+knobs+`},`+how+`}`)
}

// A flight has numbers with bands, a path that starts in the hand and ends on the
// floor, and a band around it; curl changes it, and so does the throw.
func TestFlightOfASetUp(t *testing.T) {
	c := serve(t, false)
	v := predicted(c, "curlew", `"curl":4`, level)
	if !v.Works || len(v.Readings) < 14 || v.Mode == "" || v.ModeWords == "" {
		t.Fatalf("%+v", v)
	}
	first, last := drawn[glide.FlightDrawing](t, v.Drawing, "flight").Path[0], drawn[glide.FlightDrawing](t, v.Drawing, "flight").Path[len(drawn[glide.FlightDrawing](t, v.Drawing, "flight").Path)-1]
	if first.X != 0 || first.Z != 1.6 || last.Z > 0.2 || math.Abs(last.X-drawn[glide.FlightDrawing](t, v.Drawing, "flight").Middle.DistanceM) > 0.1 {
		t.Errorf("from %+v to %+v, %v m", first, last, drawn[glide.FlightDrawing](t, v.Drawing, "flight").Middle.DistanceM)
	}
	if d := v.Outcomes[0]; d.ID != "distance" || d.Lo > d.Middle || d.Middle > d.Hi || len(drawn[glide.FlightDrawing](t, v.Drawing, "flight").Band) < 5 {
		t.Errorf("%+v", d)
	}
	share := 0.0
	for _, m := range v.Modes {
		share += m.Share
	}
	if math.Abs(share-1) > 1e-9 {
		t.Errorf("shares of modes sum to %v", share)
	}
	if less := predicted(c, "curlew", `"curl":0`, level); drawn[glide.FlightDrawing](t, less.Drawing, "flight").Middle.DistanceM >= drawn[glide.FlightDrawing](t, v.Drawing, "flight").Middle.DistanceM {
		t.Errorf("without curl %v m, with %v", drawn[glide.FlightDrawing](t, less.Drawing, "flight").Middle.DistanceM, drawn[glide.FlightDrawing](t, v.Drawing, "flight").Middle.DistanceM)
	}
	rope := predicted(c, "curlew", `"curl":4`, strings.Replace(level, `{}`, `{"hall.length":5,"hall.rope_at":2,"hall.rope":1},"ghosts":[{"name":"before","knobs":{"curl":0}}]`, 1))
	if f := drawn[glide.FlightDrawing](t, rope.Drawing, "flight"); f.End != "wall" || f.RopeOverM == nil || len(f.Ghosts) != 1 || f.Ghosts[0].Name != "before" || len(f.Ghosts[0].Path) < 5 {
		t.Errorf("%s %v %d ghosts", f.End, f.RopeOverM, len(f.Ghosts))
	}
	other := ask[motions.PredictionView](c, "POST", "/patterns/fortune/prediction", `{"sheet":{"width":150,"height":150,"unit":"mm","gsm":80,"thickness_mm":0.1},`+level+`}`)
	if !other.Works || len(other.Readings) < 5 || len(drawn[tellers.TellerDrawing](t, other.Drawing, "teller").Opens) != 2 {
		t.Errorf("a fortune teller: %+v", other.Mode)
	}
}

// What cannot be is refused with field, value and fix.
func TestFlightRefusals(t *testing.T) {
	c := serve(t, false)
	sheet := `{"sheet":` + a4Sheet + `,`
	refused(c, "POST", "/patterns/curlew/prediction", sheet+strings.Replace(level, `{}`, `{"throw.speed":90}`, 1)+`}`, "throw.speed", "30")
	refused(c, "POST", "/patterns/curlew/prediction", sheet+strings.Replace(level, `{}`, `{"hall.ceiling":1.5}`, 1)+`}`, "throw.height", "ceiling")
	refused(c, "POST", "/patterns/curlew/prediction", sheet+strings.Replace(level, `{}`, `{"tide":1}`, 1)+`}`, "tide", "no such condition")
	refused(c, "POST", "/patterns/curlew/prediction", sheet+strings.Replace(level, `{}`, `{"hand":0.5}`, 1)+`}`, "hand", "one of the choices")
	refused(c, "POST", "/patterns/curlew/prediction", sheet+`"knobs":{"nose":60},`+level+`}`, "knobs", "step 2")
	refused(c, "POST", "/patterns/curlew/sweep", sheet+level+`,"lever":"rudders"}`, "lever", "no knob")
	refused(c, "POST", "/patterns/curlew/sweep", sheet+level+`,"lever":"curl","second":"curl"}`, "second", "two different")
	refused(c, "POST", "/patterns/curlew/measured", sheet+`"knobs":{},"measured":{"left_v":10}}`, "right_v", "both sides")
	refused(c, "POST", "/patterns/curlew/measured", sheet+`"knobs":{},"measured":{"left_lip":12,"right_lip":1}}`, "left_lip", "under the depth")
	refused(c, "POST", "/patterns/curlew/measured", sheet+`"knobs":{},"measured":{"left_v":100,"right_v":1}}`, "left_v", "−60 to 80°")
	refused(c, "POST", "/patterns/fortune/measured", `{"sheet":{"width":150,"height":150,"unit":"mm","gsm":80,"thickness_mm":0.1},"measured":{"left_v":1}}`, "left_v", "not measured")
}

// Measured sides become knobs: the mean, and what the right has more.
func TestMeasuredBends(t *testing.T) {
	c := serve(t, false)
	k := ask[map[string]float64](c, "POST", "/patterns/curlew/measured", `{"sheet":`+a4Sheet+`,"knobs":{},"measured":{"left_v":8,"right_v":12,"left_lip":0.5,"right_lip":1}}`)
	if k["wing"] != 80 || k["wing_uneven"] != 4 {
		t.Errorf("V: %v, %v", k["wing"], k["wing_uneven"])
	}
	left, right := math.Asin(0.05)*180/math.Pi, math.Asin(0.1)*180/math.Pi
	if math.Abs(k["curl"]-(left+right)/2) > 1e-9 || math.Abs(k["curl_uneven"]-(right-left)) > 1e-9 {
		t.Errorf("curl: %v, %v", k["curl"], k["curl_uneven"])
	}
}

// What matters: the curl is among the first, bars agree with throwing it so.
func TestSensitivityAndSweep(t *testing.T) {
	if testing.Short() {
		t.Skip("nothing here runs side by side: races have nothing to find")
	}
	c := serve(t, false)
	body := `{"sheet":` + a4Sheet + `,"knobs":{"curl":3},` + level
	v := ask[motions.SensitivityView](c, "POST", "/patterns/curlew/sensitivity", body+`}`)
	at := -1
	for i, e := range v.Effects {
		if e.Lever.Name == "curl" {
			at = i
			more := ask[motions.SensitivityView](c, "POST", "/patterns/curlew/sensitivity", strings.Replace(body, `"curl":3`, `"curl":4`, 1)+`}`)
			if d := more.Now["distance"] - v.Now["distance"]; math.Abs(d-e.Up["distance"]) > 1e-9 {
				t.Errorf("a degree more: %v m, the bar says %v", d, e.Up["distance"])
			}
		}
	}
	if at < 0 || at > 4 {
		t.Errorf("the curl is number %d of %d", at+1, len(v.Effects))
	}
	s := ask[motions.SweepView](c, "POST", "/patterns/curlew/sweep", body+`,"lever":"curl"}`)
	if len(s.Points) != 33 || s.Points[0].At != s.Lever.Min || s.Points[32].At != s.Lever.Max {
		t.Errorf("%d points", len(s.Points))
	}
	pair := ask[motions.SweepView](c, "POST", "/patterns/curlew/sweep", body+`,"lever":"curl","second":"throw.angle"}`)
	if pair.Second == nil || len(pair.Points) != 121 {
		t.Errorf("%d points of a pair", len(pair.Points))
	}
}

// A search tells its progress, and ends with a set-up that is predicted to be better;
// called off, it stops.
func TestSearchIsStreamed(t *testing.T) {
	c := serve(t, false)
	body := `{"sheet":` + a4Sheet + `,"knobs":{"curl":0},` + level + `,"aim":"farthest","levers":[{"name":"curl"},{"name":"throw.angle","min":-10,"max":10}]}`
	stream := func(ctx context.Context, on func(event, data string) bool) {
		req, err := http.NewRequestWithContext(ctx, http.MethodPost, c.url+"/api/v1/patterns/curlew/optimise", strings.NewReader(body))
		if err != nil {
			t.Fatal(err)
		}
		req.Header.Set("Content-Type", "application/json")
		res, err := http.DefaultClient.Do(req)
		if err != nil {
			t.Fatal(err)
		}
		defer func() { _ = res.Body.Close() }()
		lines := bufio.NewScanner(res.Body)
		event := ""
		for lines.Scan() {
			if name, ok := strings.CutPrefix(lines.Text(), "event: "); ok {
				event = name
			}
			if data, ok := strings.CutPrefix(lines.Text(), "data: "); ok && !on(event, data) {
				return
			}
		}
	}
	progress, done := 0, ""
	stream(t.Context(), func(event, data string) bool {
		if event == "progress" {
			progress++
		}
		if event == "done" {
			done = data
		}
		return true
	})
	if progress < 10 || !strings.Contains(done, `"changes":[{`) || !strings.Contains(done, `"name":"curl"`) {
		t.Errorf("%d reports, then %.200s", progress, done)
	}
	body = strings.Replace(body, `"min":-10,"max":10`, `"min":10,"max":-10`, 1)
	stream(t.Context(), func(event, data string) bool {
		if event != "failed" || !strings.Contains(data, "may go from -20 to 40") {
			t.Errorf("bounds the wrong way round: %s %s", event, data)
		}
		return true
	})
	body = strings.Replace(body, `"min":10,"max":-10`, `"min":-10,"max":10`, 1)
	body = strings.Replace(body, "farthest", "highest", 1)
	stream(t.Context(), func(event, data string) bool {
		if event != "failed" || !strings.Contains(data, "not tuned for highest") {
			t.Errorf("an aim of another way of moving: %s %s", event, data)
		}
		return true
	})
	body = strings.Replace(body, "highest", "farthest", 1)
	ctx, cancel := context.WithCancel(t.Context())
	began := time.Now()
	stream(ctx, func(string, string) bool { cancel(); return false })
	if time.Since(began) > 2*time.Second {
		t.Error("a search that is called off goes on")
	}
}

// The whole loop over the API: three dives, advice taken as a tweak, better throws, keep.
func TestClinicLoop(t *testing.T) {
	if testing.Short() {
		t.Skip("nothing here runs side by side: races have nothing to find")
	}
	c := serve(t, false)
	ask[builds.BuildView](c, "POST", "/builds", `{"pattern":"curlew","sheet":`+a4Sheet+`}`)
	ask[builds.BuildView](c, "PATCH", "/builds/1/draft", `{"sheet":`+a4Sheet+`,"knobs":{"curl":0}}`)
	clinic := func() motions.ClinicView {
		return ask[motions.ClinicView](c, "POST", "/builds/1/clinic", `{`+level+`}`)
	}
	if v := clinic(); v.Finding.Remedy != nil || v.Finding.Wants != 3 {
		t.Errorf("before any throw: %+v", v.Finding)
	}
	for _, d := range []float64{4.1, 4.4, 4.0} {
		ask[builds.LoggedView](c, "POST", "/builds/1/trials", fmt.Sprintf(`{"read":{"distance":%v,"aside":-0.3},"seen":["dived"]}`, d))
	}
	v := clinic()
	r := v.Finding.Remedy
	if r == nil || len(r.Changes) != 1 || r.Changes[0].Knob != "curl" || r.Changes[0].To <= 0 || r.After.Middle <= r.Now.Middle || v.Kept != nil {
		t.Fatalf("%+v", v.Finding)
	}
	if f := drawn[glide.TurnTold](t, v.Told, "turn"); f.TurnN != 3 || f.TurnDeg >= 0 || len(f.Turn) < 3 {
		t.Errorf("turn %v from %d throws, %d causes", f.TurnDeg, f.TurnN, len(f.Turn))
	}
	ask[builds.BuildView](c, "PATCH", "/builds/1/draft", fmt.Sprintf(`{"sheet":%s,"knobs":{"curl":%v}}`, a4Sheet, r.Changes[0].To))
	ask[builds.BuildView](c, "POST", "/builds/1/tweaks", `{"why":"It dives."}`)
	if v := clinic(); v.Kept == nil || v.Kept.Advice != "try more" || v.Kept.More != 3 {
		t.Errorf("%+v", v.Kept)
	}
	for _, d := range []float64{6.8, 7.1, 6.5, 7.0} {
		ask[builds.LoggedView](c, "POST", "/builds/1/trials", fmt.Sprintf(`{"read":{"distance":%v},"seen":["glided"]}`, d))
	}
	v = clinic()
	if v.Kept == nil || v.Kept.Advice != "keep" || v.Kept.Shift < 2 || v.Kept.Symptom == nil || v.Kept.Symptom.After != 0 {
		t.Errorf("%+v", v.Kept)
	}
	if v.Finding.Remedy != nil {
		t.Errorf("there is still something to cure: %+v", v.Finding)
	}
}

// The card of angles is a PDF; the list of what is not known has sources.
func TestAngleCardAndNotKnown(t *testing.T) {
	c := serve(t, false)
	status, body := c.send("GET", "/moves/fly/card?page=letter&units=in&depth_mm=12", "")
	if status != 200 || !strings.HasPrefix(string(body), "%PDF") {
		t.Errorf("status %d, %.20s", status, body)
	}
	for _, v := range ask[[]motion.Way](c, "GET", "/moves", "") {
		if len(v.Constants) < 5 || len(v.Limits) < 5 || v.Words.Do == "" || len(v.Kinds) == 0 {
			t.Errorf("%s: %d constants, %d limits", v.Name, len(v.Constants), len(v.Limits))
		}
		for _, k := range v.Constants {
			if k.Source == "" || k.Effect == "" || k.Confidence == "" {
				t.Errorf("%+v", k)
			}
		}
	}
}
