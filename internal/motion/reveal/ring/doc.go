// Package ring is the laws of hexaflexagons: rings of triangles that show other faces when
// they are pinched and opened. It covers the pinch flex alone. Leaves are counted from 1
// along the strip; lengths are mm.
package ring
