package sheet

// How far a crease opens again by itself: elastic-plastic bending round a radius.

// Radii round which a crease is pressed, in mm, by its character.
var creaseRadii = map[string]float64{"sharp": 0.1, "firm": 0.3, "soft": 1.0, "bend": 2.0}

// CreaseRadius is the radius in mm of a crease pressed so: sharp (nail or bone), firm
// (finger), soft, or a bend without a crease.
func CreaseRadius(character string) float64 {
	if r, known := creaseRadii[character]; known {
		return r
	}
	return creaseRadii["firm"]
}

const (
	// yieldStrain is the strain at which paper begins to keep a bend, 1.2 %.
	yieldStrain = 0.012
	// recoveryDeg is the slow recovery that comes on top, 10 to 30 degrees.
	recoveryDeg = 15.0
)

// RestOpening is the angle in degrees to which a fold of n layers opens by itself
// after it was pressed round a radius: 0 stays flat shut, 180 opens flat. Layer i is
// bent round R + (i - 1/2) t; the share 1.5u - 0.5u³ of its bend springs back, with
// u = that radius over t/(2·1.2 %), at most 1 (elastic, perfectly plastic bending).
// Delayed recovery of 15° is added. Computed for ordinary paper; damp paper opens less.
func RestOpening(layers int, thicknessMM, radiusMM float64) float64 {
	if layers < 1 {
		return 0
	}
	yield := thicknessMM / (2 * yieldStrain)
	mean := 0.0
	for i := 1; i <= layers; i++ {
		mean += Springback((radiusMM+(float64(i)-0.5)*thicknessMM)/yield) / float64(layers)
	}
	return recoveryDeg + (1-recoveryDeg/180)*180*mean
}
