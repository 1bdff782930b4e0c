package hall

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"encoding/base64"
	"encoding/hex"
	"fmt"
	"math/big"
	"net"
	"net/http"
	"slices"
	"strings"
	"sync"
	"time"

	"github.com/skip2/go-qrcode"

	"tussock/internal/bench"
	"tussock/internal/store"
)

// Sharing lets other devices of the hall network in, each with a code of its own that
// works once. A device that is in stays in until it is put out, also over a restart.
type Sharing struct {
	URL string // where other devices find this one
	// Shown is told of each new code, to show it at the machine.
	Shown func(code string)
	Now   func() time.Time

	store  *store.Store
	mu     sync.Mutex
	code   string
	used   []string                 // codes that have let somebody in, the last few
	guests map[string]*store.Device // by the hash of what they bring
	wrong  map[string]*misses       // by address
	seen   map[int64]time.Time      // not kept yet
}

// misses are the wrong codes from one address.
type misses struct {
	n    int
	rest time.Time // until when none is taken from there
}

const (
	codeLetters = "ABCDEFGHJKLMNPQRSTUVWXYZ23456789" // without those that look alike
	CodeLength  = 6
	// After so many wrong codes from one address none is taken from there for a while.
	MostWrong = 8
	RestFor   = time.Minute
	Cookie    = "tussock-share"
	// stay is how long a browser keeps what it was let in with.
	stay = 90 * 24 * time.Hour
	// mostUsed, mostAddresses bound what is remembered.
	mostUsed, mostAddresses = 64, 1024
	// MostGuests bounds the devices that are in.
	MostGuests = 256
	// seenEvery is how often it is kept when a device was last seen.
	seenEvery = time.Minute
)

// NewSharing makes a first code, and knows the devices that were let in before.
func NewSharing(ctx context.Context, url string, kept *store.Store) (*Sharing, error) {
	s := &Sharing{URL: url, Now: time.Now, store: kept, guests: map[string]*store.Device{}, wrong: map[string]*misses{}, seen: map[int64]time.Time{}}
	list, tokens, err := kept.Devices(ctx)
	if err != nil {
		return nil, err
	}
	for i := range list {
		s.guests[tokens[i]] = &list[i]
	}
	return s, s.renew()
}

func (s *Sharing) renew() error {
	var b strings.Builder
	for range CodeLength {
		n, err := rand.Int(rand.Reader, big.NewInt(int64(len(codeLetters))))
		if err != nil {
			return err
		}
		b.WriteByte(codeLetters[n.Int64()])
	}
	s.code = b.String()
	return nil
}

// Code is the one that lets the next device in.
func (s *Sharing) Code() string {
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.code
}

// JoinURL opens the door with the present code.
func (s *Sharing) JoinURL() string { return s.URL + "/join?code=" + s.Code() }

// QR is the join address as a square of dark and light modules.
func (s *Sharing) QR() ([][]bool, error) {
	q, err := qrcode.New(s.JoinURL(), qrcode.Medium)
	if err != nil {
		return nil, err
	}
	return q.Bitmap(), nil
}

// Words is the code and its picture for a terminal.
func (s *Sharing) Words() (string, error) {
	q, err := qrcode.New(s.JoinURL(), qrcode.Medium)
	if err != nil {
		return "", err
	}
	return fmt.Sprintf("Other devices on this network: %s\nCode for the next device: %s\n%s", s.URL, s.Code(), q.ToSmallString(false)), nil
}

// verdict is what comes of a code.
type verdict int

const (
	taken verdict = iota
	wrongCode
	usedCode
	tooMany // wrong ones from this address: the code itself is not looked at
	full
)

// admit takes a code from an address and gives a token; each code works once.
func (s *Sharing) admit(ctx context.Context, code, name, address string) (token string, v verdict, err error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	m := s.wrong[address]
	if m != nil && s.Now().Before(m.rest) {
		return "", tooMany, nil
	}
	code = strings.ToUpper(strings.TrimSpace(code))
	if code != s.code {
		if slices.Contains(s.used, code) {
			return "", usedCode, nil
		}
		if m == nil {
			if len(s.wrong) >= mostAddresses {
				clear(s.wrong)
			}
			m = &misses{}
			s.wrong[address] = m
		}
		if m.n++; m.n >= MostWrong {
			m.n, m.rest = 0, s.Now().Add(RestFor)
		}
		return "", wrongCode, nil
	}
	if len(s.guests) >= MostGuests {
		return "", full, nil
	}
	b := make([]byte, 32)
	if _, err := rand.Read(b); err != nil {
		return "", wrongCode, err
	}
	token = base64.RawURLEncoding.EncodeToString(b)
	if name, err = bench.CleanName("name", name); err != nil {
		name = fmt.Sprintf("Device %d", len(s.guests)+1)
	}
	d, err := s.store.AddDevice(ctx, name, hashed(token), address)
	if err != nil {
		return "", wrongCode, err
	}
	s.guests[hashed(token)] = &d
	delete(s.wrong, address)
	s.used = append(s.used[max(0, len(s.used)-mostUsed+1):], s.code)
	if err := s.renew(); err != nil {
		return "", wrongCode, err
	}
	if s.Shown != nil {
		s.Shown(s.code)
	}
	return token, taken, nil
}

func hashed(token string) string {
	h := sha256.Sum256([]byte(token))
	return hex.EncodeToString(h[:])
}

// knows is the guest that a request comes from, or nil.
func (s *Sharing) knows(r *http.Request) *store.Device {
	c, err := r.Cookie(Cookie)
	if err != nil {
		return nil
	}
	s.mu.Lock()
	d := s.guests[hashed(c.Value)]
	var keep map[int64]time.Time
	if d != nil {
		now := s.Now()
		if now.Sub(d.SeenAt) > seenEvery {
			s.seen[d.ID] = now
			keep = s.seen
			s.seen = map[int64]time.Time{}
		}
		d.SeenAt = now
	}
	var out *store.Device
	if d != nil {
		copied := *d
		out = &copied
	}
	s.mu.Unlock()
	if keep != nil {
		// When it was last seen is told from memory; what is kept may lag behind.
		_ = s.store.SeenDevices(r.Context(), keep)
	}
	return out
}

// Devices are those that are in, first come first.
func (s *Sharing) Devices() []store.Device {
	s.mu.Lock()
	defer s.mu.Unlock()
	var out []store.Device
	for _, d := range s.guests {
		out = append(out, *d)
	}
	slices.SortFunc(out, func(a, b store.Device) int { return int(a.ID - b.ID) })
	return out
}

// change does something to a device that is in, by its number.
func (s *Sharing) change(id int64, f func(token string, d *store.Device) error) error {
	s.mu.Lock()
	defer s.mu.Unlock()
	for t, d := range s.guests {
		if d.ID == id {
			return f(t, d)
		}
	}
	return store.ErrNotFound
}

// PutOut lets a device in no longer.
func (s *Sharing) PutOut(ctx context.Context, id int64) error {
	return s.change(id, func(token string, _ *store.Device) error {
		if err := s.store.PutOut(ctx, id); err != nil {
			return err
		}
		delete(s.guests, token)
		return nil
	})
}

// Rename gives a device another name.
func (s *Sharing) Rename(ctx context.Context, id int64, name string) error {
	return s.change(id, func(_ string, d *store.Device) error {
		if err := s.store.RenameDevice(ctx, id, name); err != nil {
			return err
		}
		d.Name = name
		return nil
	})
}

// addressOf is where a request comes from.
func addressOf(r *http.Request) string {
	host, _, err := net.SplitHostPort(r.RemoteAddr)
	if err != nil {
		return r.RemoteAddr
	}
	return host
}
