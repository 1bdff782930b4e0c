package e2e

import (
	"encoding/json"
	"errors"
	"fmt"
	"image"
	"image/png"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"tussock/internal/web/builds"
)

// A paper is weighed and measured by a pile, put into the drawer, judged, counted,
// changed, used for a toy and thrown away again.
func TestDrawer(t *testing.T) {
	h := open(t, "", false)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url + "/papers")
	p.sees("The drawer is empty")
	p.clicks("Put a paper into the drawer")
	p.fills("Name of the paper", "Tide table")
	p.fills("Width", "21")
	p.fills("Height", "30")
	p.sees("Is that a known size, rounded?", "A4, 210 × 297 mm")
	p.clicks("A4, 210 × 297 mm")
	p.gone("Is that a known size")
	p.clicks("from a scale")
	p.fills("They weigh", "49.9")
	p.sees("80 ± 0.5 g/m²")
	p.fills("They weigh", "499")
	p.sees("that would be 800 g/m²")
	p.fills("They weigh", "49.9")
	p.clicks("from a pile")
	p.fills("The pile is high", "4cm")
	p.sees("0.4 ± 0.003 mm each", "Weight and thickness hardly belong together")
	p.fills("The pile is high", "10.4")
	p.sees("0.104 ± 0.003 mm each")
	p.sees("Bend test")
	p.clicks("the height")
	p.clicks("both alike")
	p.fills("Sheets left", "12.5")
	p.clicks("Put it into the drawer")
	p.sees("is no count of sheets")
	p.fills("Sheets left", "12")
	p.clicks("Put it into the drawer")
	p.sees("Tide table", "80 g/m², 0.1 mm thick, ordinary, grain along the height")
	p.clicks("Fly")
	p.sees("16 layers of it, the thickest stack of Curlew", "your trials overrule it")
	p.clicks("One sheet of Tide table less")
	p.until("eleven left", `document.querySelector("li .figure")?.innerText === "11"`)
	p.clicks("Change")
	p.fills("Paper weight", "300")
	p.fills("Thickness of one sheet", "0.4")
	p.clicks("Keep the changes")
	p.sees("300 g/m²")
	p.clicks("Reveal")
	p.sees("Reveal, poor")
	p.clicks("Change")
	p.fills("Paper weight", "xyz")
	p.sees("“xyz” is no number")
	p.fills("Paper weight", "9000")
	p.clicks("Keep the changes")
	p.sees("gsm is 9000; it must be 10 to 600 g/m²")
	p.clicks("Leave it")
	p.clicks("What can be made of it")
	p.sees("Fold a Curlew", "210 × 297 mm")
	p.clicks("Fold a Curlew")
	p.until("the build", `/\/bench\/\d+\/paper/.test(location.pathname)`)
	p.sees("Both faces of this paper look alike")
	p.visit(h.url + "/papers")
	p.clicks("Put Tide table into the bin")
	p.sees("The drawer is empty")
	p.clicks("Undo")
	p.sees("Tide table")
	p.quiet()
}

// The side that lies up decides which colour shows; the other start is shown beside
// it, and taking it makes another toy of one that has been thrown.
func TestWhichSideUp(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url + "/bench/7/paper")
	p.sees("Which side up", "so it lies now", "152.4 × 152.4 mm, front side up")
	colour := `document.querySelector("section[aria-label=Mat] svg").innerHTML`
	before := eval[string](p, colour)
	p.clicks("Start so")
	p.sees("152.4 × 152.4 mm, back side up")
	if after := eval[string](p, colour); after == before {
		t.Errorf("the sheet still shows %s", after)
	}
	p.clicks("Start so")
	p.sees("152.4 × 152.4 mm, front side up")
	p.visit(h.url + "/bench/1/paper")
	p.clicks("Start so")
	p.sees("This toy has been tried already")
	p.quiet()
}

// A crease that a sheet has already is mirrored when the sheet is turned over, and is
// back in its place when it is turned again.
func TestTurningOverMirrorsCreases(t *testing.T) {
	h := open(t, "", false)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	body := `{"pattern":"fortune","sheet":{"width":150,"height":150,"unit":"mm","gsm":80,"thickness_mm":0.1,
		"front":"#aa3322","back":"#ffffff","made":[[0,0,150,150],[20,0,20,150]]}}`
	res, err := http.Post(h.url+"/api/v1/builds", "application/json", strings.NewReader(body))
	if err != nil {
		t.Fatal(err)
	}
	if err := res.Body.Close(); err != nil {
		t.Fatal(err)
	}
	made := func() string {
		res, err := http.Get(h.url + "/api/v1/builds/1")
		if err != nil {
			t.Fatal(err)
		}
		defer res.Body.Close()
		var b builds.BuildView
		if err := json.NewDecoder(res.Body).Decode(&b); err != nil {
			t.Fatal(err)
		}
		return fmt.Sprint(b.Setup.Sheet.Made)
	}
	p.visit(h.url + "/bench/1/paper")
	for _, turn := range []struct {
		side string
		want string
	}{
		{"back side up", "[[150 0 0 150] [130 0 130 150]]"},
		{"front side up", "[[0 0 150 150] [20 0 20 150]]"},
	} {
		p.clicks("Start so")
		p.sees("150 × 150 mm, " + turn.side)
		if got := made(); got != turn.want {
			t.Errorf("%s: the creases are %s, not %s", turn.side, got, turn.want)
		}
	}
	p.quiet()
}

// Getting a sheet of any kind, with what cannot be and what can instead; the print of
// an outline that the page offers is a PDF.
// Long because it is one way through the drawer, and each step needs the one before.
func TestGetASheet(t *testing.T) {
	h := open(t, "", false)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url + "/papers/get")
	p.sees("One fold, one cut", "Bring the lower edge up to the left edge", "87 × 210 mm")
	p.fills("Side", "250")
	p.sees("This sheet cannot give that", "its short edge is 210 mm")
	p.clicks("Show what it can give")
	p.sees("One fold, one cut")
	p.clicks("a size")
	p.sees("Type the size that is wanted")
	p.fills("Wanted width", "8 1/2 in")
	p.fills("Wanted height", "11in")
	p.sees("it would be 215.9 mm wide, and there are 210 mm", "97.27 % of the size")
	p.clicks("Show how to get 210 × 271.8 mm")
	p.sees("Measured and cut", "leaves 25.2 × 210 mm")
	p.clicks("equal sides")
	p.sees("Pentagon, the customary mark", "Pentagon, the exact mark")
	p.clicks("Pentagon, the exact mark")
	p.sees("exactly equal if folded exactly")
	p.clicks("Pentagon, the customary mark")
	p.sees("off even if folded exactly")
	link := eval[string](p, `[...document.querySelectorAll("a")].find((a) => a.innerText === "PDF").href`)
	req, err := http.NewRequestWithContext(t.Context(), http.MethodGet, link, nil)
	if err != nil {
		t.Fatal(err)
	}
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		t.Fatal(err)
	}
	if err := res.Body.Close(); err != nil {
		t.Fatal(err)
	}
	if res.StatusCode != 200 || res.Header.Get("Content-Type") != "application/pdf" || !strings.Contains(link, "n=5") {
		t.Errorf("%s: %d %s", link, res.StatusCode, res.Header.Get("Content-Type"))
	}
	// Rendered, the check line of what the page offers is 100 mm long.
	body, err := http.Get(link)
	if err != nil {
		t.Fatal(err)
	}
	file := filepath.Join(t.TempDir(), "outline.pdf")
	data, err := io.ReadAll(body.Body)
	if err == nil {
		err = errors.Join(body.Body.Close(), os.WriteFile(file, data, 0o600))
	}
	if err != nil {
		t.Fatal(err)
	}
	if out, err := exec.CommandContext(t.Context(), "pdftoppm", "-png", "-gray", "-r", "254", "-f", "1", "-l", "1", "-singlefile", file, strings.TrimSuffix(file, ".pdf")).CombinedOutput(); err != nil {
		t.Fatalf("%v %s", err, out)
	}
	if mm := checkLine(t, strings.TrimSuffix(file, ".pdf")+".png"); mm < 99.8 || mm > 100.2 {
		t.Errorf("the check line is %.2f mm long", mm)
	}
	p.fills("Corners", "7")
	p.sees("no short chain of folds gives 7 equal sides")
	p.fills("Corners", "many")
	p.sees("is no count of corners")
	p.clicks("margin off")
	p.sees("Cut off", "200 × 297 mm")
	p.clicks("Without scissors")
	p.sees("Torn off")
	p.clicks("a strip")
	p.fills("Width of the strip", "34")
	p.sees("34 × 297 mm")
	p.clicks("a half")
	p.sees("Halved across, torn", "Halved along, torn")
	p.clicks("proportions")
	p.fills("So many times as high as wide", "1.2")
	p.sees("210 × 252 mm")
	// At the folding table.
	q := sit(t, 390, 844)
	q.watch(h.url)
	for path, says := range map[string]string{"/papers/get": "One fold, one cut", "/start/fortune": "works on squares only"} {
		q.visit(h.url + path)
		q.sees(says)
		if wide := eval[float64](q, `document.documentElement.scrollWidth`); wide > 390 {
			t.Errorf("%s is %v pixels wide on a phone", path, wide)
		}
	}
	q.visit(h.url + "/start/fortune")
	q.clicks("A4")
	q.clicks("Begin folding")
	q.sees("Not as it is")
	q.clicks("Take this piece and begin")
	q.sees("The sheet is ready: fold")
	if wide := eval[float64](q, `document.documentElement.scrollWidth`); wide > 390 {
		t.Errorf("the paper stretch is %v pixels wide on a phone", wide)
	}
	p.quiet()
	q.quiet()
}

// checkLine is the longest unbroken level line in the lowest fifth of a page rendered at
// 10 dots a mm, but for the ruler below it, in mm.
func checkLine(t *testing.T, file string) float64 {
	t.Helper()
	f, err := os.Open(file)
	if err != nil {
		t.Fatal(err)
	}
	img, err := png.Decode(f)
	if err := errors.Join(err, f.Close()); err != nil {
		t.Fatal(err)
	}
	b := img.Bounds()
	longest := 0
	for y := b.Max.Y * 4 / 5; y < b.Max.Y-120; y++ {
		run := 0
		for x := b.Min.X; x < b.Max.X; x++ {
			if dark(img, x, y) {
				run++
				longest = max(longest, run)
			} else {
				run = 0
			}
		}
	}
	return float64(longest) / 10
}

func dark(img image.Image, x, y int) bool {
	r, _, _, _ := img.At(x, y).RGBA()
	return r < 0xa000
}
