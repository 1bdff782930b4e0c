package e2e

import (
	"fmt"
	"io"
	"net/http"
	"strings"
	"testing"

	"github.com/chromedp/chromedp/kb"
)

// A fortune teller from an empty database: it is filled from a pack, one place is written anew and
// has to be read, the chances are made even, a written-down play is followed, one is logged. At
// both widths.
func TestATellerIsWritten(t *testing.T) {
	for _, wide := range []int{1280, 390} {
		t.Run(fmt.Sprint(wide), func(t *testing.T) {
			h := open(t, "", false)
			p := sit(t, wide, 844)
			p.watch(h.url)
			p.visit(h.url + "/start/fortune")
			p.fills("Width", "150")
			p.fills("Height", "150")
			p.clicks("Begin folding")
			p.at("/bench/1/fold/1")
			p.visit(h.url + "/bench/1/set?look=write")
			p.sees("Seen from", "things to look at", "Outer panel 1 is empty")
			p.clicks("Fill it")
			p.sees("Every place has what it needs")
			p.clicks("Messages")
			p.until("messages on the picture", `[...document.querySelectorAll("[data-write] svg text")].length >= 8`)
			// A place is pressed on the picture.
			eval[bool](p, `(document.querySelector('[data-zone="message 3"]').dispatchEvent(new MouseEvent("click", {bubbles: true})), true)`)
			p.until("the place", `document.querySelector("form[aria-label='Message 3']")`)
			p.fills("Text", "Say what the gull said")
			p.types(kb.Enter)
			p.sees("Message 3 has not been read by a leader")
			p.until("it is on the picture", `document.querySelector("[data-write]").innerText.includes("gull") || [...document.querySelectorAll("svg text")].some((x) => x.textContent.includes("gull"))`)
			p.clicks("A leader has read all messages")
			p.sees("Every place has what it needs")
			p.visit(h.url + "/bench/1/set?look=motion")
			p.sees("Every message comes up in one game of eight", "Open left and right, 1, 4, 5, 8 show", "Fingers")
			p.clicks("up and down")
			p.sees("Open up and down, 2, 3, 6, 7 show")
			uneven(p, h.url)
			p.fills("Word, numbers that were counted", eval[string](p, `document.querySelector("[data-followed] input + *") ? "" : JSON.parse((() => { const x = new XMLHttpRequest(); x.open("GET", "/api/v1/builds/1", false); x.send(); return x.responseText; })()).setup.written["outer 1"].text`)+" 99")
			p.clicks("Follow it")
			p.sees("99 is none of the numbers")
			p.visit(h.url + "/bench/1/try?kind=play&came=3&rounds=2")
			p.sees("What came up?")
			p.until("it came along", `[...document.querySelectorAll("input")].some((i) => i.value === "3")`)
			p.quiet()
		})
	}
}

// uneven numbers a teller so that some messages come up too seldom, and takes the proposal.
func uneven(p *person, url string) {
	p.visit(url + "/bench/1/set?look=write")
	p.clicks("Numbers")
	for i, n := range []string{"1", "2", "4", "3", "5", "6", "8", "7"} { // 1, 3, 5 and 7 the one way
		p.picks("Place", fmt.Sprintf("Number %d", i+1))
		p.until("the place", fmt.Sprintf(`document.querySelector("form[aria-label='Number %d']")`, i+1))
		p.fills("Number", n)
		p.types(kb.Enter)
	}
	p.until("all are kept", `(() => { const x = new XMLHttpRequest(); x.open("GET", "/api/v1/builds/1", false); x.send(); return JSON.parse(x.responseText).setup.written["number 8"].text === "7"; })()`)
	p.visit(url + "/bench/1/set?look=motion")
	p.until("uneven", `document.querySelector("[data-fair=false]")`)
	p.sees("never come up", "Fair with the fewest changes")
	p.clicks("Number it so")
	p.until("even", `document.querySelector("[data-fair=true]")`)
}

// A leader makes a class set of 24 tellers in three packs: every click and every text counts.
func TestAClassSet(t *testing.T) {
	h := open(t, "", false)
	p := sit(t, 1280, 900)
	p.watch(h.url)
	actions := 0
	clicks := func(name string) {
		actions++
		p.clicks(name)
	}
	fills := func(label, text string) {
		actions += 2 // into the field, and the text
		p.fills(label, text)
	}
	p.visit(h.url + "/")
	actions++
	p.sees("Slipway oracle")
	p.visit(h.url + "/start/slipway") // as the card leads there
	actions++
	clicks("Begin folding")
	p.at("/bench/1/fold/1")
	p.visit(h.url + "/bench/1/set") // as the trail leads there
	actions++
	clicks("Write on it and print it")
	p.sees("A set for a class")
	fills("Toys", "24")
	for _, pack := range []string{"Things to do, indoors", "Shore riddles", "Sums up to 10"} {
		clicks(pack)
	}
	clicks("with bands for young folders")
	p.until("the set", `document.querySelector("[data-set]")`)
	p.sees("PDF: 24 toys from 3 packs")
	actions++ // it is pressed
	link := eval[string](p, `document.querySelector("[data-set]").href`)
	r, err := http.Get(link)
	if err != nil {
		t.Fatal(err)
	}
	defer r.Body.Close()
	pdf, err := io.ReadAll(r.Body)
	if err != nil || r.StatusCode != 200 || !strings.HasPrefix(string(pdf), "%PDF") {
		t.Fatalf("%d, %v", r.StatusCode, err)
	}
	if pages := strings.Count(string(pdf), "/Type /Page\n"); pages < 49 {
		t.Errorf("%d pages", pages)
	}
	t.Logf("a class set takes %d actions", actions)
	if actions > 25 || actions < 8 {
		t.Errorf("a class set takes %d actions", actions)
	}
	p.quiet()
}

// A child plays one on a phone: a word, two numbers, and the flap is lifted; what came up is
// logged.
func TestAChildPlaysOnAPhone(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 390, 844)
	p.watch(h.url)
	p.visit(h.url + "/bench/8/play")
	p.sees("Choose a word")
	// The picture and what is to be pressed are in sight together.
	p.until("nothing lies below", `[...document.querySelectorAll("[data-game] button")].every((b) => b.getBoundingClientRect().bottom <= innerHeight)`)
	eval[bool](p, `(document.querySelector("[data-game] button").click(), true)`)
	for range 2 {
		p.until("four numbers", `document.querySelectorAll("[data-game] button").length === 4 && document.querySelector("[data-ask]").innerText.includes("It is counted")`)
		eval[bool](p, `(document.querySelectorAll("[data-game] button")[1].click(), true)`)
	}
	p.until("the last choice", `document.querySelectorAll("[data-game] button").length === 4 && document.querySelector("[data-ask]").innerText.includes("lifted")`)
	eval[bool](p, `(document.querySelectorAll("[data-game] button")[0].click(), true)`)
	p.until("a message", `document.querySelector("[data-message]")?.innerText.length > 10`)
	p.clicks("Log what came up")
	p.until("the trials", `location.pathname === "/bench/8/try"`)
	p.sees("What came up?")
	p.quiet()
}

// A ring of six faces: it is flexed until another face shows, turned over, lost and found; the
// check before gluing, the strip and its numbers are there. At both widths.
func TestARingIsFlexed(t *testing.T) {
	for _, wide := range []int{1280, 390} {
		t.Run(fmt.Sprint(wide), func(t *testing.T) {
			h := open(t, "", false)
			p := sit(t, wide, 844)
			p.watch(h.url)
			p.visit(h.url + "/start/springring")
			p.clicks("Begin folding")
			p.at("/bench/1/fold/1")
			p.visit(h.url + "/bench/1/fold/26")
			p.sees("Before you glue", "0 of 3 as they should be")
			p.visit(h.url + "/bench/1/fold/23")
			p.sees("Number the triangles", "Triangle 2: 2 in front, 4 behind")
			p.visit(h.url + "/bench/1/set?look=motion")
			p.sees("6", "faces to be found", "A walk that shows all: 12 flexes")
			front := func() string { return eval[string](p, `document.querySelector("[data-front]").dataset.front`) }
			seen := map[string]bool{front(): true}
			for range 14 { // along the walk: the same corner as long as it opens
				was := front()
				eval[bool](p, `([...document.querySelectorAll("[data-ring] button")].find((b) => b.innerText.startsWith("Flex at")).click(), true)`)
				p.until("another face", fmt.Sprintf(`document.querySelector("[data-front]") && !document.querySelector("[data-flexing]") && document.querySelector("[data-front]").dataset.front !== %q`, was))
				seen[front()] = true
			}
			if len(seen) < 3 {
				t.Errorf("only faces %v were seen", seen)
			}
			was := eval[string](p, `document.querySelector("[data-front]").innerText`)
			p.clicks("Turn it over")
			p.until("the other side", fmt.Sprintf(`document.querySelector("[data-front]").innerText !== %q`, was))
			eval[bool](p, `(document.querySelectorAll("details").forEach((d) => { d.open = true; }), true)`)
			p.picks("I see in front", "2")
			p.picks("and behind", "5")
			p.sees("No state has 2 in front and 5 behind")
			p.picks("and behind", "4")
			p.clicks("I am there")
			p.until("found", `document.querySelector("[data-front]").innerText.includes("Face 2 in front, 4 behind")`)
			p.clicks("Check before gluing")
			p.sees("every second one can be lifted", "Glue triangle 19 to triangle 1")
			p.clicks("The strip")
			p.sees("Numbers, as the folding gives them", "Guess and halve", "One strip of")
			p.visit(h.url + "/bench/1/set?look=write")
			p.clicks("boat")
			p.until("drawn", `(() => { const x = new XMLHttpRequest(); x.open("GET", "/api/v1/builds/1", false); x.send(); return JSON.parse(x.responseText).setup.written?.["face 1"]?.picture === "boat"; })()`)
			p.quiet()
		})
	}
}

// Packs are looked at, made one's own, changed, approved and thrown away.
func TestPacksAreOnesOwn(t *testing.T) {
	h := open(t, "", false)
	p := sit(t, 1280, 900)
	p.watch(h.url)
	p.visit(h.url + "/packs/indoors")
	p.sees("Room to turn round with arms out", "Walk like a crab to the door")
	p.clicks("Make my own from it")
	p.at("/packs/own-1")
	p.sees("It is your own")
	p.clicks("A leader has read it and approves")
	p.clicks("Change it")
	p.fills("Title", "Deck games")
	// Nothing is lost of what is typed letter by letter.
	eval[bool](p, `(() => { const t = [...document.querySelectorAll("textarea")].at(-1); t.focus(); t.setSelectionRange(t.value.length, t.value.length); return true; })()`)
	p.press(kb.Enter + "What runs = and never walks? = The tide")
	p.clicks("Keep it")
	p.sees("Deck games", "What runs = and never walks? (The tide)")
	p.clicks("Put it into the bin")
	p.sees("is in the bin")
	p.quiet()
	// What cannot be done is said, and nothing looks as if it had been.
	p.visit(h.url + "/packs/indoors")
	p.clicks("Make my own from it")
	p.at("/packs/own-2")
	p.sees("It is your own")
	h.stop()
	p.clicks("Put it into the bin")
	p.sees("Tussock does not answer", "It is your own")
}
