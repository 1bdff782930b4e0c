package pictures_test

import (
	"bytes"
	"errors"
	"image"
	"image/color"
	"image/png"
	"testing"

	"tussock/internal/given"
	"tussock/internal/pictures"
)

func kept(t *testing.T, raw []byte) image.Image {
	t.Helper()
	name, out, err := pictures.Clean(raw)
	if err != nil {
		t.Fatal(err)
	}
	img, err := png.Decode(bytes.NewReader(out))
	if err != nil || len(name) != 32 {
		t.Fatal(name, err)
	}
	if s := img.Bounds().Size(); s != image.Pt(pictures.KeptPixels, pictures.KeptPixels) {
		t.Fatalf("kept as %v", s)
	}
	return img
}

func near(t *testing.T, what string, got, want color.Color) {
	t.Helper()
	r1, g1, b1, _ := got.RGBA()
	r2, g2, b2, _ := want.RGBA()
	for _, d := range [][2]uint32{{r1, r2}, {g1, g2}, {b1, b2}} {
		if max(d[0], d[1])-min(d[0], d[1]) > 0x800 {
			t.Errorf("%s is %v, want %v", what, got, want)
			return
		}
	}
}

func TestPNG(t *testing.T) {
	red, blue := color.RGBA{200, 20, 20, 255}, color.RGBA{20, 20, 200, 255}
	img := image.NewRGBA(image.Rect(0, 0, 300, 100))
	for x := range 300 {
		for y := range 100 {
			img.Set(x, y, blue)
			if y < 50 {
				img.Set(x, y, red)
			}
		}
	}
	var b bytes.Buffer
	if err := png.Encode(&b, img); err != nil {
		t.Fatal(err)
	}
	out := kept(t, b.Bytes())
	near(t, "above", out.At(320, 100), red)
	near(t, "below", out.At(320, 600), blue)
	first, _, _ := pictures.Clean(b.Bytes())
	if again, _, _ := pictures.Clean(b.Bytes()); again != first {
		t.Error("the same picture has two names")
	}
}

func TestSVG(t *testing.T) {
	out := kept(t, []byte(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 200 100"><rect x="50" y="0" width="50" height="100" fill="#c81414"/><image href="http://example.invalid/x.png" width="10" height="10"/></svg>`))
	near(t, "left of the middle", out.At(150, 320), color.RGBA{200, 20, 20, 255})
	near(t, "right of the middle", out.At(480, 320), color.White)
}

func TestWhatIsNoPicture(t *testing.T) {
	big := image.NewGray(image.Rect(0, 0, pictures.MostPixels+1, 1))
	var b bytes.Buffer
	if err := png.Encode(&b, big); err != nil {
		t.Fatal(err)
	}
	for name, raw := range map[string][]byte{"nothing": nil, "text": []byte("hello"), "half a png": []byte("\x89PNG\r\n\x1a\n1234"), "too many pixels": b.Bytes(), "too many bytes": make([]byte, pictures.MostBytes+1),
		"flat": []byte(`<svg viewBox="0 0 0 0"></svg>`), "broken": []byte(`<svg viewBox="0 0 10 10"><path d="M0 0L"/>`)} {
		_, _, err := pictures.Clean(raw)
		var g *given.Error
		if err != nil && !errors.As(err, &g) {
			t.Errorf("%s: %v", name, err)
		}
		if err == nil && name != "broken" {
			t.Errorf("%s is taken", name)
		}
	}
}

func FuzzClean(f *testing.F) {
	f.Add([]byte(`<svg viewBox="0 0 10 10"><circle cx="5" cy="5" r="4" fill="red"/></svg>`))
	f.Fuzz(func(t *testing.T, raw []byte) {
		_, out, err := pictures.Clean(raw)
		if err == nil {
			if _, err := png.Decode(bytes.NewReader(out)); err != nil {
				t.Error(err)
			}
		}
	})
}
