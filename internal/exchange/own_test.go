package exchange_test

import (
	"bytes"
	"fmt"
	"math"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"tussock/internal/exchange"
	"tussock/internal/foldtest"
)

// Every toy of the shelf, every study and every construction to come is written, read back
// and folds to what it was.
func TestEveryOwnToyReadsBack(t *testing.T) {
	tried := 0
	for _, dir := range []string{"../shelf/*.pattern", "../foldtest/toys/*.pattern", "../shelf/studies/*.pattern"} {
		files, err := filepath.Glob(dir)
		if err != nil {
			t.Fatal(err)
		}
		for _, f := range files {
			text, err := os.ReadFile(f)
			if err != nil {
				t.Fatal(err)
			}
			tried++
			r := foldtest.Fold(t, string(text))
			b, err := exchange.WriteFOLD(r.Final(), r.Pattern.Title)
			if err != nil {
				t.Errorf("%s: %v", f, err)
				continue
			}
			c, err := exchange.ReadFOLD(bytes.NewReader(b))
			if err != nil {
				t.Errorf("%s: %v", f, err)
				continue
			}
			s, err := c.Folded()
			if err != nil {
				t.Errorf("%s does not fold again: %v", f, err)
				continue
			}
			u, v := r.Final().Box(), s.Box()
			if math.Abs(u.Width()-v.Width()) > 1e-3 || math.Abs(u.Height()-v.Height()) > 1e-3 || math.Abs(r.Final().PaperMM2()-s.PaperMM2()) > 0.1 {
				t.Errorf("%s: %v mm² in %v, before %v mm² in %v", f, s.PaperMM2(), v, r.Final().PaperMM2(), u)
			}
		}
	}
	if tried < 30 {
		t.Errorf("only %d toys", tried)
	}
}

// stamps is a strip of n stamps a hundred long, its numbers written with so many decimals.
func stamps(n, decimals int) string {
	var v, e, a []string
	for i := range n + 1 {
		x := 100 * float64(i) / float64(n)
		v = append(v, fmt.Sprintf("[%.*f,0]", decimals, x), fmt.Sprintf("[%.*f,%.*f]", decimals, x, decimals, 25.0))
		e, a = append(e, fmt.Sprintf("[%d,%d]", 2*i, 2*i+1)), append(a, map[bool]string{true: `"B"`, false: `"U"`}[i == 0 || i == n])
		if i > 0 {
			e, a = append(e, fmt.Sprintf("[%d,%d]", 2*i-2, 2*i), fmt.Sprintf("[%d,%d]", 2*i-1, 2*i+1)), append(a, `"B"`, `"B"`)
		}
	}
	return fmt.Sprintf(`{"frame_unit":"mm","vertices_coords":[%s],"edges_vertices":[%s],"edges_assignment":[%s]}`, strings.Join(v, ","), strings.Join(e, ","), strings.Join(a, ","))
}

// The ways to fold a strip of stamps are 2, 6, 16, 50, 144, 462 for 2 to 7: a file gives the
// right number, or is refused with its precision, and never a wrong number.
func TestRoundedFilesNeverMiscount(t *testing.T) {
	right := map[int]int{3: 6, 4: 16, 5: 50, 6: 144, 7: 462}
	for n, want := range right {
		exact := 0
		for _, decimals := range []int{3, 4, 5, 6, 7, 9, 12} {
			c, err := exchange.ReadFOLD(strings.NewReader(stamps(n, decimals)))
			if err != nil {
				t.Fatal(err)
			}
			got, done, err := c.OrdersUpTo(t.Context(), 100000)
			switch {
			case err == nil && got == want && done:
				exact++
			case err == nil:
				t.Errorf("%d stamps with %d decimals: %d, not %d", n, decimals, got, want)
			case !strings.Contains(err.Error(), fmt.Sprintf("%d decimals", decimals)):
				t.Errorf("%d stamps with %d decimals: %v", n, decimals, err)
			case decimals >= 9:
				t.Errorf("%d stamps with %d decimals are refused: %v", n, decimals, err)
			}
		}
		if exact < 2 {
			t.Errorf("%d stamps: only %d files are counted", n, exact)
		}
	}
}

// What other programs write: a byte-order mark, whole numbers with a part of nothing,
// patterns in frames alone, other units, keys of their own; and what nobody should write.
func TestFilesOfOtherPrograms(t *testing.T) {
	plain := fmt.Sprintf(cross, `"M","V","V","V"`)
	c, err := exchange.ReadFOLD(strings.NewReader("\xef\xbb\xbf" + strings.NewReplacer("[0,1]", "[0.0,1.0]", "[4,3]", "[4.0,3]").Replace(plain)))
	if err != nil {
		t.Fatal(err)
	}
	if !c.Unitless || c.Scale != 100 {
		t.Errorf("%+v", c)
	}
	if _, err := exchange.ReadFOLD(strings.NewReader(strings.Replace(plain, "[4,3]", "[4.5,3]", 1))); err == nil || !strings.Contains(err.Error(), "4.5") {
		t.Errorf("half a vertex: %v", err)
	}
	body := plain[strings.Index(plain, `"vertices_coords"`) : len(plain)-1]
	framed := `{"file_spec":1.1,"file_author":"A. Wader","file_title":"Cross","marsh:note":{"tide":[1,2]},"file_frames":[{"frame_classes":["foldedForm"]},{"frame_classes":["creasePattern"],"frame_unit":"cm",` + body + `}]}`
	c, err = exchange.ReadFOLD(strings.NewReader(framed))
	if err != nil {
		t.Fatal(err)
	}
	if c.Scale != 10 || len(c.Flat.F) != 4 || c.About.Author != "A. Wader" || c.About.Title != "Cross" || string(c.About.Foreign["marsh:note"]) != `{"tide":[1,2]}` {
		t.Errorf("%v, %d pieces, %+v", c.Scale, len(c.Flat.F), c.About)
	}
	s, err := c.Folded()
	if err != nil {
		t.Fatal(err)
	}
	b, err := exchange.WriteFOLDAbout(s, c.About)
	if err != nil {
		t.Fatal(err)
	}
	again, err := exchange.ReadFOLD(bytes.NewReader(b))
	if err != nil {
		t.Fatal(err)
	}
	if again.About.Author != "A. Wader" || string(again.About.Foreign["marsh:note"]) != `{"tide":[1,2]}` {
		t.Errorf("written and read again: %+v", again.About)
	}
	inherits := `{"file_frames":[{"frame_unit":"mm",` + strings.Replace(body, "[2,2]]", "[2,2]]", 1) + `},{"frame_parent":1,"frame_inherit":true,"frame_classes":["creasePattern"],"vertices_coords":[[0,0],[50,0],[100,0],[0,50],[50,50],[100,50],[0,100],[50,100],[100,100]]}]}`
	if c, err := exchange.ReadFOLD(strings.NewReader(inherits)); err != nil || len(c.Flat.F) != 4 || c.Flat.Sheet.WidthMM != 100 {
		t.Errorf("a frame that inherits: %v", err)
	}
	for unit, mm := range map[string]float64{"pt": 25.4 / 72, "um": 1e-3, "µm": 1e-3, "nm": 1e-6, "m": 1000, "in": 25.4} {
		scaled := strings.Replace(stamps(4, 0), `"mm"`, `"`+unit+`"`, 1)
		c, err := exchange.ReadFOLD(strings.NewReader(scaled))
		if long := 100 * mm; long >= 80 && long <= 2000 {
			if err != nil || math.Abs(c.Scale-mm) > 1e-12 {
				t.Errorf("%s: %v", unit, err)
			}
		} else if err == nil || !strings.Contains(err.Error(), "mm") {
			t.Errorf("100 %s: %v", unit, err)
		}
	}
	if _, err := exchange.ReadFOLD(strings.NewReader(strings.Replace(stamps(4, 0), `"mm"`, `"ell"`, 1))); err == nil || !strings.Contains(err.Error(), "ell") {
		t.Errorf("an unknown unit: %v", err)
	}
	if c, err := exchange.ReadFOLDScaled(strings.NewReader(plain), 45); err != nil || c.Flat.Sheet.WidthMM != 90 {
		t.Errorf("a scale of one's own: %v", err)
	}
	if _, err := exchange.ReadFOLDScaled(strings.NewReader(plain), 2000); err == nil || !strings.Contains(err.Error(), "say how many mm one unit") {
		t.Errorf("a scale that is too large: %v", err)
	}
	crossed := `{"frame_unit":"mm","vertices_coords":[[0,0],[100,0],[100,100],[0,100]],"edges_vertices":[[0,1],[1,2],[2,3],[3,0],[0,2],[1,3]],"edges_assignment":["B","B","B","B","M","V"],"faces_vertices":[[0,1,2],[0,2,3]]}`
	if _, err := exchange.ReadFOLD(strings.NewReader(crossed)); err == nil || !strings.Contains(err.Error(), "crosses edge 4") {
		t.Errorf("creases that cross without a vertex: %v", err)
	}
}
