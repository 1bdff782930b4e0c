// Package sequence is fold sequences and their replay: a pattern as its text was read,
// its landmarks and lines, and what becomes of them on the sheet a person really has.
//
// In words: a pattern is a recipe. Each line says what is brought to what ("bring
// TL to keel through T"), which way it folds, what the fingers hold, and what to
// call the new crease. Landmarks are points of the paper itself, so the same
// recipe works on any sheet that can make the folds, and says clearly where one
// that can't goes wrong.
//
// Package lang reads the text, operations holds what each kind of step reads and does,
// remarks looks a pattern and its replay over, manual is the reference of the words.
// Pattern.Run drives package fold and gives a Replay.
package sequence
