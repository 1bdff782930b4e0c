// Package lang reads the pattern language: lines to tokens, macros and repeats written
// out, names checked, places and lines to expressions. What kinds of steps and heads
// there are is handed to it as a Language.
package lang
