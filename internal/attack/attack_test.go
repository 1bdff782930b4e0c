// Package attack does to Tussock what goes wrong in a hall: it is killed, fed nonsense,
// served by two hands at once, given files of others. A short form runs with all tests;
// make attack runs the long one and prints what was tried, what survived and what was lost.
package attack

import (
	"context"
	"fmt"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"
)

// long is whether the long form was asked for.
var long = os.Getenv("TUSSOCK_ATTACK") != ""

// rounds is how often something is tried.
func rounds(short, full int) int {
	if long {
		return full
	}
	return short
}

// told is the table that is printed in the end.
var told = struct {
	sync.Mutex
	rows map[string]*row
}{rows: map[string]*row{}}

type row struct{ tried, survived, lost int }

// note adds to a row of the table.
func note(what string, tried, survived, lost int) {
	told.Lock()
	defer told.Unlock()
	r := told.rows[what]
	if r == nil {
		r = &row{}
		told.rows[what] = r
	}
	r.tried += tried
	r.survived += survived
	r.lost += lost
}

// program is the built program.
var program string

func TestMain(m *testing.M) {
	os.Exit(run(m))
}

func run(m *testing.M) int {
	dir, err := os.MkdirTemp("", "tussock-attack-")
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		return 1
	}
	defer func() { _ = os.RemoveAll(dir) }() // what is left of it is the system's to clear
	program = filepath.Join(dir, "tussock")
	if out, err := exec.CommandContext(context.Background(), "go", "build", "-o", program, "tussock/cmd/tussock").CombinedOutput(); err != nil {
		fmt.Fprintf(os.Stderr, "%v\n%s", err, out)
		return 1
	}
	code := m.Run()
	told.Lock()
	defer told.Unlock()
	var names []string
	for n := range told.rows {
		names = append(names, n)
	}
	slices.Sort(names)
	if testing.Verbose() {
		fmt.Printf("%-58s %8s %9s %6s\n", "", "tried", "survived", "lost")
		for _, n := range names {
			r := told.rows[n]
			fmt.Printf("%-58s %8d %9d %6d\n", n, r.tried, r.survived, r.lost)
		}
	}
	return code
}

// running is the program at work.
type running struct {
	url string
	cmd *exec.Cmd
	out *strings.Builder
	mu  *sync.Mutex
	// gone is closed when it has ended, well when well is set.
	gone chan struct{}
	well bool
}

var address = regexp.MustCompile(`Tussock is at (http://\S+)`)

// begin starts the program; it is there when it has told its address.
func begin(t *testing.T, args ...string) *running {
	t.Helper()
	r := launch(t, args...)
	for deadline := time.Now().Add(20 * time.Second); time.Now().Before(deadline); time.Sleep(3 * time.Millisecond) {
		r.mu.Lock()
		m := address.FindStringSubmatch(r.out.String())
		r.mu.Unlock()
		if m != nil {
			r.url = m[1]
			return r
		}
	}
	t.Fatalf("%v does not start: %s", args, r.out)
	return nil
}

func launch(t *testing.T, args ...string) *running {
	t.Helper()
	cmd := exec.CommandContext(t.Context(), program, append(args, "--addr", "127.0.0.1:0")...)
	r := &running{cmd: cmd, out: &strings.Builder{}, mu: &sync.Mutex{}, gone: make(chan struct{})}
	cmd.Stdout, cmd.Stderr = r, r
	if err := cmd.Start(); err != nil {
		t.Fatal(err)
	}
	go func() {
		r.well = cmd.Wait() == nil
		close(r.gone)
	}()
	return r
}

// Write takes what the program says.
func (r *running) Write(b []byte) (int, error) {
	r.mu.Lock()
	defer r.mu.Unlock()
	return r.out.Write(b)
}

// launchPlain is a command that serves nothing.
func launchPlain(t *testing.T, args ...string) *exec.Cmd {
	t.Helper()
	return exec.CommandContext(t.Context(), program, args...)
}

// kill ends it as a power cut would.
func (r *running) kill() {
	_ = r.cmd.Process.Kill() // it may have gone already
	<-r.gone
}

// ends waits for a program that refuses to start, and gives what it says.
func (r *running) ends(t *testing.T) string {
	t.Helper()
	select {
	case <-r.gone:
		if r.well {
			t.Errorf("it ends as if all were well: %s", r.out)
		}
	case <-time.After(20 * time.Second):
		r.kill()
		t.Errorf("it does not end")
	}
	r.mu.Lock()
	defer r.mu.Unlock()
	return r.out.String()
}

// call asks a server; 0 when it does not answer.
func call(ctx context.Context, method, url, body string) (status int, answer string) {
	req, err := http.NewRequestWithContext(ctx, method, url, strings.NewReader(body))
	if err != nil {
		return -1, err.Error()
	}
	if body != "" {
		req.Header.Set("Content-Type", "application/json")
	}
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		return 0, err.Error()
	}
	b, err := io.ReadAll(res.Body)
	if cerr := res.Body.Close(); err != nil || cerr != nil {
		return 0, "cut off"
	}
	return res.StatusCode, string(b)
}
