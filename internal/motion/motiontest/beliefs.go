package motiontest

import (
	"os"
	"testing"
)

// Believes tells whether the table of beliefs is being made.
func Believes() bool { return os.Getenv("TUSSOCK_BELIEFS") != "" }

// Believe adds text to the table of beliefs, when it is being made.
func Believe(t testing.TB, text string) {
	t.Helper()
	if !Believes() {
		return
	}
	f, err := os.OpenFile(os.Getenv("TUSSOCK_BELIEFS"), os.O_APPEND|os.O_CREATE|os.O_WRONLY, 0o644)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := f.WriteString(text); err != nil {
		t.Fatal(err)
	}
	if err := f.Close(); err != nil {
		t.Fatal(err)
	}
}
