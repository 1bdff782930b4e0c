package answer

import (
	"encoding/json"
	"math"
	"sync"

	"github.com/hashicorp/golang-lru/v2/simplelru"
)

// Kept keeps answers by their questions. When they take more room than they may, those that
// were not asked for the longest go first.
type Kept[V any] struct {
	mu   sync.Mutex
	lru  *simplelru.LRU[string, sized[V]]
	room int // taken, bytes
	most int
	per  int
}

type sized[V any] struct {
	v     V
	bytes int
}

// NewKept keeps answers in so many bytes. per is how many bytes of memory an answer takes
// for each byte that it has as JSON.
func NewKept[V any](most, per int) *Kept[V] {
	k := &Kept[V]{most: most, per: per}
	// It is bounded by bytes alone, and a size above nought is never refused.
	k.lru, _ = simplelru.NewLRU(math.MaxInt32, func(_ string, s sized[V]) { k.room -= s.bytes })
	return k
}

// Get is what is kept under a question.
func (k *Kept[V]) Get(question string) (V, bool) {
	k.mu.Lock()
	defer k.mu.Unlock()
	s, found := k.lru.Get(question)
	return s.v, found
}

// Add keeps an answer; told is what it is told as, by which its size is known. What is too
// large for all the room there is is not kept.
func (k *Kept[V]) Add(question string, v V, told any) {
	text, err := json.Marshal(told)
	if err != nil {
		return // it cannot be told either
	}
	bytes := k.per*len(text) + len(question)
	if bytes > k.most {
		return
	}
	k.mu.Lock()
	defer k.mu.Unlock()
	k.lru.Remove(question) // counted off before it is counted anew
	k.lru.Add(question, sized[V]{v, bytes})
	for k.room += bytes; k.room > k.most; {
		k.lru.RemoveOldest()
	}
}
