package leap

const (
	Gravity    = 9.81 // m/s²
	airDensity = 1.20 // kg/m³, a hall at about 20 °C

	// FingerShare is what the finger that slips off leaves of the spring's energy.
	FingerShare = 0.85
	// CatchLoss and CatchMM: a foot that passes the hip is caught by the finger. From
	// CatchMM on it costs CatchLoss of the energy.
	CatchLoss, CatchMM = 0.8, 3.0
	// DragShape is the drag of a tumbling plate over its whole area, times the part of
	// the area that it shows on average.
	DragShape, ShownArea = 1.2, 0.6
	// spinDrag is the drag of a plate that turns about its middle.
	spinDrag = 1.2
)

// Contact of the nose with the table: a stiff spring with damping, N/m and N·s/m.
const noseStiffness, noseDamping = 300.0, 0.25
