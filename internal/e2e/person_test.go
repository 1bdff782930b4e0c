package e2e

import (
	"context"
	"encoding/json"
	"maps"
	"net"
	"net/http"
	"net/http/httptest"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"
	"unicode/utf8"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/cdproto/network"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"tussock/internal/demo"
	"tussock/internal/store"
	"tussock/internal/web"
	page "tussock/web"
)

// hall is a running Tussock on a data file of its own.
type hall struct {
	url  string
	data string
	stop func()
	// held, when set, is what waits on its way.
	held atomic.Pointer[held]
}

// held are requests to a path that wait: to be answered, or with their answer.
type held struct {
	method, end string
	answered    bool
	there       atomic.Int32
	gate        chan struct{}
}

// holds makes requests to a path wait.
func (h *hall) holds(method, end string) *held {
	q := &held{method: method, end: end, gate: make(chan struct{})}
	h.held.Store(q)
	return q
}

// holdsAnswers makes answers from a path wait: when they arrive they are old.
func (h *hall) holdsAnswers(method, end string) *held {
	q := &held{method: method, end: end, answered: true, gate: make(chan struct{})}
	h.held.Store(q)
	return q
}

// come waits until one of them waits; those that follow go through.
func (h *hall) come(t testing.TB) {
	t.Helper()
	q := h.held.Load()
	for deadline := time.Now().Add(patience); q.there.Load() == 0; time.Sleep(20 * time.Millisecond) {
		if time.Now().After(deadline) {
			t.Fatalf("no %s of %s came", q.method, q.end)
		}
	}
	h.held.Store(nil)
}

// let lets all of them go on.
func (q *held) let() { close(q.gate) }

func (q *held) serve(next http.Handler, w http.ResponseWriter, r *http.Request) {
	if q == nil || r.Method != q.method || !strings.HasSuffix(r.URL.Path, q.end) {
		next.ServeHTTP(w, r)
		return
	}
	if !q.answered {
		q.there.Add(1)
		<-q.gate
		next.ServeHTTP(w, r)
		return
	}
	old := httptest.NewRecorder()
	next.ServeHTTP(old, r)
	q.there.Add(1)
	<-q.gate
	maps.Copy(w.Header(), old.Header())
	w.WriteHeader(old.Code)
	_, _ = w.Write(old.Body.Bytes()) // whoever asked may have gone
}

// open starts Tussock on a data file; an empty name makes a new one.
func open(t testing.TB, data string, seed bool) *hall {
	t.Helper()
	if data == "" {
		data = filepath.Join(t.TempDir(), "tussock.db")
	}
	h := &hall{data: data}
	h.start(t, "127.0.0.1:0", seed)
	return h
}

// again starts Tussock anew, where it was before, after it was stopped.
func (h *hall) again(t testing.TB) {
	t.Helper()
	h.start(t, strings.TrimPrefix(h.url, "http://"), false)
}

func (h *hall) start(t testing.TB, addr string, seed bool) {
	t.Helper()
	dist, built := page.FS()
	if !built {
		t.Fatal("the page is not built; run make build")
	}
	s, err := store.Open(t.Context(), h.data)
	if err != nil {
		t.Fatal(err)
	}
	if seed {
		if err := demo.Seed(t.Context(), s); err != nil {
			t.Fatal(err)
		}
	}
	handler, err := web.New(s, dist)
	if err != nil {
		t.Fatal(err)
	}
	l, err := net.Listen("tcp", addr)
	if err != nil {
		t.Fatal(err)
	}
	server := web.Serve(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		h.held.Load().serve(handler, w, r)
	}))
	go func() { _ = server.Serve(l) }() // ends with Close below
	var once sync.Once
	h.url = "http://" + l.Addr().String()
	h.stop = func() {
		once.Do(func() {
			if err := server.Close(); err != nil {
				t.Error(err)
			}
			if err := s.Close(); err != nil {
				t.Error(err)
			}
		})
	}
	t.Cleanup(h.stop)
}

// person sits before one browser window.
type person struct {
	t        testing.TB
	ctx      context.Context
	mu       sync.Mutex
	problems []string // console errors, and requests that leave this machine
	acts     int      // presses, fields filled, entries picked and keys, counted
}

func chromium(t testing.TB) string {
	t.Helper()
	for _, name := range []string{"chromium", "chromium-browser"} {
		if path, err := exec.LookPath(name); err == nil {
			return path
		}
	}
	t.Fatal("Chromium is not installed; make test installs it")
	return ""
}

// sit opens a browser window of the given size.
func sit(t testing.TB, width, height int) *person {
	t.Helper()
	opts := append(chromedp.DefaultExecAllocatorOptions[:],
		chromedp.ExecPath(chromium(t)), chromedp.WindowSize(width, height),
		chromedp.Flag("disable-gpu", true), chromedp.Flag("enable-unsafe-swiftshader", true),
		chromedp.Flag("disable-quic", true), chromedp.Flag("disable-component-update", true),
		chromedp.Flag("mute-audio", true), chromedp.Flag("hide-scrollbars", true))
	alloc, stop := chromedp.NewExecAllocator(context.Background(), opts...)
	ctx, cancel := chromedp.NewContext(alloc)
	ctx, expire := context.WithTimeout(ctx, 5*time.Minute)
	t.Cleanup(func() { expire(); cancel(); stop() })
	p := &person{t: t, ctx: ctx}
	p.do(chromedp.EmulateViewport(int64(width), int64(height)))
	return p
}

// watch collects what must not happen: errors on the console and requests to
// other hosts.
func (p *person) watch(home string) {
	p.t.Helper()
	note := func(s string) {
		p.mu.Lock()
		defer p.mu.Unlock()
		p.problems = append(p.problems, s)
	}
	if _, err := chromedp.Call(p.ctx, network.Enable, network.EnableParams{}); err != nil {
		p.t.Fatal(err)
	}
	err := chromedp.Listen(p.ctx, func(ev any) {
		if e, ok := ev.(*network.EventRequestWillBeSent); ok {
			if u := e.Request.URL; !strings.HasPrefix(u, home) && !strings.HasPrefix(u, "data:") && !strings.HasPrefix(u, "blob:") {
				note("request to " + u)
			}
		}
	})
	if err != nil {
		p.t.Fatal(err)
	}
	go func() {
		for m, err := range chromedp.Console(p.ctx) {
			if err != nil {
				return
			}
			if s := m.String(); m.IsException() || strings.Contains(strings.ToLower(s), "error") {
				// A refused request (4xx) is written there by the browser itself.
				if !strings.Contains(s, "Failed to load resource") {
					note("console: " + s)
				}
			}
		}
	}()
}

func (p *person) quiet() {
	p.t.Helper()
	p.mu.Lock()
	defer p.mu.Unlock()
	for _, s := range p.problems {
		p.t.Error(s)
	}
}

func (p *person) do(steps ...chromedp.Action[chromedp.Void]) {
	p.t.Helper()
	if err := chromedp.Do(p.ctx, steps...); err != nil {
		p.t.Fatalf("%v\nthe screen says:\n%s", err, p.screen())
	}
}

func eval[T any](p *person, js string, opts ...chromedp.EvaluateOption) T {
	p.t.Helper()
	v, err := chromedp.Run(p.ctx, chromedp.Evaluate[T](js, opts...))
	if err != nil {
		p.t.Fatalf("%s: %v", js, err)
	}
	return v
}

// screen is everything that can be read now.
func (p *person) screen() string {
	s, err := chromedp.Run(p.ctx, chromedp.Evaluate[string](`document.body?.innerText ?? ""`))
	if err != nil {
		return "(" + err.Error() + ")"
	}
	return s
}

func (p *person) visit(url string) {
	p.t.Helper()
	p.do(chromedp.Navigate(url))
	p.until("the page is there", `document.querySelector("main")?.innerText.length > 0 && document.fonts.status === "loaded"`)
	p.settled()
}

// settled waits until nothing has changed on the page for a tenth of a second.
func (p *person) settled() {
	p.t.Helper()
	_, err := chromedp.Run(p.ctx, chromedp.Evaluate[bool](`new Promise((done) => {
		const end = () => { watch.disconnect(); clearTimeout(last); done(true); };
		let calm = setTimeout(end, 100);
		const last = setTimeout(end, 3000);
		const watch = new MutationObserver(() => { clearTimeout(calm); calm = setTimeout(end, 100); });
		watch.observe(document, { subtree: true, childList: true, attributes: true, characterData: true });
	})`, chromedp.EvalAwaitPromise))
	if err != nil {
		p.t.Fatal(err)
	}
}

// patience is how long a person waits for something: long enough for a machine that is
// busy with other work, for only what never comes takes so long.
const patience = 30 * time.Second

// until waits for a condition, as long as a person has patience.
func (p *person) until(what, js string) {
	p.t.Helper()
	deadline := time.Now().Add(patience)
	for {
		ok, err := chromedp.Run(p.ctx, chromedp.Evaluate[bool]("Boolean("+js+")"))
		if err == nil && ok {
			return
		}
		if time.Now().After(deadline) {
			p.t.Fatalf("waited for %s in vain (%v)\nthe screen says:\n%s", what, err, p.screen())
		}
		time.Sleep(20 * time.Millisecond)
	}
}

func quote(s string) string {
	b, err := json.Marshal(s)
	if err != nil {
		panic(err)
	}
	return string(b)
}

// sees waits until the words can be read, upper and lower case alike.
func (p *person) sees(words ...string) {
	p.t.Helper()
	for _, w := range words {
		p.until("the words "+quote(w), `document.body.innerText.toLowerCase().replace(/\s+/g," ").includes(`+quote(strings.ToLower(w))+`)`)
	}
}

// gone waits until the words can no longer be read.
func (p *person) gone(words string) {
	p.t.Helper()
	p.until("no more "+quote(words), `!document.body.innerText.toLowerCase().includes(`+quote(strings.ToLower(words))+`)`)
}

// finder finds what can be clicked or filled in by its accessible name: exactly
// that, else beginning with it. What lies in a closed box is found too, after what is open,
// and its box is opened as a hand would. It returns the middle of it on the screen.
const finder = `((name, roles) => {
  const read = (e) => e?.innerText || e?.textContent;
  const named = (e) => (e.getAttribute("aria-label") ?? (e.getAttribute("aria-labelledby") ?
    read(document.getElementById(e.getAttribute("aria-labelledby"))) : null) ??
    (e.labels?.length ? read(e.labels[0]) : null) ?? read(e) ?? "").trim().replace(/\s+/g, " ");
  const every = [...document.querySelectorAll(roles)];
  const open = every.filter((e) => e.checkVisibility());
  const boxed = every.filter((e) => !e.checkVisibility() && e.closest("details:not([open])"));
  const called = (all) => all.find((e) => named(e) === name) ?? all.find((e) => named(e).startsWith(name));
  const hit = called(open) ?? called(boxed);
  if (!hit) return null;
  if (!hit.checkVisibility()) {
    for (let d; (d = hit.parentElement.closest("details:not([open])"));) d.open = true;
    if (!hit.checkVisibility()) return null;
  }
  hit.scrollIntoView({ block: "center", inline: "center" });
  const r = hit.getBoundingClientRect();
  window.__hit = hit;
  window.__pressed = window.__clicked = undefined;
  if (!window.__looks) {
    window.__looks = true;
    addEventListener("pointerdown", (e) => (window.__pressed = e.target), true);
    addEventListener("click", (e) => (window.__clicked = e.target), true);
  }
  return [r.x + r.width / 2, r.y + r.height / 2];
})`

const pressable = `button, a, summary, label, [role=menuitem], [role=option], [role=slider]`

func (p *person) find(name, roles string) (x, y float64) {
	p.t.Helper()
	call := finder + "(" + quote(name) + "," + quote(roles) + ")"
	p.until("something called "+quote(name), call+" !== null")
	at := eval[[]float64](p, call)
	for range 40 { // until it has come to rest
		time.Sleep(25 * time.Millisecond)
		before := at
		if at = eval[[]float64](p, call); at == nil {
			at = before
		} else if at[0] == before[0] && at[1] == before[1] {
			break
		}
	}
	return at[0], at[1]
}

// missed tells of the last click that it pressed something else, or that the button moved
// away between press and release. What opens on the press alone is left out of the second.
const missed = `!!window.__pressed && (!window.__hit.contains(window.__pressed) ||
  window.__hit.isConnected && window.__hit.matches("button:not([aria-haspopup]):not([role])") && !window.__hit.contains(window.__clicked ?? null))`

// clicks what is called so, with the mouse. A page that is still settling may shift
// between the look and the click, so a click that hit something else is tried again;
// what never can be hit, such as a button that another thing covers, fails.
func (p *person) clicks(name string) {
	p.t.Helper()
	p.acts++
	for range 5 {
		x, y := p.find(name, pressable)
		p.do(chromedp.MouseClickXY(x, y))
		// Nothing is known any more when the click has led to another page.
		if !eval[bool](p, missed) {
			return
		}
	}
	p.t.Fatalf("%q cannot be hit: something lies over it", name)
}

// fills a field that has this label.
func (p *person) fills(label, text string) {
	p.t.Helper()
	p.acts++
	// A page that is still settling may shift between the look and the click.
	for range 5 {
		x, y := p.find(label, "input, textarea")
		p.do(chromedp.MouseClickXY(x, y))
		if eval[bool](p, `document.activeElement === window.__hit`) {
			break
		}
	}
	eval[bool](p, `(window.__hit.select?.(), true)`)
	p.press(text)
}

// picks an entry of a list by its words.
func (p *person) picks(label, entry string) {
	p.t.Helper()
	p.acts++
	p.find(label, "select")
	p.until("the entry "+quote(entry), `[...window.__hit.options].some((o) => o.text === `+quote(entry)+`)`)
	eval[bool](p, `(() => {
		const e = window.__hit;
		const set = Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, "value").set;
		set.call(e, [...e.options].find((o) => o.text === `+quote(entry)+`).value);
		return e.dispatchEvent(new Event("change", { bubbles: true }));
	})()`)
}

// value is what stands in a field.
func (p *person) value(label string) string {
	p.t.Helper()
	p.find(label, "input, textarea")
	return eval[string](p, `window.__hit.value`)
}

// types presses keys one after the other. Press and letter go together, as a keyboard
// sends them: a page that takes the press for itself gets no letter.
func (p *person) types(keys string) {
	p.t.Helper()
	p.acts += utf8.RuneCountInString(keys)
	p.press(keys)
}

func (p *person) press(keys string) {
	p.t.Helper()
	for _, r := range keys {
		for _, k := range kb.Encode(r) {
			if k.Type == kb.KeyChar {
				continue
			}
			if k.Type == kb.KeyDown || k.Type == kb.KeyRawDown {
				for _, c := range kb.Encode(r) {
					if c.Type == kb.KeyChar {
						k.Type, k.Text, k.UnmodifiedText = kb.KeyDown, c.Text, c.UnmodifiedText
					}
				}
			}
			if _, err := chromedp.Call(p.ctx, input.DispatchKeyEvent, *k); err != nil {
				p.t.Fatalf("%v\nthe screen says:\n%s", err, p.screen())
			}
		}
	}
}

// at waits for an address.
func (p *person) at(path string) {
	p.t.Helper()
	p.until("the address "+path, `location.pathname + location.search === `+quote(path))
	p.settled() // the address is ahead of what is drawn
}

// picture writes what the screen shows to a file.
func (p *person) picture(file string) {
	p.t.Helper()
	p.until("pictures at rest", `document.fonts.status === "loaded"`)
	time.Sleep(150 * time.Millisecond)
	b, err := chromedp.Run(p.ctx, chromedp.CaptureScreenshot())
	if err != nil {
		p.t.Fatal(err)
	}
	if err := os.MkdirAll(filepath.Dir(file), 0o755); err != nil {
		p.t.Fatal(err)
	}
	if err := os.WriteFile(file, b, 0o644); err != nil {
		p.t.Fatal(err)
	}
}
