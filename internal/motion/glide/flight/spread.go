package flight

import (
	"cmp"
	"math"
	"runtime"
	"slices"
	"sync"

	"tussock/internal/motion"
)

// BandPoint is where eight of ten flights pass at a distance ahead.
type BandPoint struct {
	X   float64 `json:"x"`
	LoZ float64 `json:"lo_z"`
	HiZ float64 `json:"hi_z"`
	LoY float64 `json:"lo_y"`
	HiY float64 `json:"hi_y"`
}

// Spread is what many throws of one toy come to.
type Spread struct {
	N                              int
	Distance, Time, Highest, Drift motion.Range
	Modes                          map[Mode]int
	Band                           []BandPoint
}

const bandPoints = 40

// thrown is one throw out of the scatter and what came of it.
type Thrown struct {
	Flight
	Path []Sample
}

// throws are the n throws out of a scatter from number from on, made side by side; with their paths
// when they are to be drawn.
func (m *Model) Throws(t Throw, room Room, s Scatter, from, n int, paths bool) []Thrown {
	out := make([]Thrown, n)
	toys := m.Many()
	workers := min(runtime.GOMAXPROCS(0), (n+leastEach-1)/leastEach)
	var wg sync.WaitGroup
	for k := range workers {
		wg.Go(func() {
			buf := make([]Sample, 0, 3200)
			for i := k; i < n; i += workers {
				d := s.Draw(from+i, t, m.Bends)
				if !paths {
					out[i].Flight = toys.Of(d).Fly(d.Throw, room, nil)
					continue
				}
				buf = buf[:0]
				out[i].Flight = toys.Of(d).Fly(d.Throw, room, &buf)
				out[i].Path = slices.Clone(buf)
			}
		})
	}
	wg.Wait()
	return out
}

// leastEach is how many throws are worth a worker.
const leastEach = 8

// told is what throws come to; with their paths also where eight of ten pass.
func Told(throws []Thrown) Spread {
	out := Spread{N: len(throws), Modes: map[Mode]int{}}
	var dist, time, high, drift []float64
	var paths [][]Sample
	far := 0.0
	for _, f := range throws {
		out.Modes[f.Mode]++
		dist, time, high, drift = append(dist, f.DistanceM), append(time, f.TimeS), append(high, f.HighestM), append(drift, f.DriftM)
		if f.Path != nil {
			paths = append(paths, f.Path)
		}
		far = math.Max(far, f.AheadM)
	}
	out.Distance, out.Time, out.Highest, out.Drift = motion.RangeOf(dist), motion.RangeOf(time), motion.RangeOf(high), motion.RangeOf(drift)
	if len(paths) > 0 {
		out.Band = bandOf(paths, far)
	}
	return out
}

// Spread throws n toys out of a scatter, always the same ones.
func (m *Model) Spread(t Throw, room Room, s Scatter, n int) Spread {
	return Told(m.Throws(t, room, s, 0, n, false))
}

// Usual is the mode that most throws have.
func (s Spread) Usual() Mode {
	var best Mode
	for _, m := range modes {
		if best == "" || s.Modes[m] > s.Modes[best] {
			best = m
		}
	}
	return best
}

// nearest is among how many throws, those that come down nearest to the middle distance,
// the one to draw is chosen.
const nearest = 16

// middle is the throw to draw: of those that fly in the usual mode and come down at the
// middle distance, the one that keeps nearest to the middle of the band.
func (s Spread) Middle(throws []Thrown) Thrown {
	var of []Thrown
	for _, f := range throws {
		if f.Mode == s.Usual() {
			of = append(of, f)
		}
	}
	slices.SortFunc(of, func(a, b Thrown) int {
		return cmp.Compare(math.Abs(a.DistanceM-s.Distance.Middle), math.Abs(b.DistanceM-s.Distance.Middle))
	})
	best, least := of[0], math.Inf(1)
	for _, f := range of[:min(nearest, len(of))] {
		off := 0.0
		for _, b := range s.Band {
			z, y := Passes(f.Path, b.X)
			off += math.Pow(z-(b.LoZ+b.HiZ)/2, 2) + math.Pow(y-(b.LoY+b.HiY)/2, 2)/4
		}
		// A tenth of a metre off the middle distance weighs as much along the whole way.
		if off += float64(len(s.Band)) * math.Pow(f.DistanceM-s.Distance.Middle, 2); off < least {
			best, least = f, off
		}
	}
	return best
}

func bandOf(paths [][]Sample, far float64) []BandPoint {
	var out []BandPoint
	z, y := make([]float64, len(paths)), make([]float64, len(paths))
	for k := range bandPoints {
		x := far * float64(k) / (bandPoints - 1)
		for i, p := range paths {
			z[i], y[i] = Passes(p, x)
		}
		rz, ry := motion.RangeOf(z), motion.RangeOf(y)
		out = append(out, BandPoint{X: x, LoZ: rz.Lo, HiZ: rz.Hi, LoY: ry.Lo, HiY: ry.Hi})
		if rz.Hi <= 0 {
			break
		}
	}
	return out
}

// passes is height and side where a path first comes by a distance ahead; on the floor
// when it does not come so far.
func Passes(p []Sample, x float64) (z, y float64) {
	for i := 1; i < len(p); i++ {
		if p[i].X >= x && p[i].X > p[i-1].X {
			k := clamp((x-p[i-1].X)/(p[i].X-p[i-1].X), 0, 1)
			return p[i-1].Z + k*(p[i].Z-p[i-1].Z), p[i-1].Y + k*(p[i].Y-p[i-1].Y)
		}
	}
	return 0, p[len(p)-1].Y
}
