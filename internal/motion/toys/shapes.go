package toys

import (
	"maps"
	"math"
	"slices"

	"tussock/internal/geom"
)

// The pictures that ship: simple shapes of a few colours, drawn in a square of one by one
// with y downward. Their names are spelled in play.

type shapePart struct {
	points geom.Polygon
	colour string
}

type shape struct{ parts []shapePart }

// The colours of shapes: far enough apart in brightness to be told in grey.
const (
	inkTone, sand, sea, deep, coral, grass, sunny, snow, clay = "#10302f", "#e8d4a2", "#7fc4c0", "#2f6f9f", "#d8573c", "#5d8f3f", "#f2c230", "#f7f7f2", "#9a5b34"
)

// around are n points on an ellipse.
func around(cx, cy, rx, ry float64, n int, startDeg float64) (out geom.Polygon) {
	for i := range n {
		s, c := math.Sincos(geom.Rad(startDeg + 360*float64(i)/float64(n)))
		out = append(out, geom.Vec{X: cx + rx*c, Y: cy - ry*s})
	}
	return out
}

// rayed are points out and in in turn, as of a star.
func rayed(cx, cy, out, in float64, n int) (poly geom.Polygon) {
	for i := range 2 * n {
		r := out
		if i%2 == 1 {
			r = in
		}
		s, c := math.Sincos(geom.Rad(90 + 180*float64(i)/float64(n)))
		poly = append(poly, geom.Vec{X: cx + r*c, Y: cy - r*s})
	}
	return poly
}

func poly(xy ...float64) (out geom.Polygon) {
	for i := 0; i+1 < len(xy); i += 2 {
		out = append(out, geom.Vec{X: xy[i], Y: xy[i+1]})
	}
	return out
}

// crescent is a moon.
func crescent() (out geom.Polygon) {
	for i := range 17 {
		s, c := math.Sincos(geom.Rad(60 + 240*float64(i)/16))
		out = append(out, geom.Vec{X: 0.58 + 0.42*c, Y: 0.5 - 0.42*s})
	}
	for i := range 13 {
		s, c := math.Sincos(geom.Rad(285 - 210*float64(i)/12))
		out = append(out, geom.Vec{X: 0.72 + 0.36*c, Y: 0.5 - 0.36*s})
	}
	return out
}

// billow is a wave with a flat foot.
func billow(y float64) (out geom.Polygon) {
	for i := range 21 {
		x := 0.06 + 0.88*float64(i)/20
		out = append(out, geom.Vec{X: x, Y: y - 0.09*math.Sin(3*math.Pi*float64(i)/10)})
	}
	return append(out, geom.Vec{X: 0.94, Y: y + 0.2}, geom.Vec{X: 0.06, Y: y + 0.2})
}

func part(colour string, points geom.Polygon) shapePart { return shapePart{points, colour} }

var shapes = map[string]shape{
	"sun":    {[]shapePart{part(sunny, rayed(0.5, 0.5, 0.46, 0.28, 12)), part(coral, around(0.5, 0.5, 0.2, 0.2, 20, 0))}},
	"moon":   {[]shapePart{part(sunny, crescent())}},
	"star":   {[]shapePart{part(sunny, rayed(0.5, 0.52, 0.46, 0.19, 5))}},
	"wave":   {[]shapePart{part(sea, billow(0.4)), part(deep, billow(0.66))}},
	"boat":   {[]shapePart{part(clay, poly(0.1, 0.62, 0.9, 0.62, 0.74, 0.84, 0.26, 0.84)), part(snow, poly(0.52, 0.1, 0.84, 0.56, 0.52, 0.56)), part(coral, poly(0.47, 0.18, 0.47, 0.56, 0.2, 0.56))}},
	"fish":   {[]shapePart{part(deep, around(0.44, 0.5, 0.36, 0.2, 24, 0)), part(deep, poly(0.72, 0.5, 0.95, 0.3, 0.95, 0.7)), part(snow, around(0.26, 0.45, 0.045, 0.045, 10, 0))}},
	"shell":  {[]shapePart{part(coral, poly(0.5, 0.86, 0.08, 0.52, 0.14, 0.3, 0.3, 0.16, 0.5, 0.1, 0.7, 0.16, 0.86, 0.3, 0.92, 0.52)), part(sand, poly(0.48, 0.14, 0.52, 0.14, 0.51, 0.84, 0.49, 0.84)), part(sand, poly(0.2, 0.27, 0.24, 0.24, 0.49, 0.8, 0.47, 0.82)), part(sand, poly(0.76, 0.24, 0.8, 0.27, 0.53, 0.82, 0.51, 0.8)), part(clay, poly(0.36, 0.82, 0.64, 0.82, 0.58, 0.94, 0.42, 0.94))}},
	"leaf":   {[]shapePart{part(grass, poly(0.5, 0.06, 0.72, 0.24, 0.78, 0.48, 0.66, 0.72, 0.5, 0.84, 0.34, 0.72, 0.22, 0.48, 0.28, 0.24)), part(clay, poly(0.48, 0.3, 0.52, 0.3, 0.53, 0.96, 0.47, 0.96))}},
	"drop":   {[]shapePart{part(deep, poly(0.5, 0.06, 0.66, 0.34, 0.78, 0.58, 0.74, 0.78, 0.6, 0.92, 0.4, 0.92, 0.26, 0.78, 0.22, 0.58, 0.34, 0.34))}},
	"bell":   {[]shapePart{part(sunny, poly(0.5, 0.1, 0.66, 0.2, 0.72, 0.5, 0.86, 0.74, 0.14, 0.74, 0.28, 0.5, 0.34, 0.2)), part(clay, around(0.5, 0.82, 0.09, 0.09, 14, 0))}},
	"kite":   {[]shapePart{part(coral, poly(0.5, 0.06, 0.8, 0.38, 0.5, 0.74, 0.2, 0.38)), part(inkTone, poly(0.49, 0.74, 0.51, 0.74, 0.6, 0.95, 0.57, 0.96))}},
	"reed":   {[]shapePart{part(grass, poly(0.46, 0.95, 0.5, 0.4, 0.54, 0.95)), part(grass, poly(0.3, 0.95, 0.16, 0.5, 0.38, 0.95)), part(grass, poly(0.62, 0.95, 0.84, 0.46, 0.7, 0.95)), part(clay, around(0.5, 0.3, 0.07, 0.22, 16, 0))}},
	"heart":  {[]shapePart{part(coral, poly(0.5, 0.92, 0.1, 0.5, 0.08, 0.3, 0.2, 0.15, 0.36, 0.14, 0.5, 0.28, 0.64, 0.14, 0.8, 0.15, 0.92, 0.3, 0.9, 0.5))}},
	"house":  {[]shapePart{part(sand, poly(0.2, 0.46, 0.8, 0.46, 0.8, 0.92, 0.2, 0.92)), part(coral, poly(0.5, 0.08, 0.92, 0.48, 0.08, 0.48)), part(clay, poly(0.42, 0.62, 0.58, 0.62, 0.58, 0.92, 0.42, 0.92))}},
	"flower": {[]shapePart{part(coral, rayed(0.5, 0.5, 0.44, 0.26, 8)), part(sunny, around(0.5, 0.5, 0.15, 0.15, 16, 0))}},
	"pebble": {[]shapePart{part(sea, around(0.5, 0.55, 0.42, 0.3, 24, 0)), part(snow, poly(0.2, 0.5, 0.5, 0.4, 0.8, 0.52, 0.5, 0.48))}},
}

// Shapes are the names of the pictures that ship, in order.
func Shapes() []string { return slices.Sorted(maps.Keys(shapes)) }

// IsShape tells whether a picture of a name ships.
func IsShape(name string) bool { _, ok := shapes[name]; return ok }

// ShapePart is one part of a picture that ships, as a page draws it.
type ShapePart struct {
	Points []float64 `json:"points"` // corners in a square of one by one, y downward
	Colour string    `json:"colour"`
}

// ShapeParts are the parts of a picture that ships.
func ShapeParts(name string) (out []ShapePart) {
	for _, p := range shapes[name].parts {
		q := ShapePart{Colour: p.colour}
		for _, v := range p.points {
			q.Points = append(q.Points, v.X, v.Y)
		}
		out = append(out, q)
	}
	return out
}
