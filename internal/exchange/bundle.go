package exchange

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"math"

	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/ways"
)

// BundleVersion is the version of the bundle's shape.
const BundleVersion = 1

// Bundle is a pattern with the sheet and knob values it was folded with, in one
// file.
type Bundle struct {
	Version  int                `json:"tussock_pattern"`
	Name     string             `json:"name"`
	Text     string             `json:"text"`
	WidthMM  float64            `json:"width_mm"`
	HeightMM float64            `json:"height_mm"`
	GSM      float64            `json:"gsm"`
	ThickMM  float64            `json:"thickness_mm"`
	Knobs    map[string]float64 `json:"knobs"`
}

// WriteBundle bundles a replayed pattern.
func WriteBundle(r *sequence.Replay) ([]byte, error) {
	b := Bundle{Version: BundleVersion, Name: r.Pattern.ID, Text: r.Pattern.Text, WidthMM: r.Sheet.WidthMM, HeightMM: r.Sheet.HeightMM,
		GSM: r.Sheet.GSM, ThickMM: r.Sheet.ThicknessMM, Knobs: map[string]float64{}}
	for _, k := range r.Pattern.Knobs {
		if !k.Plain {
			b.Knobs[k.Name] = r.Values[k.Name]
		}
	}
	var out bytes.Buffer
	e := json.NewEncoder(&out)
	e.SetIndent("", "  ")
	e.SetEscapeHTML(false)
	err := e.Encode(b)
	return out.Bytes(), err
}

// ReadBundle reads a bundle and checks all of it. Errors are *given.Error,
// or *sequence.ParseError for the pattern's text.
func ReadBundle(r io.Reader) (*sequence.Pattern, sheet.Sheet, map[string]float64, error) {
	var none sheet.Sheet
	data, err := io.ReadAll(io.LimitReader(r, MaxBytes+1))
	if err != nil {
		return nil, none, nil, err
	}
	if len(data) > MaxBytes {
		return nil, none, nil, bad("file", fmt.Sprintf("over %d bytes", MaxBytes), "smaller")
	}
	var b Bundle
	d := json.NewDecoder(bytes.NewReader(data))
	d.DisallowUnknownFields()
	if err := d.Decode(&b); err != nil {
		return nil, none, nil, bad("file", "not readable as a pattern bundle: "+jsonPlace(data, err), "JSON as tussock writes it")
	}
	if b.Version != BundleVersion {
		return nil, none, nil, bad("tussock_pattern", fmt.Sprint(b.Version), fmt.Sprint(BundleVersion))
	}
	p, err := ways.Parse(b.Name, b.Text)
	if err != nil {
		return nil, none, nil, err
	}
	s, err := sheet.New(b.WidthMM, b.HeightMM, b.GSM, b.ThickMM)
	if err != nil {
		return nil, none, nil, err
	}
	for name, v := range b.Knobs {
		i := p.KnobIndex(name)
		if i < 0 {
			return nil, none, nil, bad("knobs."+name, sheet.Number(v), "a knob of the pattern")
		}
		if k := p.Knobs[i]; math.IsNaN(v) || v < k.Min || v > k.Max {
			return nil, none, nil, bad("knobs."+name, sheet.Number(v), fmt.Sprintf("%s to %s %s", sheet.Number(k.Min), sheet.Number(k.Max), k.Unit))
		}
	}
	return p, s, b.Knobs, nil
}
