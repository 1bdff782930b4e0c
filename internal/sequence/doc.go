// Package sequence is the pattern language: it reads a fold sequence written as
// text, names its landmarks, and replays it on the sheet a person really has.
//
// In words: a pattern is a recipe. Each line says what is brought to what ("bring
// TL to keel through T"), which way it folds, what the fingers hold, and what to
// call the new crease. Landmarks are points of the paper itself, so the same
// recipe works on any sheet that can make the folds, and says clearly where one
// that can't goes wrong.
//
// Parse gives a Pattern, Pattern.Replay drives package fold and gives a Replay.
package sequence
