// Package operations holds the steps of the fold engine, one type each: what is read
// behind its word, and what it does to the paper when a replay comes to it.
package operations
