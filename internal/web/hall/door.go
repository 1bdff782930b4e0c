package hall

import (
	"context"
	_ "embed"
	"html/template"
	"net"
	"net/http"
	"strconv"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/store"
	"tussock/internal/web/answer"
)

//go:embed door.html
var doorText string

var door = template.Must(template.New("door").Parse(doorText))

// openDoor shows a device how to come in.
func openDoor(w http.ResponseWriter, status int, code, says string) {
	h := w.Header()
	h.Set("Content-Type", "text/html; charset=utf-8")
	h.Set("Content-Security-Policy", "default-src 'none'; style-src 'unsafe-inline'; form-action 'self'; frame-ancestors 'none'; base-uri 'none'")
	h.Set("Cache-Control", "no-store")
	h.Set("Referrer-Policy", "no-referrer")
	w.WriteHeader(status)
	// Who has gone away meanwhile need not be told.
	_ = door.Execute(w, struct {
		Code, Says string
		Length     int
	}{code, says, CodeLength})
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
	peer := net.ParseIP(addressOf(r))
	return peer != nil && peer.IsLoopback()
}

type guestKey struct{}

// GuestOf is the device of the hall that asks; nil when it is this machine.
func GuestOf(ctx context.Context) *store.Device {
	d, _ := ctx.Value(guestKey{}).(*store.Device)
	return d
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
		if s == nil {
			http.Error(w, "Tussock answers on this machine only", http.StatusForbidden)
			return
		}
		if net.ParseIP(strings.Trim(host, "[]")) == nil {
			http.Error(w, "Come in by the address that Tussock shows, not by a name", http.StatusForbidden)
			return
		}
		if r.URL.Path == "/join" {
			s.join(w, r)
			return
		}
		if d := s.knows(r); d != nil {
			next.ServeHTTP(w, r.WithContext(context.WithValue(r.Context(), guestKey{}, d)))
			return
		}
		if strings.HasPrefix(r.URL.Path, "/api/") {
			answer.WriteProblem(w, http.StatusForbidden, "this device is not let in; ask for a code where Tussock runs")
			return
		}
		openDoor(w, http.StatusForbidden, "", "")
	})
}

// mostForm bounds what the door reads, bytes.
const mostForm = 4096

// join shows the door, with the code of the address filled in, and lets in who knocks with
// the right one. Looking alone uses no code up: a phone looks at an address before it
// opens it.
func (s *Sharing) join(w http.ResponseWriter, r *http.Request) {
	code := r.URL.Query().Get("code")
	if r.Method == http.MethodGet || r.Method == http.MethodHead {
		if s.knows(r) != nil {
			http.Redirect(w, r, "/", http.StatusSeeOther)
			return
		}
		openDoor(w, http.StatusOK, clipped(code), "")
		return
	}
	if r.Method != http.MethodPost {
		http.Error(w, "Come in with a code", http.StatusMethodNotAllowed)
		return
	}
	r.Body = http.MaxBytesReader(w, r.Body, mostForm)
	if err := r.ParseForm(); err != nil {
		openDoor(w, http.StatusBadRequest, "", "This could not be read.")
		return
	}
	code = r.PostForm.Get("code")
	token, v, err := s.admit(r.Context(), code, r.PostForm.Get("name"), addressOf(r))
	if err != nil {
		openDoor(w, http.StatusInternalServerError, clipped(code), "Tussock could not let this device in. Try once more.")
		return
	}
	switch v {
	case taken:
		http.SetCookie(w, &http.Cookie{Name: Cookie, Value: token, Path: "/", HttpOnly: true, SameSite: http.SameSiteLaxMode, MaxAge: int(stay.Seconds())})
		http.Redirect(w, r, "/", http.StatusSeeOther)
	case usedCode:
		openDoor(w, http.StatusForbidden, "", "This code has let another device in already. Type the one that is shown now where Tussock runs.")
	case tooMany:
		w.Header().Set("Retry-After", strconv.Itoa(int(RestFor.Seconds())))
		openDoor(w, http.StatusTooManyRequests, "", "Too many wrong codes came from this device. Wait a minute, then type the one that is shown.")
	case full:
		openDoor(w, http.StatusForbidden, "", strconv.Itoa(MostGuests)+" devices are in. One must be put out first, in Settings where Tussock runs.")
	default:
		openDoor(w, http.StatusForbidden, "", "This is not the code. It has 6 letters and digits and is shown where Tussock runs.")
	}
}

// clipped is a code that somebody else may have written into an address.
func clipped(code string) string {
	r := []rune(code)
	return string(r[:min(len(r), CodeLength)])
}

// Refuse answers guests who ask for what belongs to this machine.
func Refuse(api huma.API) func(huma.Context, func(huma.Context)) {
	return func(c huma.Context, next func(huma.Context)) {
		if answer.IsHereOnly(c.Operation()) && GuestOf(c.Context()) != nil {
			// Who has gone away meanwhile need not be told.
			_ = huma.WriteErr(api, c, http.StatusForbidden, "only the machine where Tussock runs can do this")
			return
		}
		next(c)
	}
}
