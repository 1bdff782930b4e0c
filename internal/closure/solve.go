package closure

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"
)

// found measures a pose: gaps at all hinges, what was asked and reached, ranks, and what
// passes through what.
func (m *Mechanism) found(a Ask, y *system, rho []float64, pinned []bool) Found {
	f := Found{Rho: slices.Clone(rho), At: m.Place(rho, a.Root), State: Sound, Part: 1}
	f.GapMM = m.Gap(f.At)
	for _, d := range a.Drives {
		if d.Spots != nil {
			p := f.At[d.Spots[0].Facet].Apply(flatSpot(d.Spots[0].At))
			q := f.At[d.Spots[1].Facet].Apply(flatSpot(d.Spots[1].At))
			f.MissMM = math.Max(f.MissMM, math.Abs(p.Dist(q)-d.Want))
		} else {
			f.MissDeg = math.Max(f.MissDeg, math.Abs(rho[d.Hinge]-d.Want)*180/math.Pi)
		}
	}
	f.Crossing = Crossing(m.s, f.At)
	if y.n > 0 && y.rows > 0 {
		c, jac := make([]float64, y.rows+len(y.pulls)), make([]float64, (y.rows+len(y.pulls))*y.n)
		y.eval(rho, c, jac)
		f.Closure = y.worst(c)
		if a.Ranks {
			f.Rank = rank(y, jac)
		}
	}
	moving := y.n
	for _, p := range pinned {
		if p {
			moving--
		}
	}
	f.Freedoms = max(0, moving-f.Rank)
	if len(f.Crossing) > 0 {
		f.State = Crosses
	}
	return f
}

func rank(y *system, jac []float64) int {
	var svd mat.SVD
	if !svd.Factorize(mat.NewDense(y.rows, y.n, slices.Clone(jac[:y.rows*y.n])), mat.SVDNone) {
		return 0
	}
	r := 0
	for _, v := range svd.Values(nil) {
		if v > ranked*math.Max(1e-12, svd.Values(nil)[0]) {
			r++
		}
	}
	return r
}

const (
	closureCut = 1e-7 // singular values of the closure below this part of the largest are none
	driveCut   = 1e-5
	solveRound = 60
)

// Solve looks for the pose nearest to given angles that closes, in which drives are as
// near to where they are wanted as closing allows (closure first, drives in what is left,
// home in what is left of that), whatever way might lead there.
func (m *Mechanism) Solve(a Ask, near []float64) Found {
	orbit, n := m.unknowns(a, m.movable(a))
	y := m.system(orbit, n, spotsOf(a))
	x := y.gather(near)
	rho := slices.Clone(m.from(a))
	rows := y.rows + len(y.pulls)
	c, jac := make([]float64, rows), make([]float64, rows*n)
	home := slices.Clone(x)
	for i, o := range orbit {
		switch {
		case o < 0:
		case a.Home == Towards:
			home[o] = a.Target[i]
		case a.Home == Evenly:
			home[o] = 0
		}
	}
	for range solveRound {
		y.spread(x, rho)
		y.eval(rho, c, jac)
		step := m.prior(a, y, x, c, jac, home)
		var most float64
		for _, v := range step {
			most = math.Max(most, math.Abs(v))
		}
		scale := math.Min(1, mostMove/math.Max(most, 1e-300))
		for o := range x {
			x[o] += scale * step[o]
		}
		if most < 1e-13 {
			break
		}
	}
	y.spread(x, rho)
	f := m.found(a, y, rho, nil)
	switch {
	case f.Closure > m.closed():
		f.State = Stuck
	case f.MissDeg*math.Pi/180 > reached || f.MissMM/m.size > reached:
		f.State = Over
	}
	return f
}

// prior is the step by priority: -J⁺c, then drives in its null space, then home in what
// they leave.
func (m *Mechanism) prior(a Ask, y *system, x, c, jac, home []float64) []float64 {
	n := y.n
	step := mat.NewVecDense(n, nil)
	null := eye(n)
	if y.rows > 0 {
		s, v := pseudo(mat.NewDense(y.rows, n, slices.Clone(jac[:y.rows*n])), negative(c[:y.rows]), closureCut)
		step.AddVec(step, s)
		null = v
	}
	if _, k := null.Dims(); k == 0 {
		return step.RawVector().Data
	}
	var rows []float64
	var res []float64
	seen := map[int32]bool{}
	pulls := 0
	for _, d := range a.Drives {
		if d.Spots != nil {
			r := y.rows + pulls
			rows, res = append(rows, jac[r*n:(r+1)*n]...), append(res, d.Want/m.size-c[r])
			pulls++
			continue
		}
		if o := y.orbit[d.Hinge]; o >= 0 && !seen[o] {
			seen[o] = true
			row := make([]float64, n)
			row[o] = 1
			rows, res = append(rows, row...), append(res, d.Want-x[o])
		}
	}
	if len(res) > 0 {
		d := mat.NewDense(len(res), n, rows)
		var dn mat.Dense
		dn.Mul(d, null)
		var done mat.VecDense
		done.MulVec(d, step)
		for i := range res {
			res[i] -= done.AtVec(i)
		}
		z, rest := pseudo(&dn, res, driveCut)
		var move mat.VecDense
		move.MulVec(null, z)
		step.AddVec(step, &move)
		if _, k := rest.Dims(); k == 0 {
			return step.RawVector().Data
		}
		var left mat.Dense
		left.Mul(null, rest)
		null = &left
	}
	away := mat.NewVecDense(n, nil)
	for o := range x {
		away.SetVec(o, home[o]-x[o]-step.AtVec(o))
	}
	var z, move mat.VecDense
	z.MulVec(null.T(), away)
	move.MulVec(null, &z)
	step.AddVec(step, &move)
	return step.RawVector().Data
}

func negative(v []float64) []float64 {
	out := make([]float64, len(v))
	for i := range v {
		out[i] = -v[i]
	}
	return out
}

func eye(n int) *mat.Dense {
	out := mat.NewDense(n, n, nil)
	for i := range n {
		out.Set(i, i, 1)
	}
	return out
}

// pseudo solves j x = r with the least x, and gives a basis of the null space of j;
// singular values below cut of the largest (or of 1) count as none.
func pseudo(j *mat.Dense, r []float64, cut float64) (*mat.VecDense, *mat.Dense) {
	rows, n := j.Dims()
	x := mat.NewVecDense(n, nil)
	var svd mat.SVD
	if !svd.Factorize(j, mat.SVDFull) {
		return x, eye(n)
	}
	values := svd.Values(nil)
	var u, v mat.Dense
	svd.UTo(&u)
	svd.VTo(&v)
	rank := 0
	for k, s := range values {
		if s <= cut*math.Max(values[0], 1) || k >= rows {
			break
		}
		rank++
		var p float64
		for i := range rows {
			p += u.At(i, k) * r[i]
		}
		for o := range n {
			x.SetVec(o, x.AtVec(o)+v.At(o, k)*p/s)
		}
	}
	if rank == n {
		return x, &mat.Dense{}
	}
	return x, mat.DenseCopyOf(v.Slice(0, n, rank, n))
}
