// Package craft is a folded glider as a thing: the words its patterns have for nose, keel,
// wings and fins, the last bends, how it stands, its measures, its bent edges, and the
// strips of paper that meet the air.
package craft
