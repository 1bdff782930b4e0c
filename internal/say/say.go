// Package say is sentences for people that carry their quantities.
//
// In words: the core speaks in whole sentences, and a sentence that says "12 mm" is no
// use to somebody with an inch ruler. So a length stands in it as a value with its unit
// and the decimals worth showing, between marks, and whoever shows the sentence puts it
// into the person's units. The page does the same with web/src/say.ts; both are tested
// with the same cases.
//
// A quantity is written ⟨VALUE|UNIT|DECIMALS⟩; VALUE is a number, with a plus where the
// sign is to be shown, a range LOW..HIGH, or two sides AxB.
package say

import (
	"math"
	"regexp"
	"strconv"
	"strings"
)

// Units are a person's.
type Units string

// The units there are.
const (
	Metric Units = "mm"
	Inch   Units = "in"
)

// MMPerInch is exact.
const MMPerInch = 25.4

const (
	opens, closes = "⟨", "⟩"
	minus         = "−"
)

func number(v float64) string { return strconv.FormatFloat(v, 'g', 10, 64) }

func quantity(value, unit string, decimals int) string {
	return opens + value + "|" + unit + "|" + strconv.Itoa(decimals) + closes
}

// MM is a length, mm, with the decimals worth showing in mm.
func MM(v float64, decimals int) string { return quantity(number(v), "mm", decimals) }

// Signed is a length whose sign is shown either way.
func Signed(v float64, decimals int) string {
	if v >= 0 {
		return quantity("+"+number(v), "mm", decimals)
	}
	return MM(v, decimals)
}

// Range is two lengths, mm, from the lower to the higher.
func Range(lo, hi float64, decimals int) string {
	return quantity(number(lo)+".."+number(hi), "mm", decimals)
}

// By is two sides of a sheet, mm.
func By(w, h float64, decimals int) string {
	return quantity(number(w)+"x"+number(h), "mm", decimals)
}

// Value is a value in the unit of a knob or reading: lengths carry it, the others are
// written out.
func Value(v float64, unit string, decimals int) string {
	switch unit {
	case "mm", "cm", "m":
		return quantity(number(v), unit, decimals)
	case "deg":
		return Decimal(v, decimals) + "°"
	case "":
		return Decimal(v, decimals)
	case "part":
		return Decimal(100*v, 1) + " % of the way"
	}
	return Decimal(v, decimals) + " " + unit
}

// Between is a range in such a unit.
func Between(lo, hi float64, unit string, decimals int) string {
	switch unit {
	case "mm", "cm", "m":
		return quantity(number(lo)+".."+number(hi), unit, decimals)
	}
	if unit == "part" {
		return Decimal(100*lo, 1) + " to " + Value(hi, unit, decimals)
	}
	return Decimal(lo, decimals) + " to " + Value(hi, unit, decimals)
}

// CM is a length of the table, in m, that is told in centimetres.
func CM(m float64, decimals int) string { return quantity(number(m), "cm", decimals) }

// M is a length of the hall, in m.
func M(m float64, decimals int) string { return quantity(number(m), "m", decimals) }

var written = regexp.MustCompile(opens + `([^|` + closes + `]+)\|([a-z0-9]+)\|(\d)` + closes)

// In puts the quantities of a text into a person's units.
func In(u Units, text string) string {
	if !strings.Contains(text, opens) {
		return text
	}
	return written.ReplaceAllStringFunc(text, func(q string) string {
		m := written.FindStringSubmatch(q)
		d, _ := strconv.Atoi(m[3])
		return shown(u, m[1], m[2], d)
	})
}

// Plain is a text in millimetres, for scripts and logs.
func Plain(text string) string { return In(Metric, text) }

// Length is one length in a person's units, mm.
func Length(u Units, mm float64, decimals int) string { return In(u, MM(mm, decimals)) }

func shown(u Units, value, unit string, decimals int) string {
	sign := ""
	if strings.HasPrefix(value, "+") {
		sign, value = "+", value[1:]
	}
	parts, between := []string{value}, ""
	for _, b := range [][2]string{{"..", " to "}, {"x", " × "}} {
		if strings.Contains(value, b[0]) {
			parts, between = strings.Split(value, b[0]), b[1]
		}
	}
	v := make([]float64, len(parts))
	for i, p := range parts {
		v[i], _ = strconv.ParseFloat(p, 64)
	}
	words, name := rendered(u, v, unit, decimals)
	if v[0] == 0 {
		sign = ""
	}
	out := sign + strings.Join(words, between)
	if name != "" {
		out += " " + name
	}
	return out
}

// hair is below what an inch ruler shows at all, mm; fine is below what sixteenths tell
// well enough when tenths of a millimetre are worth showing.
const (
	hair = MMPerInch / 32
	fine = MMPerInch / 4
)

// rendered are values of one quantity, all in one way, and the unit behind the last.
func rendered(u Units, v []float64, unit string, decimals int) ([]string, string) {
	out := make([]string, len(v))
	if u == Metric {
		for i, x := range v {
			if unit == "cm" {
				x *= 100
			}
			out[i] = Decimal(x, decimals)
		}
		return out, unit
	}
	least := math.Inf(1)
	for i, x := range v {
		v[i] = x * map[string]float64{"mm": 1, "cm": 1000, "m": 1000}[unit]
		if v[i] != 0 {
			least = math.Min(least, math.Abs(v[i]))
		}
	}
	switch {
	case unit == "m":
		for i, x := range v {
			out[i] = feet(x)
		}
		return out, ""
	case len(v) == 1 && least < hair:
		decimals = max(decimals, 1)
		for decimals < 3 && Decimal(v[0], decimals) == "0" {
			decimals++
		}
		return []string{"a hair, " + Decimal(v[0], decimals)}, "mm"
	case least < MMPerInch/16 || decimals > 0 && least < fine:
		for i, x := range v {
			out[i] = Decimal(x/MMPerInch, 2)
		}
	default:
		for i, x := range v {
			out[i] = Sixteenths(x)
		}
	}
	return out, "in"
}

// Decimal is a number with at most so many decimals, no zeros at its end and no minus
// before nothing.
func Decimal(v float64, decimals int) string {
	// 6.35 is stored a hair below itself; people expect 6.4.
	s := strconv.FormatFloat(math.Abs(v)+1e-9, 'f', decimals, 64)
	if strings.Contains(s, ".") {
		s = strings.TrimRight(strings.TrimRight(s, "0"), ".")
	}
	if v < 0 && s != "0" {
		return minus + s
	}
	return s
}

// Sixteenths is a length in inches as a fraction, such as 8 1/2.
func Sixteenths(mm float64) string {
	n := int(math.Round(math.Abs(mm) / MMPerInch * 16))
	sign := ""
	if mm < 0 && n > 0 {
		sign = minus
	}
	whole, top, bottom := n/16, n%16, 16
	for top > 0 && top%2 == 0 {
		top, bottom = top/2, bottom/2
	}
	switch {
	case top == 0:
		return sign + strconv.Itoa(whole)
	case whole == 0:
		return sign + strconv.Itoa(top) + "/" + strconv.Itoa(bottom)
	}
	return sign + strconv.Itoa(whole) + " " + strconv.Itoa(top) + "/" + strconv.Itoa(bottom)
}

func feet(mm float64) string {
	n := int(math.Round(math.Abs(mm) / MMPerInch))
	sign := ""
	if mm < 0 && n > 0 {
		sign = minus
	}
	return sign + strconv.Itoa(n/12) + " ft " + strconv.Itoa(n%12) + " in"
}

var inProse = regexp.MustCompile(`(\d+(?:\.\d+)?)(?:( to | × )(\d+(?:\.\d+)?))? mm\b`)

// Prose marks the lengths in words that an author wrote with "mm" behind them, so that
// they are told in the person's units like all others.
func Prose(text string) string {
	return inProse.ReplaceAllStringFunc(text, func(q string) string {
		m := inProse.FindStringSubmatch(q)
		value, decimals := m[1], decimalsOf(m[1])
		if m[2] != "" {
			value += map[string]string{" to ": "..", " × ": "x"}[m[2]] + m[3]
			decimals = max(decimals, decimalsOf(m[3]))
		}
		return quantity(value, "mm", decimals)
	})
}

func decimalsOf(s string) int {
	if i := strings.IndexByte(s, '.'); i >= 0 {
		return min(len(s)-i-1, 9)
	}
	return 0
}

// Capital is a text that begins a sentence.
func Capital(text string) string {
	if text == "" {
		return ""
	}
	return strings.ToUpper(text[:1]) + text[1:]
}
