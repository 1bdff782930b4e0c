// Package folding answers what is asked of patterns and their folding: steps, pictures,
// care, slips, studies and prints.
package folding
