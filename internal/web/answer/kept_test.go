package answer

import (
	"fmt"
	"strings"
	"testing"
)

// What is kept stays within its room whatever comes, and what was asked for last stays.
func TestKeptByBytes(t *testing.T) {
	k := NewKept[string](10_000, 2)
	for i := range 500 {
		v := strings.Repeat("x", 1+i*37%900)
		k.Add(fmt.Sprint("q", i), v, v)
		k.Add("again", "the same", "the same")
		if got, found := k.Get(fmt.Sprint("q", i)); !found || got != v {
			t.Fatalf("answer %d is not kept", i)
		}
		if k.room > k.most || k.room <= 0 {
			t.Fatalf("%d of %d bytes are taken", k.room, k.most)
		}
		if _, found := k.Get("again"); !found {
			t.Fatal("what is asked for all the time is gone")
		}
	}
	counted := 0
	for _, s := range k.lru.Values() {
		counted += s.bytes
	}
	if counted != k.room || k.lru.Len() < 5 || k.lru.Len() > 100 {
		t.Errorf("%d bytes in %d answers, counted as %d", counted, k.lru.Len(), k.room)
	}
	k.Add("too large", strings.Repeat("x", 6000), strings.Repeat("x", 6000))
	if _, found := k.Get("too large"); found || k.lru.Len() < 5 {
		t.Error("one that does not fit drives the others out")
	}
	k.Add("cannot be told", "x", make(chan int))
	if _, found := k.Get("cannot be told"); found {
		t.Error("what cannot be told is kept")
	}
}
