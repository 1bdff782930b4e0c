// Package pictures takes in pictures of one's own: PNG or SVG, bounded, made square and of one
// size, so that nothing of the file that was sent is ever handed on.
package pictures

import (
	"bytes"
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"math"

	"github.com/srwiley/oksvg"
	"github.com/srwiley/rasterx"
	"golang.org/x/image/draw"

	"tussock/internal/given"
)

// Limits of what is taken in, and how large it is kept.
const (
	MostBytes  = 1 << 20
	MostPixels = 4096 // of a side
	KeptPixels = 640
)

// Clean reads a picture, makes it a square PNG and names it by what it holds. The error is a
// *given.Error.
func Clean(raw []byte) (name string, out []byte, err error) {
	if len(raw) == 0 || len(raw) > MostBytes {
		return "", nil, bad(fmt.Sprintf("%d bytes", len(raw)), fmt.Sprintf("a PNG or SVG of at most %d kB", MostBytes>>10))
	}
	var square image.Image
	if bytes.HasPrefix(raw, []byte("\x89PNG")) {
		square, err = fromPNG(raw)
	} else {
		square, err = fromSVG(raw)
	}
	if err != nil {
		return "", nil, err
	}
	var b bytes.Buffer
	if err := png.Encode(&b, square); err != nil {
		return "", nil, err
	}
	sum := sha256.Sum256(b.Bytes())
	return hex.EncodeToString(sum[:16]), b.Bytes(), nil
}

func bad(value, want string) error { return &given.Error{Field: "", Value: value, Want: want} }

func fromPNG(raw []byte) (image.Image, error) {
	c, err := png.DecodeConfig(bytes.NewReader(raw))
	if err != nil {
		return nil, bad("a damaged file", "a PNG that can be opened")
	}
	if c.Width < 1 || c.Height < 1 || c.Width > MostPixels || c.Height > MostPixels {
		return nil, bad(fmt.Sprintf("%d by %d pixels", c.Width, c.Height), fmt.Sprintf("at most %d pixels a side", MostPixels))
	}
	img, err := png.Decode(bytes.NewReader(raw))
	if err != nil {
		return nil, bad("a damaged file", "a PNG that can be opened")
	}
	// The largest square in the middle.
	b := img.Bounds()
	side := min(b.Dx(), b.Dy())
	from := image.Rect(0, 0, side, side).Add(image.Pt(b.Min.X+(b.Dx()-side)/2, b.Min.Y+(b.Dy()-side)/2))
	out := white()
	draw.CatmullRom.Scale(out, out.Bounds(), img, from, draw.Over, nil)
	return out, nil
}

func white() *image.RGBA {
	out := image.NewRGBA(image.Rect(0, 0, KeptPixels, KeptPixels))
	draw.Draw(out, out.Bounds(), image.NewUniform(color.White), image.Point{}, draw.Src)
	return out
}

func fromSVG(raw []byte) (out image.Image, err error) {
	wrong := bad("no picture", "a PNG, or an SVG of plain shapes")
	defer func() { // the reader of drawings is not made for hostile ones
		if recover() != nil {
			out, err = nil, wrong
		}
	}()
	if !bytes.Contains(raw[:min(len(raw), 4096)], []byte("<svg")) {
		return nil, wrong
	}
	icon, err := oksvg.ReadIconStream(bytes.NewReader(raw), oksvg.IgnoreErrorMode)
	if err != nil {
		return nil, wrong
	}
	w, h := icon.ViewBox.W, icon.ViewBox.H
	if !(w > 0 && h > 0) || math.IsInf(w, 0) || math.IsInf(h, 0) || math.Max(w/h, h/w) > 20 {
		return nil, bad("a drawing without a size", "an SVG with a viewBox, or a width and a height")
	}
	// It covers the square, its middle in the middle.
	k := KeptPixels / math.Min(w, h)
	icon.SetTarget((KeptPixels-w*k)/2, (KeptPixels-h*k)/2, w*k, h*k)
	square := white()
	scanner := rasterx.NewScannerGV(KeptPixels, KeptPixels, square, square.Bounds())
	icon.Draw(rasterx.NewDasher(KeptPixels, KeptPixels, scanner), 1)
	return square, nil
}
