// Package e2e holds the tests that drive the real page in a real browser, the way
// a person does: by what is written on the screen, with mouse and keys.
package e2e
