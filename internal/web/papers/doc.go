// Package papers answers what is asked of papers and sheets: the drawer, ways to a sheet,
// divisions, cuts, and what can be made of a piece.
package papers
