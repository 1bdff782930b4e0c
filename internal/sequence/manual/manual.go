// Package manual is the reference of the pattern language for people.
package manual

import (
	"fmt"
	"strings"

	"tussock/internal/sequence/lang"
)

var groups = []struct{ id, title string }{
	{"head", "The head of a pattern"},
	{"number", "Numbers"},
	{"place", "Places"},
	{"line", "Lines"},
	{"fold", "Placing a crease"},
	{"step", "Steps"},
	{"flag", "What may follow a step"},
	{"check", "Checks and words for people"},
}

// Text is the reference of the language for people, written from its entries.
func Text(l *lang.Language) string {
	var b strings.Builder
	b.WriteString("<!-- Written by `make words` from internal/sequence/manual/reference.go; every example is folded by a test. -->\n")
	for _, g := range groups {
		fmt.Fprintf(&b, "\n## %s\n", g.title)
		for _, e := range Reference(l) {
			if e.Group != g.id {
				continue
			}
			fmt.Fprintf(&b, "\n### %s\n\n`%s`\n\n%s\n", e.Word, e.Syntax, e.Meaning)
			if len(e.IDs) > 0 {
				fmt.Fprintf(&b, "\nFor %s.\n", strings.Join(e.IDs, ", "))
			}
			fmt.Fprintf(&b, "\n```\n%s\n```\n", e.Example)
		}
	}
	b.WriteString("\n## Bases\n\nMacros of every pattern, and the names that they leave behind:\n\n")
	for _, n := range lang.Bases() {
		names := lang.BaseNames(n)
		words := "no names"
		if len(names) > 0 {
			words = "`" + strings.Join(names, "`, `") + "`"
		}
		fmt.Fprintf(&b, "- `use %s`: %s\n", n, words)
	}
	return b.String()
}
