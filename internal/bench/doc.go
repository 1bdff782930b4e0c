// Package bench is what happens to a toy after it is chosen: builds, their
// tweaks, the trials made at each tweak, and the rules that keep them honest.
//
// In words: a build is one toy on the table. Its set-up is the sheet and the
// place of every knob. As long as knobs are only being moved the set-up is a
// draft; a button or the first trial makes it a numbered tweak. A trial stays
// with the tweak it was made at. Once a toy has been thrown, its hard folds
// cannot be moved any more: another place for them is another toy, a child build.
//
// The package knows patterns by id and knobs by name; it stores nothing.
package bench
