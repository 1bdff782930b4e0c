package internal

import (
	"bytes"
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"
	"unicode"

	"tussock/internal/ways"
)

// How large rooms may grow. A function that is longer for a reason says so in its doc
// comment: "Long because …".
const (
	mostLines     = 3000 // of a package, without tests
	mostInOne     = 80   // of a function
	mostFileBytes = 1_000_000
)

// sources calls a function with every Go file of the house, as a path from its root.
func sources(t *testing.T, each func(path string, text []byte)) {
	t.Helper()
	for _, root := range []string{"internal", "cmd"} {
		err := filepath.WalkDir(filepath.Join("..", root), func(path string, d fs.DirEntry, err error) error {
			if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") {
				return err
			}
			text, err := os.ReadFile(path)
			if err == nil {
				each(filepath.ToSlash(strings.TrimPrefix(path, ".."+string(filepath.Separator))), text)
			}
			return err
		})
		if err != nil {
			t.Fatal(err)
		}
	}
}

func TestRoomsStaySmall(t *testing.T) {
	lines := map[string]int{}
	sources(t, func(path string, text []byte) {
		if !strings.HasSuffix(path, "_test.go") {
			lines[filepath.Dir(path)] += bytes.Count(text, []byte("\n"))
		}
		set := token.NewFileSet()
		file, err := parser.ParseFile(set, path, text, parser.ParseComments)
		if err != nil {
			t.Fatal(err)
		}
		for _, d := range file.Decls {
			f, ok := d.(*ast.FuncDecl)
			if !ok {
				continue
			}
			n := set.Position(f.End()).Line - set.Position(f.Pos()).Line + 1
			if n > mostInOne && !strings.Contains(f.Doc.Text(), "Long because") {
				t.Errorf("%s: %s has %d lines; break it up, or say in its comment: Long because …", path, f.Name.Name, n)
			}
		}
	})
	for dir, n := range lines {
		if n > mostLines {
			t.Errorf("%s has %d lines", dir, n)
		}
	}
}

// The core tells nothing of an API: no tags of its description, no routes.
func TestTheCoreKnowsNoAPI(t *testing.T) {
	tags := regexp.MustCompile("`[^`]*\\b(doc|enum|minimum|maximum|minLength|maxLength|maxItems):\"[^`]*`")
	sources(t, func(path string, text []byte) {
		if strings.HasPrefix(path, "internal/web/") || strings.HasSuffix(path, "_test.go") || strings.HasPrefix(path, "internal/e2e/") {
			return
		}
		if m := tags.Find(text); m != nil {
			t.Errorf("%s: %s belongs to web", path, m)
		}
		if strings.HasPrefix(path, "internal/") && bytes.Contains(text, []byte(`"/api/`)) {
			t.Errorf("%s names a route", path)
		}
	})
}

// allowed may name ways of moving: they themselves, the list of them, and what is made up
// of them for show. The rest of the house knows ways in general alone.
var allowed = regexp.MustCompile(`^(internal/(motion/(glide|hop|flap|spin|reveal|play)/|ways/|demo/|shelf/)|web/src/motions/[a-z]+/)`)

// everyday are words of the language of ways that are words of folding as well.
var everyday = []string{"opening", "wrap", "curl", "clip", "tail", "grain", "twist", "stands", "states", "zones", "roots", "rim", "marked"}

// secrets are the words that only ways of moving know: their names, their head statements,
// the parts they set, their knobs.
func secrets() (names, words []string) {
	add := func(w string) {
		w = strings.ReplaceAll(w, "_", "")
		if !slices.Contains(everyday, w) && !slices.Contains(words, w) {
			words = append(words, w)
		}
	}
	for _, w := range ways.All() {
		names = append(names, w.Name)
		for _, h := range w.Language.Heads {
			add(h.Word)
		}
		for _, s := range w.Language.Sets {
			add(string(s.Op))
			add(string(s.Op) + "s")
		}
		for _, k := range w.Language.Knobs {
			add(k.Name)
		}
	}
	return names, words
}

// identifier parts: HipRadius is hip and radius, hip_radius as well.
var parts = regexp.MustCompile(`[A-Za-z][A-Za-z0-9_]*`)

func inParts(word string) string {
	var b strings.Builder
	for i, r := range strings.ReplaceAll(word, "_", "") {
		if unicode.IsUpper(r) && i > 0 {
			b.WriteByte(' ')
		}
		b.WriteRune(unicode.ToLower(r))
	}
	return b.String()
}

// named are words of ways in Go code: identifiers, and strings that are one of them.
func named(t *testing.T, path string, text []byte, names, words []string) []string {
	t.Helper()
	set := token.NewFileSet()
	file, err := parser.ParseFile(set, path, text, 0)
	if err != nil {
		t.Fatal(err)
	}
	var out []string
	ast.Inspect(file, func(n ast.Node) bool {
		switch n := n.(type) {
		case *ast.ImportSpec:
			return false
		case *ast.Ident:
			all := strings.Fields(inParts(n.Name))
			for _, w := range words {
				if slices.Contains(all, w) {
					out = append(out, fmt.Sprintf("%s (%s)", n.Name, w))
				}
			}
		case *ast.BasicLit:
			s := strings.Trim(n.Value, "\"`")
			if slices.Contains(names, s) || slices.Contains(words, strings.ReplaceAll(s, "_", "")) {
				out = append(out, n.Value)
			}
		}
		return true
	})
	return out
}

func TestNobodyElseNamesAWayOfMoving(t *testing.T) {
	names, words := secrets()
	if len(names) < 5 || !slices.Contains(words, "keel") || !slices.Contains(words, "spring") || !slices.Contains(words, "hipradius") {
		t.Fatalf("%v, %v", names, words)
	}
	sources(t, func(path string, text []byte) {
		if allowed.MatchString(path) || strings.HasSuffix(path, "_test.go") {
			return
		}
		for _, w := range named(t, path, text, names, words) {
			t.Errorf("%s names %s", path, w)
		}
		for _, w := range names {
			if bytes.Contains(text, []byte(`"tussock/internal/motion/`+w)) || bytes.Contains(text, []byte(`"tussock/internal/motion/glide`)) {
				t.Errorf("%s imports a way of moving", path)
			}
		}
	})
	// In the page: strings that are a way's name, and identifiers with its words.
	literal := regexp.MustCompile(`["'` + "`" + `](` + strings.Join(names, "|") + `)["'` + "`" + `]`)
	err := filepath.WalkDir(filepath.Join("..", "web", "src"), func(path string, d fs.DirEntry, err error) error {
		rel := filepath.ToSlash(strings.TrimPrefix(path, ".."+string(filepath.Separator)))
		if err != nil || d.IsDir() || allowed.MatchString(rel) || strings.HasSuffix(path, "schema.d.ts") || !strings.Contains(path, ".ts") {
			return err
		}
		text, err := os.ReadFile(path)
		if err != nil {
			return err
		}
		if m := literal.Find(text); m != nil {
			t.Errorf("%s names %s", rel, m)
		}
		for _, q := range parts.FindAllString(string(code(text)), -1) {
			for _, w := range words {
				if slices.Contains(strings.Fields(inParts(q)), w) {
					t.Errorf("%s names %s (%s)", rel, q, w)
				}
			}
		}
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
}

var notCode = regexp.MustCompile("(?s)/\\*.*?\\*/|//[^\n]*|\"[^\"\n]*\"|'[^'\n]*'|>[^<>{}]*<")

// code is a page's source without comments, strings and words for people.
func code(text []byte) []byte { return notCode.ReplaceAll(text, []byte(" ")) }

// Nothing built and nothing huge is kept with the source; only scripts are executable.
func TestTrackedFiles(t *testing.T) {
	cmd := exec.CommandContext(t.Context(), "git", "ls-files", "-s", "-z")
	cmd.Dir = ".."
	out, err := cmd.Output()
	if err != nil {
		t.Skipf("not a checkout: %v", err)
	}
	for _, line := range strings.Split(strings.TrimSuffix(string(out), "\x00"), "\x00") {
		mode, rest, _ := strings.Cut(line, " ")
		_, name, _ := strings.Cut(rest, "\t")
		info, err := os.Stat(filepath.Join("..", name))
		if err != nil {
			continue // taken out of the tree and not committed yet
		}
		if info.Size() > mostFileBytes {
			t.Errorf("%s has %d bytes", name, info.Size())
		}
		if mode != "100755" {
			continue
		}
		head, err := os.ReadFile(filepath.Join("..", name))
		if err != nil {
			t.Fatal(err)
		}
		if !bytes.HasPrefix(head, []byte("#!")) {
			t.Errorf("%s is executable and no script", name)
		}
	}
}
