// Package layermap reads a flat-folded toy layer by layer: how many lie where,
// which faces show, what its outline is, which edges are hidden, and where it has
// pockets.
//
// In words: lay the folded toy on a light table. Where more layers lie it is
// darker; the dark patches are the cells of the layer map. Run a finger along the
// rim and you have the silhouette; slip a nail between two layers and, where it
// is held on the sides, you have found a pocket.
//
// Lengths are mm, areas mm², all in the folded plane.
package layermap
