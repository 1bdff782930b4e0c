package internal

import (
	"io/fs"
	"maps"
	"os"
	"path"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"
)

// The rooms of the page lie on floors too: a folder of web/src imports from folders of
// the floors below alone. What lies in web/src itself is for all.
var pageFloors = [][]string{
	{"api"},
	{"parts"},
	{"motions"},
	{"motions/*", "papers"},
	{"bench/frame", "shelf"},
	{"bench/play", "bench/write"},
	{"bench/fold", "bench/paper", "bench/set", "bench/try", "bench/tune"},
	{"places"},
}

var pageImport = regexp.MustCompile(`(?:from |import\()"(\.[^"]+)"`)

func TestPageRooms(t *testing.T) {
	src := filepath.Join("..", "web", "src")
	floor := func(room string) int {
		if way, in := strings.CutPrefix(room, "motions/"); in && way != "" {
			room = "motions/*"
		}
		return slices.IndexFunc(pageFloors, func(f []string) bool { return slices.Contains(f, room) })
	}
	isDir := func(p string) bool {
		st, err := os.Stat(filepath.Join(src, filepath.FromSlash(p)))
		return err == nil && st.IsDir()
	}
	seen := map[string]bool{}
	err := filepath.WalkDir(src, func(p string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.Contains(p, ".ts") {
			return err
		}
		text, err := os.ReadFile(p)
		if err != nil {
			return err
		}
		rel := filepath.ToSlash(strings.TrimPrefix(p, src+string(filepath.Separator)))
		from := path.Dir(rel)
		if from == "." {
			return nil
		}
		if floor(from) < 0 {
			t.Errorf("%s lies in no room", rel)
		}
		seen[from] = true
		for _, m := range pageImport.FindAllStringSubmatch(string(text), -1) {
			to := path.Join(from, m[1])
			if !isDir(to) { // a folder stands for its index
				to = path.Dir(to)
			}
			if to != "." && to != from && floor(to) >= floor(from) {
				t.Errorf("%s imports from %s, which does not lie below it", rel, to)
			}
		}
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	if len(seen) < 10 {
		t.Errorf("only %v were found", slices.Sorted(maps.Keys(seen)))
	}
}
