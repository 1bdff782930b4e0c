package e2e

import (
	"encoding/base64"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"tussock/internal/demo"
)

// From an empty shelf to a logged throw, and all of it still there after the
// server has been killed and the browser closed.
func TestFromSheetToLoggedThrow(t *testing.T) {
	h := open(t, "", false)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url)
	p.sees("On the bench", "Nothing yet", "Curlew", "Shelduck", "10 steps, up to 4 layers in one fold", "moderate: 12 steps, up to 8 layers", "A4, 210 × 297 mm")

	// Start a build on Letter paper.
	p.clicks("Fold a Curlew")
	p.at("/start/curlew")
	p.sees("Which sheet do you have?")
	p.clicks("Letter 215.9 × 279.4 mm")
	p.fills("Name of the build", "Ferry Curlew")
	p.clicks("Begin folding")
	p.at("/bench/1/fold/1")
	p.sees("Ferry Curlew", "Step 1 of 10", "Fold the sheet in half", "215.9 mm × 279.4 mm")

	// Walk by keys, by clicks and by the trail.
	p.types(kb.ArrowRight)
	p.at("/bench/1/fold/2")
	p.sees("the top left corner to ◆ the centre crease", "1 layer to fold", "0.1 mm of paper")
	p.types(" ")
	p.types(" ")
	p.at("/bench/1/fold/4")
	p.sees("2 layers to fold", "It looks right when")
	p.types(kb.ArrowLeft)
	p.at("/bench/1/fold/3")
	p.clicks("Next")
	p.at("/bench/1/fold/4")
	p.clicks("Step 7")
	p.at("/bench/1/fold/7")
	p.sees("4 layers to fold")
	for range 3 {
		p.clicks("Next")
	}
	p.clicks("Done: set and balance")
	p.at("/bench/1/set")
	p.sees("behind the nose", "4.83 g", "Span", "Wing area", "Keel depth", "Length")

	// A knob by typing; the toy changes and a draft is kept.
	span := reading(p, "span")
	p.fills("Wing angle, value", "75")
	p.types(kb.Enter)
	p.sees("Wing angle 90° → 75°", "each wing 15° up")
	p.until("a narrower span", `document.querySelector("[data-measures]").innerText !== `+quote(span)+` && !document.querySelector("[data-measures]").innerText.includes(`+quote(span)+`)`)

	// A throw: two keystrokes.
	p.clicks("Throw it")
	p.at("/bench/1/try")
	p.types("7")
	p.types(kb.Enter)
	p.sees("The throw of 7.0 m is logged at tweak 1", "7 m median", "n = 1")

	// Kill the server, close the browser, start again.
	p.quiet()
	h.stop()
	if err := chromedp.Cancel(p.ctx); err != nil {
		t.Fatal(err)
	}
	again := open(t, h.data, false)
	q := sit(t, 1280, 800)
	q.watch(again.url)
	q.visit(again.url)
	q.sees("Ferry Curlew", "7.0 m", "median of 1")
	q.clicks("Ferry Curlew")
	q.at("/bench/1/try")
	q.sees("Wing angle 90° → 75°", "tweak 1")
	q.quiet()
}

// reading reads one of the toy's numbers.
func reading(p *person, id string) string {
	p.t.Helper()
	p.until("the numbers", `document.querySelector("[data-reading=`+id+`] .title")`)
	return eval[string](p, `document.querySelector("[data-reading=`+id+`] .title").innerText`)
}

// measured reads one of the toy's measures.
func measured(p *person, name string) string {
	p.t.Helper()
	p.until(name, `[...document.querySelectorAll("[data-measures] div")].some((d) => d.innerText.startsWith(`+quote(name)+`) && d.querySelector("dd"))`)
	return eval[string](p, `[...document.querySelectorAll("[data-measures] div")].find((d) => d.innerText.startsWith(`+quote(name)+`)).querySelector("dd").innerText`)
}

// A knob or a sheet that makes a step impossible: the slip names the step, says
// why and what works, and the last good state stays.
func TestImpossibleFoldIsExplained(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url + "/bench/7/set") // a Curlew on a 6 in square, not thrown yet
	before := measured(p, "Length")
	p.fills("Nose width, each side, value", "60")
	p.types(kb.Enter)
	p.sees("Step 2 cannot be folded", "The top left corner cannot reach the centre crease", "works from 0 mm to", "The mat still shows the last set-up that works")
	if after := measured(p, "Length"); after != before {
		t.Errorf("the mat shows %s, the last good state has %s", after, before)
	}
	p.clicks("Set it to 28.4 mm")
	p.gone("cannot be folded")
	p.sees("Nose width, each side 0 mm → 28.4 mm")
	p.clicks("Put back")
	p.gone("0 mm → 28.4 mm")

	// A sheet that cannot be: a Shelduck on a square.
	p.visit(h.url + "/start/shelduck")
	p.clicks("6 in square")
	p.clicks("Begin folding")
	p.sees("Not as it is", "between 1.2 and 1.6 times as high as wide", "At this width it works from")
	p.fills("Width", "wide")
	p.clicks("Begin folding")
	p.sees("“wide” is not a number")
	p.fills("Width", "5000")
	p.clicks("Begin folding")
	p.sees("width is 5000 mm; it must be 20 to 2000 mm")
	if v := p.value("Width"); v != "5000" {
		t.Errorf("the refused width is lost: %q", v)
	}
	p.quiet()
}

// Throws: taps, conditions kept, what was seen, edit, delete, undo; a hard fold
// after throws makes a child build.
// Long because it is one evening at the bench, told in order.
func TestThrowsTweaksAndChildren(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url + "/bench/4/try")
	p.sees("Tweaks", "First try", "A flat V against the wobble", "kept from the throw before: Marek of the Grebe")
	n := func(want string) {
		t.Helper()
		p.sees("Tweak 3, n = " + want)
	}
	n("9")
	// Two taps.
	p.clicks("8")
	p.clicks("Log the throw")
	p.sees("The throw of 8.0 m is logged at tweak 3")
	n("10")
	// Undo by key.
	eval[bool](p, `(document.activeElement?.blur(), true)`)
	p.types("u")
	p.sees("Undone")
	n("9")
	// With what was seen and a note; the conditions stay.
	p.types("6")
	p.types(".5")
	p.clicks("turned left")
	p.fills("Note", "doors open")
	p.clicks("Log the throw")
	p.sees("The throw of 6.5 m is logged", "turned left, doors open")
	n("10")
	// Stopwatch.
	p.clicks("Start the stopwatch")
	p.until("a running watch", `document.body.innerText.includes("Stop 0.")`)
	p.clicks("Stop the stopwatch")
	p.until("a time", `/^\d+\.\d$/.test([...document.querySelectorAll("input")].find((i) => i.labels[0]?.innerText === "Time in the air").value)`)
	p.fills("Time in the air", "")
	eval[bool](p, `(window.__hit.value, true)`)
	p.types(kb.Backspace)
	// Edit the newest throw.
	p.clicks("Edit")
	p.sees("Correct a throw")
	p.fills("Distance", "6.8")
	p.clicks("Save the throw")
	p.sees("The throw of 6.8 m is saved")
	p.gone("6.5 m")
	// Refused values keep what was typed.
	p.fills("Distance", "900")
	p.clicks("Log the throw")
	p.sees("Distance is 900 m; it must be 0 to 200 m")
	if v := p.value("Distance"); v != "900" {
		t.Errorf("the refused distance is lost: %q", v)
	}
	// Throw it away; it lies in the bin.
	p.visit(h.url + "/bench/4/try")
	n("10")
	p.find("Bin", "main button")
	eval[bool](p, `(window.__hit.click(), true)`)
	p.sees("The throw of 6.8 m is in the bin")
	n("9")
	p.visit(h.url + "/bin")
	p.sees("The throw of 6.8 m")
	p.clicks("Restore")
	p.gone("The throw of 6.8 m")
	p.sees("The throw of 8.0 m") // the one that was undone

	// A last bend makes a tweak; a hard fold makes a child build.
	p.visit(h.url + "/bench/4/set")
	p.fills("Wing angle, value", "78")
	p.types(kb.Enter)
	p.sees("Wing angle 87° → 78°")
	p.fills("Why", "for the bend past the stairs")
	p.clicks("Make it tweak 4")
	p.gone("Draft")
	p.fills("Keel depth, value", "40")
	p.types(kb.Enter)
	p.sees("Keel depth 18 mm → 40 mm", "This toy has been tried already")
	p.clicks("Fold it anew as a child build")
	p.sees("Shelduck at slack water, child 1", "Child of", "tweak 4", "Step 1 of 12")
	p.clicks("Shelduck at slack water")
	p.at("/bench/4/try")
	p.sees("for the bend past the stairs", "Child build:")
	// An older tweak is a link, and its throws stayed with it.
	p.clicks("Show tweak 1")
	p.at("/bench/4/try?tweak=1")
	p.sees("Throws at tweak 1", "Tweak 1, n = 8")
	p.quiet()
}

// Rename, duplicate, bin and restore; save to a file and read it back.
func TestBuildsAreNeverLost(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url + "/bench/1/try")
	p.clicks("Build")
	p.clicks("Rename")
	p.fills("Name of the build", "Pier Curlew")
	p.clicks("Rename")
	p.sees("Pier Curlew")
	p.clicks("Build")
	p.clicks("Duplicate without throws")
	p.sees("Copy of Pier Curlew", "0")
	p.clicks("Build")
	p.clicks("Put into the bin")
	p.at("/")
	p.sees("Copy of Pier Curlew is in the bin")
	p.clicks("Undo")
	p.sees("Undone")
	p.until("the build back on the shelf", `[...document.querySelectorAll("main a")].some((a) => a.innerText.includes("Copy of Pier Curlew"))`)

	// The bundle, as the browser would save it.
	bundle := eval[string](p, `(() => { const x = new XMLHttpRequest(); x.open("GET", "/api/v1/builds/1/bundle", false); x.send(); return x.responseText; })()`)
	file := filepath.Join(t.TempDir(), "build.json")
	if err := os.WriteFile(file, []byte(bundle), 0o600); err != nil {
		t.Fatal(err)
	}
	p.visit(h.url + "/settings")
	p.do(chromedp.SetUploadFiles(chromedp.CSS("input[accept*=json]"), []string{file}))
	p.at(fmt.Sprintf("/bench/%d/try", len(demo.Names())+2))
	p.sees("Pier Curlew", "tips up against the rolling", "n = 11")

	broken := filepath.Join(t.TempDir(), "broken.json")
	if err := os.WriteFile(broken, []byte(strings.Replace(bundle, `"distance":`, `"distance":1`, 1)[:len(bundle)/2]), 0o600); err != nil {
		t.Fatal(err)
	}
	p.visit(h.url + "/settings")
	p.do(chromedp.SetUploadFiles(chromedp.CSS("input[accept*=json]"), []string{broken}))
	p.sees("That did not work", "it is no JSON")

	// Everything in one file, and back after a change.
	backup := eval[string](p, `(() => { const x = new XMLHttpRequest(); x.open("GET", "/api/v1/backup", false); x.overrideMimeType("text/plain; charset=x-user-defined"); x.send(); return btoa([...x.responseText].map((c) => String.fromCharCode(c.charCodeAt(0) & 255)).join("")); })()`)
	whole := filepath.Join(t.TempDir(), "all.tussock")
	writeBase64(t, whole, backup)
	p.visit(h.url)
	p.clicks("Bin: put Blunt Curlew into the bin")
	p.sees("Blunt Curlew is in the bin")
	p.visit(h.url + "/settings")
	p.do(chromedp.SetUploadFiles(chromedp.CSS("input[accept*=tussock]"), []string{whole}))
	p.sees("Replace everything here by all.tussock?")
	p.clicks("Replace everything")
	p.sees("Everything is as in the backup")
	p.visit(h.url)
	p.until("the binned build back", `[...document.querySelectorAll("main a")].some((a) => a.innerText.includes("Blunt Curlew"))`)
	p.quiet()
}

// Units anywhere, by one switch, with fractions to 1/16.
func TestUnitsSettingsAndTheme(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url + "/bench/3/set") // Letter
	p.sees("mm behind the nose")
	p.types("m")
	p.sees("in behind the nose", "Letter")
	if s := measured(p, "Length"); !strings.Contains(s, "/") || !strings.HasSuffix(s, " in") {
		t.Errorf("length in inches is %q", s)
	}
	p.visit(h.url + "/start/curlew")
	p.sees("8 1/2 × 11 in", "6 × 6 in")
	p.clicks("Letter")
	p.fills("Width", "8 1/4")
	p.clicks("Begin folding")
	p.sees("Step 1 of 10", "8 1/4 in × 11 in")
	p.visit(h.url + "/bench/3/try")
	p.sees("ft", "distance, ft")
	p.visit(h.url + "/settings")
	p.clicks("Night")
	p.until("the night theme", `document.documentElement.dataset.theme === "dark"`)
	p.clicks("Left")
	p.visit(h.url + "/settings")
	p.until("the night theme after coming back", `document.documentElement.dataset.theme === "dark"`)
	p.visit(h.url + "/bench/3/set")
	if !eval[bool](p, `document.querySelector("[aria-label=Slip]").getBoundingClientRect().x < document.querySelector("[aria-label=Mat]").getBoundingClientRect().x`) {
		t.Error("for a left hand the slip is not on the left")
	}
	p.visit(h.url + "/settings")
	p.until("a left hand", `[...document.querySelectorAll("input[type=radio]")].some((r) => r.checked && r.labels[0].innerText === "Left")`)
	p.clicks("mm / inch , now in")
	p.until("mm again", `document.querySelector("header").innerText.includes("now mm")`)
	p.quiet()
}

func writeBase64(t *testing.T, file, text string) {
	t.Helper()
	b, err := base64.StdEncoding.DecodeString(text)
	if err != nil {
		t.Fatal(err)
	}
	if err := os.WriteFile(file, b, 0o600); err != nil {
		t.Fatal(err)
	}
}

// Whoever stays at the shelf sees how every pattern moves, and the shelf stays.
func TestShelfAtRest(t *testing.T) {
	h := open(t, "", false)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url)
	p.until("a card for every pattern", `document.querySelectorAll("main li[id]").length > 20`)
	p.until("how every pattern moves", `document.querySelectorAll("main li[id] [data-loop]").length === document.querySelectorAll("main li[id]").length`)
	p.sees("Fold a Shelduck", "Predicted: turns", "Predicted: flexes")
	p.quiet()
}
