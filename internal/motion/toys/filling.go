package toys

import (
	"fmt"
	"strings"

	"tussock/internal/motion"
	"tussock/internal/packs"
)

// What a zone takes from a pack.
const (
	TakesWords    = "words"
	TakesNumbers  = "numbers"
	TakesMessages = "messages"
)

// Takes is what a place takes from a pack; "" for nothing.
func (q *Writing) Takes(p Place) string {
	for _, z := range q.Zones {
		if z.Name == p.Zone {
			return z.Takes
		}
	}
	return ""
}

// Wants is how many words and messages the places of a toy take.
func (q *Writing) Wants(places []Place) (words, messages int) {
	for _, p := range places {
		switch q.Takes(p) {
		case TakesWords:
			words++
		case TakesMessages:
			messages++
		}
	}
	return words, messages
}

// Fill writes words, numbers from 1 on, and messages into the places that take them. Colours and
// pictures that are there stay, and so do words and numbers where there are none to write. read
// says that a leader has read the messages.
func (q *Writing) Fill(places []Place, w motion.Written, words, messages []string, read bool) motion.Written {
	out := motion.Written{}
	for k, m := range w {
		out[k] = m
	}
	number := 0
	for _, p := range places {
		m := out[p.Name]
		switch q.Takes(p) {
		case TakesWords:
			if len(words) == 0 {
				continue
			}
			m.Text, words = words[0], words[1:]
			if q.Colour != nil {
				if c := q.Colour(m.Text); c != "" {
					m.Colour = c
				}
			}
		case TakesNumbers:
			number++
			if m.Text != "" {
				continue
			}
			m.Text = fmt.Sprint(number)
		case TakesMessages:
			if len(messages) == 0 {
				continue
			}
			m.Text, messages, m.Read = messages[0], messages[1:], read
		default:
			continue
		}
		out[p.Name] = m
	}
	return out
}

// FillFrom fills a toy from a pack, shuffled by a seed, and tells the messages that were drawn.
func (q *Writing) FillFrom(places []Place, w motion.Written, p packs.Pack, seed uint64) (motion.Written, []packs.Entry) {
	wordsWanted, messagesWanted := q.Wants(places)
	words, entries := p.Draw(wordsWanted, messagesWanted, seed)
	said := make([]string, len(entries))
	for i, e := range entries {
		said[i] = e.Text
	}
	return q.Fill(places, w, words, said, p.Read), entries
}

// Content is how much of what is written is printed.
type Content string

// All of it, all but messages, or nothing.
const (
	Filled Content = "filled"
	Half   Content = "half"
	Blank  Content = "blank"
)

// Of is the part of what is written that is printed.
func (c Content) Of(q *Writing, places []Place, w motion.Written) motion.Written {
	if c == Filled {
		return w
	}
	out := motion.Written{}
	if c == Blank {
		return out
	}
	for _, z := range q.Zones {
		if z.Takes == TakesMessages {
			continue
		}
		for p, m := range w {
			if strings.HasPrefix(p, z.Name+" ") {
				out[p] = m
			}
		}
	}
	return out
}
