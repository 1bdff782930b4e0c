// Package rings is hexaflexagons: rings of triangles that are pinched and opened, with what
// is drawn on their faces.
package rings
