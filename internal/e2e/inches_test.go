package e2e

import (
	"path/filepath"
	"regexp"
	"testing"
)

// What no page may show: quantities as they travel, numbers that are none, and in inches
// millimetres that somebody forgot.
var (
	never    = regexp.MustCompile(`[⟨⟩]|\bNaN\b|\bundefined\b|\bnull\b|[-−]0(\.0+)?\s(mm|g|°|in)\b|\bby 0 (in|mm)\b`)
	noInches = regexp.MustCompile(`.{0,40}\b\d[\d.]* ?(mm|cm|m)\b(.{0,20})`)
	// Speeds are told in m/s, and a square has its name from its side.
	named = regexp.MustCompile(`^/s|^ square`)
)

// Every view in inches: lengths are told in inches, all of them, and in ordinary numbers.
func TestEveryViewInInches(t *testing.T) {
	h := open(t, filepath.Join(t.TempDir(), "d.db"), true)
	p := sit(t, 1280, 800)
	p.visit(h.url + "/settings")
	p.types("m")
	for _, path := range []string{
		"/", "/start/curlew", "/start/sandhopper", "/papers", "/papers/sizes", "/papers/get", "/papers/divide", "/papers/cut",
		"/bench/1/paper", "/bench/1/fold/1", "/bench/1/fold/5", "/bench/1/set", "/bench/1/set?look=motion", "/bench/1/try", "/bench/1/tune", "/bench/1/tune?view=bars", "/bench/1/tune?view=sizes", "/bench/1/tune?view=search",
		"/bench/11/paper", "/bench/11/fold/3", "/bench/11/set", "/bench/11/set?look=motion", "/bench/11/try", "/bench/11/tune", "/bench/11/tune?view=bars", "/bench/11/tune?view=sizes", "/bench/11/tune?view=schools", "/bench/11/tune?view=sweep",
		"/bench/1/follow/3", "/study/curlew/3", "/study/sandhopper/0",
	} {
		p.visit(h.url + path)
		p.gone("Folding …")
		p.until("something to read", `document.body.innerText.length >= 200`)
		p.settled()
		text := p.screen()
		for _, m := range never.FindAllString(text, -1) {
			t.Errorf("%s shows %q", path, m)
		}
		for _, m := range noInches.FindAllStringSubmatch(text, -1) {
			if !named.MatchString(m[2]) {
				t.Errorf("%s is in inches and shows %q", path, m[0])
			}
		}
		if len(text) < 200 {
			t.Errorf("%s shows little: %q", path, text)
		}
	}
}
