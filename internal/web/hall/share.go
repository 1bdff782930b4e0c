package hall

import (
	"crypto/rand"
	"crypto/subtle"
	"encoding/base64"
	"fmt"
	"math/big"
	"net"
	"net/http"
	"strings"
	"sync"
	"time"

	"github.com/skip2/go-qrcode"
)

// Sharing lets other devices of the hall network in, each with a code of its own that
// works once. Devices that are in stay in until the program ends.
type Sharing struct {
	URL string // where other devices find this one

	mu     sync.Mutex
	code   string
	tokens map[string]bool
	wrong  int
	rest   time.Time // until when no code is taken
	Now    func() time.Time
}

const (
	codeLetters = "ABCDEFGHJKLMNPQRSTUVWXYZ23456789" // without those that look alike
	CodeLength  = 6
	// After so many wrong codes none is taken for a while.
	MostWrong = 8
	RestFor   = time.Minute
	Cookie    = "tussock-share"
)

// NewSharing makes a first code.
func NewSharing(url string) (*Sharing, error) {
	s := &Sharing{URL: url, tokens: map[string]bool{}, Now: time.Now}
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

// admit takes a code and gives a token; each code works once.
func (s *Sharing) admit(code string) (token string, ok bool) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.Now().Before(s.rest) {
		return "", false
	}
	if subtle.ConstantTimeCompare([]byte(strings.ToUpper(strings.TrimSpace(code))), []byte(s.code)) != 1 {
		if s.wrong++; s.wrong >= MostWrong {
			s.wrong, s.rest = 0, s.Now().Add(RestFor)
		}
		return "", false
	}
	b := make([]byte, 32)
	if _, err := rand.Read(b); err != nil {
		return "", false
	}
	token = base64.RawURLEncoding.EncodeToString(b)
	s.tokens[token], s.wrong = true, 0
	return token, s.renew() == nil
}

func (s *Sharing) knows(r *http.Request) bool {
	c, err := r.Cookie(Cookie)
	if err != nil {
		return false
	}
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.tokens[c.Value]
}

// fromHere tells whether a request comes from this machine and means it by name.
func fromHere(r *http.Request) bool {
	host := r.Host
	if h, _, err := net.SplitHostPort(host); err == nil {
		host = h
	}
	ip := net.ParseIP(strings.Trim(host, "[]"))
	if host != "localhost" && (ip == nil || !ip.IsLoopback()) {
		return false
	}
	from, _, err := net.SplitHostPort(r.RemoteAddr)
	if err != nil {
		return false
	}
	peer := net.ParseIP(from)
	return peer != nil && peer.IsLoopback()
}

// Guarded lets this machine in, and with sharing those who have brought a code. A
// request that names the server by anything but an address is refused: a page
// elsewhere could point its own name here.
func Guarded(next http.Handler, s *Sharing) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if fromHere(r) {
			next.ServeHTTP(w, r)
			return
		}
		host := r.Host
		if h, _, err := net.SplitHostPort(host); err == nil {
			host = h
		}
		switch {
		case s == nil:
			http.Error(w, "Tussock answers on this machine only", http.StatusForbidden)
		case net.ParseIP(strings.Trim(host, "[]")) == nil:
			http.Error(w, "Come in by the address that Tussock shows, not by a name", http.StatusForbidden)
		case r.URL.Path == "/join" && r.Method == http.MethodGet:
			token, ok := s.admit(r.URL.Query().Get("code"))
			if !ok {
				http.Error(w, "This code is wrong or has been used. Ask for the one that is shown now.", http.StatusForbidden)
				return
			}
			http.SetCookie(w, &http.Cookie{Name: Cookie, Value: token, Path: "/", HttpOnly: true, SameSite: http.SameSiteStrictMode})
			http.Redirect(w, r, "/", http.StatusSeeOther)
		case s.knows(r):
			next.ServeHTTP(w, r)
		default:
			http.Error(w, "Ask for a code where Tussock runs, and come in by "+s.URL+"/join?code=…", http.StatusForbidden)
		}
	})
}
