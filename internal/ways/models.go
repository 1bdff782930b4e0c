package ways

import (
	"fmt"
	"strings"

	"tussock/internal/say"
)

// ModelsText is what the models rest on, as a Markdown text: of every way of moving that
// is predicted its accuracy, its constants with range, confidence, source and effect, and
// where it ends.
func ModelsText() string {
	var b strings.Builder
	plain := func(s string) string { return strings.ReplaceAll(say.In(say.Metric, s), "|", "\\|") }
	number := func(v float64, unit string) string {
		return strings.NewReplacer(" deg", "°", " °", "°").Replace(strings.TrimSpace(say.Decimal(v, 3) + " " + unit))
	}
	for _, w := range All() {
		if !w.Predicts {
			continue
		}
		fmt.Fprintf(&b, "\n### %s\n\nPredictions hold %s.\n\n| Constant | Taken | Range | Confidence | Source | Over its range |\n|---|---|---|---|---|---|\n", w.Words.Title, plain(w.Accuracy))
		for _, c := range w.Constants {
			fmt.Fprintf(&b, "| %s | %s | %s to %s | %s | %s | %s |\n", plain(c.Name), number(c.Value, c.Unit), say.Decimal(c.Lo, 3), say.Decimal(c.Hi, 3), c.Confidence, plain(c.Source), plain(c.Effect))
		}
		b.WriteString("\nWhere it ends:\n\n")
		for _, l := range w.Limits {
			fmt.Fprintf(&b, "- %s\n", plain(l))
		}
	}
	return b.String()
}
