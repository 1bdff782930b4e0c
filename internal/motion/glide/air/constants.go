package air

// The air, as in a hall at about 20 °C.
const (
	AirDensity = 1.20   // kg/m³
	Viscosity  = 1.5e-5 // kinematic, m²/s
	Gravity    = 9.81   // m/s²
)

// NoseBendMM is the length of the nose that a nose bend turns.
const NoseBendMM = 20

const Metres = 1e-3

// What the model takes, with what is known of each. None is fitted to a test.
const (
	// curlEfficiency: a lip of soft paper in a thick boundary layer turns the air less
	// than thin-aerofoil theory says.
	CurlEfficiency = 0.75
	// curlSpan is the angle, rad, at which a lip's effect levels off.
	CurlSpan = 0.40
	// suctionKept is the part of leading-edge suction that a folded edge keeps.
	SuctionKept = 0.2
	// frictionFactor is for layer edges, pockets and pleats on top of a smooth plate.
	FrictionFactor = 1.2
	// bluntEdge is the drag coefficient of the folded front edge over its front area.
	BluntEdge = 0.4
	// layerFrontM is the height of one layer at the front edge with the air between.
	layerFrontM = 0.15e-3
	// areaTravel is how far the centre of pressure goes from the neutral point to the
	// centre of the area, over |sin a|.
	AreaTravel = 1.0
	// plateNormal is the normal force coefficient of a square plate across the wind.
	PlateNormal = 1.17
	// dampingLeft is what is left of pitch damping when the air comes across.
	DampingLeft = 0.2
	// softeningSpeed is the speed at which bent edges have lost half of their effect.
	SofteningSpeed = 16.0
	// tipInset is the part of its width by which the outermost strip of a free edge is
	// shortened: the whirl leaves the paper a little inside of the tip.
	tipInset = 0.25
	// frictionSpeed is the speed, m/s, for which friction is told; it scales with the
	// root of its inverse.
	FrictionSpeed = 6.0
)
