package remarks_test

import (
	"strings"
	"testing"

	"tussock/internal/sequence/remarks"
	"tussock/internal/ways"
)

// Sides in a sentence are those of the picture, after every turn; a mark that is spoken of
// was made.
func TestSidesAndMarksInSentences(t *testing.T) {
	for _, c := range []struct {
		text string
		want []string
	}{
		{"valley bring L to C as a\n say \"Bring the left edge to the middle.\"\n", nil},
		{"turn lr\n say \"Turn over.\"\nvalley bring L to C as a\n say \"Bring the left edge to the middle.\"\n", []string{"step 2 says left", "on the right", "write right"}},
		{"turn lr\n say \"Turn over.\"\nvalley bring L to C as a\n say \"Bring the right edge to the middle.\"\n", nil},
		{"rotate 180\n say \"Turn it half round.\"\nvalley bring T to C as a\n say \"Bring the top edge down.\"\n", []string{"step 2 says top", "at the bottom", "write bottom"}},
		{"valley bring TL to right through TR near BR as a\n say \"Fold the top edge down to the right edge.\"\n", nil},
		{"valley bring T to C as a\n say \"Bring the top edge to the mark.\"\n", []string{"speaks of a mark", "pinch or crease one first"}},
		{"crease bring left to right as k\n say \"Halve it, and open.\"\nvalley bring T to C as a\n say \"Bring the top edge to the mark.\"\n", nil},
	} {
		p, err := ways.Parse("t", "sheet square 100\nmoves reveal\nrequire ratio between 0.999 and 1.001\n"+strings.ReplaceAll(c.text, "\n say", "\n  say"))
		if err != nil {
			t.Fatal(err)
		}
		var found []string
		for _, f := range remarks.Lint(p) {
			if f.Kind == "words" {
				found = append(found, f.Text)
			}
		}
		all := strings.Join(found, "; ")
		if (len(found) == 0) != (c.want == nil) {
			t.Errorf("%q: %q", c.text, all)
		}
		for _, w := range c.want {
			if !strings.Contains(all, w) {
				t.Errorf("%q: %q lacks %q", c.text, all, w)
			}
		}
	}
}
