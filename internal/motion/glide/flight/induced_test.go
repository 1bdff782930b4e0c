package flight

import (
	"math"
	"math/rand/v2"
	"testing"

	"tussock/internal/motion/glide/craft"
	"tussock/internal/sheet"
)

// What lift costs is near what an elliptic wake of the same span costs, on gliders folded
// with knobs at random: no wake of a keel or a fin runs away where it passes a wing. Fins at
// the tips work as end plates: a fin of a quarter of the half span saves a third.
func TestLiftHasItsPrice(t *testing.T) {
	const tries = 40
	fins := map[string]bool{"avocet": true, "turnstone": true, "godwit": true}
	for _, id := range []string{"avocet", "turnstone", "godwit", "curlew", "shelduck"} {
		p := pattern(t, id)
		rng := rand.New(rand.NewPCG(7, uint64(len(id))))
		s, err := sheet.New(p.WidthMM, p.HeightMM, 80, 0.1)
		if err != nil {
			t.Fatal(err)
		}
		folded, outside := 0, 0
		least, most := math.Inf(1), math.Inf(-1)
		for range tries {
			knobs := map[string]float64{}
			for _, k := range p.Knobs {
				if !k.Plain {
					knobs[k.Name] = k.Min + rng.Float64()*(k.Max-k.Min)
				}
			}
			knobs["wing"] = 70 + 25*rng.Float64() // a wing, not a folded packet
			r := p.Run(s, knobs)
			if r.Err != nil {
				continue
			}
			toy, ok := craft.Of(r)
			if !ok || !toy.Glider {
				continue
			}
			folded++
			price := toy.Shape.Derivatives(toy.Weight.CoM).Ki * math.Pi * toy.Shape.AspectRatio()
			least, most = math.Min(least, price), math.Max(most, price)
			if lo := map[bool]float64{true: 0.5, false: 0.95}[fins[id]]; !(price > lo && price < 1.3) {
				outside++
			}
		}
		t.Logf("%s: %d folded, Ki pi AR %.2f to %.2f, %d outside", id, folded, least, most, outside)
		if folded < tries/8 {
			t.Errorf("%s: only %d of %d fold", id, folded, tries)
		}
		if outside > 0 {
			t.Errorf("%s: %d of %d outside: %.2f to %.2f", id, outside, folded, least, most)
		}
	}
}
