package web_test

import (
	"math"
	"strings"
	"testing"

	"tussock/internal/web/folding"
)

func TestStudiesAreListed(t *testing.T) {
	c := serve(t, false)
	cards := ask[[]folding.StudyCard](c, "GET", "/studies", "")
	if len(cards) < 12 {
		t.Fatalf("%d studies", len(cards))
	}
	for _, s := range cards {
		if s.Title == "" || s.Good == "" || s.Steps == 0 || s.Picture == nil || len(s.Picture.Faces) == 0 {
			t.Errorf("the card of %s is %+v", s.ID, s)
		}
	}
}

// A study agrees with itself: shares add up, the map has the folds of the toy,
// what shows is the outline's area, and the hand changes the figures.
func TestStudyView(t *testing.T) {
	c := serve(t, false)
	v := ask[folding.StudyView](c, "GET", "/studies/flapper", "")
	if !v.Replay.OK || len(v.Replay.Steps) != 18 || v.Spread == nil || len(v.Map.Over.Strokes) == 0 || len(v.XRay.Strokes) == 0 || len(v.Outline) == 0 {
		t.Fatalf("the study lacks something: %+v", v.Replay.Error)
	}
	var sum float64
	for _, s := range v.Spread.Steps {
		sum += s.Share
		if s.PerMM > 0 && s.Worst == "" {
			t.Errorf("step %d moves nothing by %v mm", s.Step, s.PerMM)
		}
	}
	if math.Abs(sum-1) > 1e-9 {
		t.Errorf("shares add up to %v", sum)
	}
	seen := v.Above.FrontMM2 + v.Above.BackMM2
	var area float64
	for _, rim := range v.Outline {
		n := len(rim) / 2
		for i := range n {
			j := (i + 1) % n
			area += (rim[2*i]*rim[2*j+1] - rim[2*j]*rim[2*i+1]) / 2
		}
	}
	if math.Abs(math.Abs(area)-seen) > 0.1 {
		t.Errorf("what shows is %v mm², the outline holds %v", seen, area)
	}
	if last := v.Replay.Steps[17]; math.Abs(last.AreaMM2-seen) > 1e-6 {
		t.Errorf("the last step covers %v mm², %v shows", last.AreaMM2, seen)
	}
	child := ask[folding.StudyView](c, "GET", "/studies/flapper?hand=child", "")
	if r := child.Spread.CoMMM[0] / v.Spread.CoMMM[0]; math.Abs(r-0.8/0.3) > 1e-6 {
		t.Errorf("a child's hand scatters %v times as far", r)
	}
	if len(v.Ratio) != 2 || v.Ratio[0] > 1 || v.Ratio[1] < 1 || v.Ratio[1]-v.Ratio[0] > 0.1 {
		t.Errorf("a bird folds at ratios %v", v.Ratio)
	}
	glider := ask[folding.StudyView](c, "GET", "/studies/curlew", "")
	if glider.Replay.Title != "Curlew" || glider.Ratio[1] < 1.5 {
		t.Errorf("a pattern of the shelf is studied as %q, ratios %v", glider.Replay.Title, glider.Ratio)
	}
	steps := map[string]bool{}
	for _, s := range v.Replay.Steps {
		steps[s.Title] = true
	}
	for _, want := range []string{"petal fold", "inside reverse fold", "collapse", "turn over"} {
		if !steps[want] {
			t.Errorf("no step is called %q: %v", want, steps)
		}
	}
}

func TestStudyRefusals(t *testing.T) {
	c := serve(t, false)
	for path, want := range map[string]string{
		"/studies/heron": "there is no study", "/studies/flapper?hand=giant": "hand", "/studies/" + strings.Repeat("x", 90): "id",
	} {
		status, body := c.send("GET", path, "")
		if status < 400 || status >= 500 || !strings.Contains(string(body), want) {
			t.Errorf("%s: %d %s", path, status, body)
		}
	}
}
