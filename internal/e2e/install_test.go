package e2e

import (
	"strings"
	"testing"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
)

// The page can be installed on the machine itself: the browser finds nothing wrong with
// what it says of itself.
func TestPageCanBeInstalled(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.visit(h.url)
	m, err := chromedp.Call(p.ctx, page.GetAppManifest, page.GetAppManifestParams{})
	if err != nil {
		t.Fatal(err)
	}
	if len(m.Errors) > 0 || !strings.HasSuffix(m.URL, "/manifest.webmanifest") {
		t.Errorf("the manifest at %s: %+v", m.URL, m.Errors)
	}
	wrong, err := chromedp.Call(p.ctx, page.GetInstallabilityErrors, cdp.Empty{})
	if err != nil {
		t.Fatal(err)
	}
	for _, e := range wrong.InstallabilityErrors {
		if e.ErrorID != "in-incognito" { // as tests are
			t.Errorf("it cannot be installed: %s", e.ErrorID)
		}
	}
}
