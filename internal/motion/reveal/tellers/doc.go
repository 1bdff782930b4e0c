// Package tellers is fortune tellers: what is written on them, which fingers they fit, how
// they open and what comes up how often.
package tellers
