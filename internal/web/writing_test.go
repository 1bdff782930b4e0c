package web_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"image"
	"image/png"
	"io"
	"net/http"
	"os/exec"
	"regexp"
	"strings"
	"testing"

	"tussock/internal/motion"
	"tussock/internal/motion/toys"
	"tussock/internal/packs"
	"tussock/internal/web/builds"
	"tussock/internal/web/folding"
	"tussock/internal/web/motions"
	"tussock/internal/web/writing"
)

const oracle = `"sheet":{"width":150,"height":150,"unit":"mm","gsm":80,"thickness_mm":0.1}`

func quoted(t *testing.T, v any) string {
	t.Helper()
	out, err := json.Marshal(v)
	if err != nil {
		t.Fatal(err)
	}
	return string(out)
}

// A teller is filled from a pack, kept place by place, and what is written is what is predicted.
func TestWritingOnATeller(t *testing.T) {
	c := serve(t, false)
	filled := ask[motion.Written](c, "POST", "/patterns/fortune/filled", `{`+oracle+`,"pack":"riddles"}`)
	other := ask[motion.Written](c, "POST", "/patterns/fortune/filled", `{`+oracle+`,"pack":"riddles","seed":1}`)
	if len(filled) != 20 || quoted(t, filled) == quoted(t, other) || !filled["message 1"].Read {
		t.Fatalf("filled: %v", filled)
	}
	b := ask[builds.BuildView](c, "POST", "/builds", `{"pattern":"fortune",`+oracle+`}`)
	at := fmt.Sprintf("/builds/%d", b.ID)
	kept := ask[builds.BuildView](c, "PATCH", at+"/draft", fmt.Sprintf(`{"version":%d,"knobs":{},"written":%s}`, b.Version, quoted(t, filled)))
	if quoted(t, kept.Setup.Written) != quoted(t, filled) {
		t.Errorf("kept %v", kept.Setup.Written)
	}
	// One place is cleared, another changed; the others stay.
	kept = ask[builds.BuildView](c, "PATCH", at+"/draft", fmt.Sprintf(`{"version":%d,"knobs":{},"written":{"message 2":{},"number 1":{"text":"3"}}}`, kept.Version))
	if _, there := kept.Setup.Written["message 2"]; there || kept.Setup.Written["number 1"].Text != "3" || len(kept.Setup.Written) != 19 {
		t.Errorf("kept %v", kept.Setup.Written)
	}
	v := ask[writing.WrittenView](c, "POST", "/patterns/fortune/written", `{`+oracle+`,"written":`+quoted(t, kept.Setup.Written)+`}`)
	kinds := map[string]int{}
	for _, f := range v.Faults {
		kinds[f.Kind]++
	}
	if len(v.Places) != 20 || len(v.Views) != 5 || kinds[toys.FaultEmpty] != 1 || kinds[toys.FaultTwice] != 1 {
		t.Errorf("%d places, %d views, faults %v", len(v.Places), len(v.Views), kinds)
	}
	// In the pictures of the steps the numbers that the pattern writes give way to one's own.
	r := ask[folding.ReplayView](c, "POST", "/patterns/fortune/replay", `{`+oracle+`,"written":{"number 1":{"text":"77"}}}`)
	was := ask[folding.ReplayView](c, "POST", "/patterns/fortune/replay", `{`+oracle+`}`)
	texts := func(v folding.ReplayView) (out []string) {
		for _, q := range v.Steps[13].After.Written {
			out = append(out, q.Text)
		}
		return out
	}
	if got := texts(r); len(got) != 1 || got[0] != "77" {
		t.Errorf("the pressed toy shows %v", got)
	}
	if got := texts(was); len(got) != 8 {
		t.Errorf("unwritten the pressed toy shows %v", got)
	}
	// Two threes: three odd numbers one way, so chances are uneven, and the proposal makes them even.
	p := ask[motions.PredictionView](c, "POST", "/patterns/fortune/prediction", `{`+oracle+`,"written":{"number 1":{"text":"1"},"number 2":{"text":"2"},"number 3":{"text":"3"},"number 4":{"text":"5"},"number 5":{"text":"7"},"number 6":{"text":"4"},"number 7":{"text":"6"},"number 8":{"text":"9"}}}`)
	if least := p.Outcomes[1]; least.ID != "rarest" || least.Middle >= 12.4 {
		t.Errorf("the rarest: %+v", least)
	}
	plain := ask[motions.PredictionView](c, "POST", "/patterns/fortune/prediction", `{`+oracle+`}`)
	if plain.Outcomes[1].Middle < 12.49 || plain.Outcomes[1].Middle > 12.51 {
		t.Errorf("in order: %+v", plain.Outcomes[1])
	}
	f := ask[toys.Followed](c, "POST", "/patterns/fortune/followed", `{`+oracle+`,"play":"RED 2 5"}`)
	if f.OK || !strings.Contains(f.Says, "slip") {
		t.Errorf("%+v", f)
	}
	refused(c, "POST", "/patterns/fortune/followed", `{`+oracle+`,"play":"MAUVE 2"}`, "play", "no outer panel")
	refused(c, "POST", "/patterns/fortune/filled", `{`+oracle+`,"pack":"none"}`, "pack", "no pack")
	refused(c, "POST", "/patterns/curlew/written", `{"sheet":{"width":210,"height":297,"unit":"mm","gsm":80,"thickness_mm":0.1}}`, "id", "not written on")
	refused(c, "POST", "/patterns/fortune/written", `{`+oracle+`,"written":{"number 1":{"colour":"red"}}}`, "colour", "#c23b22")
	refused(c, "POST", "/patterns/fortune/written", `{`+oracle+`,"written":{"Number":{"text":"1"}}}`, "Number", "name of a place")
	refused(c, "PATCH", at+"/draft", fmt.Sprintf(`{"version":%d,"written":{"message 1":{"text":%q}}}`, kept.Version, strings.Repeat("a", 121)), "text", "at most 120")
}

// Two pages write in different places at once: nothing is lost; in the same place, both are told.
func TestTwoHandsWrite(t *testing.T) {
	c := serve(t, false)
	b := ask[builds.BuildView](c, "POST", "/builds", `{"pattern":"fortune",`+oracle+`}`)
	at := fmt.Sprintf("/builds/%d/draft", b.ID)
	write := func(place, text string) (int, []byte) {
		return c.send("PATCH", at, fmt.Sprintf(`{"version":%d,"written":{%q:{"text":%q}}}`, b.Version, place, text))
	}
	for _, place := range []string{"message 1", "message 2"} {
		if status, answer := write(place, "from "+place); status != 200 {
			t.Fatalf("%s: %s", place, answer)
		}
	}
	if status, answer := write("message 1", "another"); status != 409 || !bytes.Contains(answer, []byte("message 1 was written elsewhere")) {
		t.Errorf("%d: %s", status, answer)
	}
	now := ask[builds.BuildView](c, "GET", fmt.Sprintf("/builds/%d", b.ID), "")
	if len(now.Setup.Written) != 2 {
		t.Errorf("%v", now.Setup.Written)
	}
}

// Packs of one's own: pasted, changed, approved, handed on as a file, thrown away and taken back.
func TestOwnPacks(t *testing.T) {
	c := serve(t, false)
	all := ask[writing.PackList](c, "GET", "/packs", "")
	p := ask[packs.Pack](c, "POST", "/packs", `{"title":"Ours","text":"Hop once\nWhat has teeth? = a comb"}`)
	if !strings.HasPrefix(p.ID, "own-") || len(p.Entries) != 2 || p.Read {
		t.Fatalf("%+v", p)
	}
	p.Read, p.Words = true, []string{"TIDE", "GULL"}
	p = ask[packs.Pack](c, "PUT", "/packs/"+p.ID, quoted(t, p))
	if !p.Read || len(p.Words) != 2 {
		t.Errorf("%+v", p)
	}
	for _, format := range []string{"json", "csv"} {
		status, file := c.send("GET", "/packs/"+p.ID+"/file?format="+format, "")
		if status != 200 {
			t.Fatal(string(file))
		}
		again := ask[packs.Pack](c, "POST", "/packs", `{"text":`+quoted(t, string(file))+`}`)
		if again.Read || quoted(t, again.Entries) != quoted(t, p.Entries) || again.Title != "Ours" {
			t.Errorf("%s came back as %+v", format, again)
		}
	}
	if status, answer := c.send("DELETE", "/packs/"+p.ID, ""); status >= 300 {
		t.Errorf("%d: %s", status, answer)
	}
	if now := ask[writing.PackList](c, "GET", "/packs", ""); len(now.Packs) != len(all.Packs)+2 {
		t.Errorf("%d packs, before %d", len(now.Packs), len(all.Packs))
	}
	if bin := ask[builds.BinView](c, "GET", "/bin", ""); len(bin.Packs) != 1 || bin.Packs[0].ID != p.ID {
		t.Errorf("in the bin lie %+v", bin.Packs)
	}
	ask[packs.Pack](c, "POST", "/packs/"+p.ID+"/restore", "")
	refused(c, "PUT", "/packs/wishes", quoted(t, p), "id", "ships with the program")
	refused(c, "POST", "/packs", `{"text":"{\"title\":\"x\",\"kind\":\"actions indoors\",\"entries\":[{\"text\":\"hop\"}]}"}`, "space", "how much floor")
}

// printed is what can be read on a print.
func printed(t *testing.T, pdf []byte) string {
	t.Helper()
	read := exec.CommandContext(t.Context(), "pdftotext", "-layout", "-", "-")
	read.Stdin = bytes.NewReader(pdf)
	out, err := read.Output()
	if err != nil {
		t.Fatalf("pdftotext (make test installs it): %v", err)
	}
	return string(out)
}

// A set for a class: a page with two faces for everybody, messages of their own, and the list for
// the leader.
func TestClassSet(t *testing.T) {
	c := serve(t, false)
	b := ask[builds.BuildView](c, "POST", "/builds", `{"pattern":"slipway","sheet":{"width":210,"height":210,"unit":"mm","gsm":80,"thickness_mm":0.1}}`)
	status, pdf := c.send("GET", fmt.Sprintf("/builds/%d/class-set?packs=riddles,indoors,sums10&count=24&band_mm=2", b.ID), "")
	if status != 200 || !bytes.HasPrefix(pdf, []byte("%PDF")) {
		t.Fatalf("%d: %.200s", status, pdf)
	}
	pages := bytes.Count(pdf, []byte("/Type /Page\n"))
	if pages < 2*24+1 || pages > 2*24+4 {
		t.Errorf("%d pages", pages)
	}
	// Messages are listed by the numbers that stand over them, and what is too long is told.
	at := fmt.Sprintf("/builds/%d/draft", b.ID)
	ask[builds.BuildView](c, "PATCH", at, fmt.Sprintf(`{"version":%d,"written":{"number 1":{"text":"13"}}}`, b.Version))
	status, pdf = c.send("GET", fmt.Sprintf("/builds/%d/class-set?packs=riddles&count=1", b.ID), "")
	if text := printed(t, pdf); status != 200 || !regexp.MustCompile(`(?s)For the leader.*\b13 \w.*·\s+2 \w.*·\s+8 \w`).MatchString(text) || strings.Contains(text, "too long") {
		t.Errorf("%d: the list is\n%s", status, text)
	}
	small := ask[builds.BuildView](c, "POST", "/builds", `{"pattern":"fortune","sheet":{"width":80,"height":80,"unit":"mm","gsm":80,"thickness_mm":0.1}}`)
	long := ask[packs.Pack](c, "POST", "/packs", quoted(t, map[string]string{"title": "Long ones", "text": "Somebody whom you have not met for a very long time indeed waits for you behind the unlighted lighthouse"}))
	_, pdf = c.send("GET", fmt.Sprintf("/builds/%d/class-set?packs=%s&count=1", small.ID, long.ID), "")
	if text := printed(t, pdf); !strings.Contains(text, "too long to be read") {
		t.Errorf("of a small one the list is\n%s", text)
	}
	refused(c, "GET", fmt.Sprintf("/builds/%d/class-set?packs=nothing", b.ID), "", "packs", "no pack")
	ring := ask[builds.BuildView](c, "POST", "/builds", `{"pattern":"slackring","sheet":{"width":297,"height":40,"unit":"mm","gsm":80,"thickness_mm":0.1}}`)
	refused(c, "GET", fmt.Sprintf("/builds/%d/class-set?packs=wishes", ring.ID), "", "id", "takes no messages")
	for _, query := range []string{"face=both&write=half", "face=both&write=blank", "face=front&step=3&write=blank", "face=back&format=svg"} {
		if status, answer := c.send("GET", fmt.Sprintf("/builds/%d/print?%s", b.ID, query), ""); status != 200 {
			t.Errorf("%s: %d %.200s", query, status, answer)
		}
	}
}

// A picture of one's own is taken in, shown and printed; what is none is refused.
func TestOwnPictures(t *testing.T) {
	c := serve(t, false)
	var raw bytes.Buffer
	if err := png.Encode(&raw, image.NewRGBA(image.Rect(0, 0, 40, 30))); err != nil {
		t.Fatal(err)
	}
	post := func(body []byte) (int, []byte) {
		r, err := http.Post(c.url+"/api/v1/images", "application/octet-stream", bytes.NewReader(body))
		if err != nil {
			t.Fatal(err)
		}
		defer r.Body.Close()
		out, err := io.ReadAll(r.Body)
		if err != nil {
			t.Fatal(err)
		}
		return r.StatusCode, out
	}
	status, answer := post(raw.Bytes())
	var v writing.ImageView
	if err := json.Unmarshal(answer, &v); err != nil || status != 200 {
		t.Fatalf("%d %s", status, answer)
	}
	if status, body := c.send("GET", "/images/"+strings.TrimPrefix(v.Name, "own:"), ""); status != 200 || !bytes.HasPrefix(body, []byte("\x89PNG")) {
		t.Errorf("%d", status)
	}
	if status, answer := post([]byte("<html>")); status != 422 || !bytes.Contains(answer, []byte("PNG")) {
		t.Errorf("%d %s", status, answer)
	}
	strip := `"sheet":{"width":297,"height":40,"unit":"mm","gsm":80,"thickness_mm":0.1}`
	b := ask[builds.BuildView](c, "POST", "/builds", `{"pattern":"slackring",`+strip+`}`)
	ask[builds.BuildView](c, "PATCH", fmt.Sprintf("/builds/%d/draft", b.ID), fmt.Sprintf(`{"version":%d,"written":{"face 1":{"picture":%q}}}`, b.Version, v.Name))
	status, with := c.send("GET", fmt.Sprintf("/builds/%d/print?face=both&format=svg", b.ID), "")
	if status != 200 || !bytes.Contains(with, []byte("data:image/png;base64,")) {
		t.Errorf("%d: the picture is not on the print", status)
	}
	if status, pdf := c.send("GET", fmt.Sprintf("/builds/%d/print?face=both", b.ID), ""); status != 200 || !bytes.Contains(pdf, []byte("/Subtype /Image")) {
		t.Errorf("%d: the picture is not in the PDF", status)
	}
	carriesPictures(c, b.ID, v.Name)
	// The ring flexes: from a state to one that it offers, and to no other.
	w := ask[writing.BetweenView](c, "POST", "/patterns/slackring/between", `{`+strip+`,"from":0,"to":2}`)
	if len(w.Pictures) < 9 {
		t.Errorf("%d pictures of a flex", len(w.Pictures))
	}
	refused(c, "POST", "/patterns/slackring/between", `{`+strip+`,"from":0,"to":99}`, "to", "no state")
	refused(c, "POST", "/patterns/fortune/between", `{`+oracle+`,"from":0,"to":1}`, "id", "no states")
}

// carriesPictures saves a build with a picture of one's own, and reads it back elsewhere.
func carriesPictures(c client, build int64, picture string) {
	c.t.Helper()
	_, file := c.send("GET", fmt.Sprintf("/builds/%d/bundle", build), "")
	there := serve(c.t, false)
	odd := strings.Replace(string(file), `"written":{`, `"written":{"sector 1":{"text":" two\n lines "},`, 1)
	b := ask[builds.BuildView](there, "POST", "/bundles", odd)
	if got := b.Setup.Written["sector 1"].Text; got != "two lines" {
		c.t.Errorf("a text of two lines is kept as %q", got)
	}
	if got := b.Setup.Written["face 1"].Picture; got != picture {
		c.t.Errorf("read back the picture is called %q, it was %q", got, picture)
	}
	print := "/builds/%d/print?face=both&format=svg"
	_, was := c.send("GET", fmt.Sprintf(print, build), "")
	status, now := there.send("GET", fmt.Sprintf(print, b.ID), "")
	at := func(svg []byte) []byte {
		return regexp.MustCompile(`data:image/png;base64,[^"]+`).Find(svg)
	}
	if status != 200 || at(now) == nil || !bytes.Equal(at(was), at(now)) {
		c.t.Errorf("%d: the picture is another one elsewhere", status)
	}
	refused(there, "POST", "/bundles", regexp.MustCompile(`"pictures":\{"([0-9a-f]+)":"[^"]+"`).ReplaceAllString(string(file), `"pictures":{"$1":"PGh0bWw+"`), "pictures", "PNG")
	if n := len(ask[[]builds.BuildCard](there, "GET", "/builds", "")); n != 1 {
		c.t.Errorf("a refused file has left %d builds", n-1)
	}
}
