// Package prints lays a sheet out for the printer at true size.
//
// In words: the outline to cut, the folds as guide lines on the front, on the back or
// on both, crosses at the same place of both faces so that one sees whether they lie
// on one another, a line of known length to check the printer by, and a ruler to cut
// off. What is larger than the printer's page goes over several, with signs that are
// laid on one another.
//
// All lengths are mm. On a leaf x runs right and y down from the upper left corner of
// the page; on the sheet y runs up.
package prints
