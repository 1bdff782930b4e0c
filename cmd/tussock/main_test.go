package main

import (
	"bufio"
	"bytes"
	"encoding/json"
	"errors"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"tussock/internal/demo"
)

// call runs a command of the program and returns what it prints.
func call(t *testing.T, args ...string) (string, error) {
	t.Helper()
	c := root()
	var out bytes.Buffer
	c.SetOut(&out)
	c.SetErr(io.Discard)
	c.SetArgs(args)
	err := c.ExecuteContext(t.Context())
	return out.String(), err
}

func TestReplayJSON(t *testing.T) {
	file := filepath.Join("..", "..", "internal", "sequence", "testdata", "pointed.pattern")
	out, err := call(t, "replay", file, "--json", "--sheet", "215.9x279.4", "--gsm", "75")
	if err != nil {
		t.Fatal(err)
	}
	var r struct {
		OK    bool
		Sheet map[string]float64
		Steps []map[string]any
		Final map[string]any
	}
	if err := json.Unmarshal([]byte(out), &r); err != nil {
		t.Fatal(err)
	}
	if !r.OK || len(r.Steps) != 10 || r.Sheet["gsm"] != 75 {
		t.Errorf("replay gives %s", out)
	}
	for _, key := range []string{"step", "text", "moved", "facets", "max_layers", "box", "area", "com"} {
		if _, there := r.Steps[0][key]; !there {
			t.Errorf("a step has no %q", key)
		}
		if _, there := r.Final[key]; !there {
			t.Errorf("the end has no %q", key)
		}
	}
	for _, key := range []string{"mountain", "valley", "mass_g", "landmarks"} {
		if _, there := r.Final[key]; !there {
			t.Errorf("the end has no %q", key)
		}
	}
	if m := r.Final["mass_g"].(float64); m < 4.52 || m > 4.53 { // Letter at 75 g/m²
		t.Errorf("mass is %v g", m)
	}
	if r.Steps[1]["text"] != "valley bring TL to keel through T near C expect 1 as c1" {
		t.Errorf("step 2 reads %q", r.Steps[1]["text"])
	}
}

func TestReplayFailures(t *testing.T) {
	broken := filepath.Join(t.TempDir(), "broken.pattern")
	if err := os.WriteFile(broken, []byte("sheet rect 210 297\nvalley bring TL to nowhere\n"), 0o600); err != nil {
		t.Fatal(err)
	}
	for _, c := range []struct {
		args       []string
		step, line int
		code       string
	}{
		{[]string{"curlew", "--set", "nose=70"}, 2, 27, "no_line"},
		{[]string{"shelduck", "--sheet", "100x100"}, 0, 0, "require"},
		{[]string{"curlew", "--sheet", "5x5"}, 0, 0, "sheet"},
		{[]string{"curlew", "--sheet", "big"}, 0, 0, "sheet"},
		{[]string{"curlew", "--set", "nose"}, 0, 0, "knob"},
		{[]string{"curlew", "--gsm", "-4"}, 0, 0, "sheet"},
		{[]string{broken}, 0, 2, "parse"},
		{[]string{"heron"}, 0, 0, "pattern"},
	} {
		out, err := call(t, append([]string{"replay", "--json"}, c.args...)...)
		if !errors.Is(err, errReported) {
			t.Errorf("%v ends with %v, want exit code 1", c.args, err)
		}
		var r struct {
			OK    bool
			Error struct {
				Step, Line   int
				Code, Detail string
			}
		}
		if err := json.Unmarshal([]byte(out), &r); err != nil {
			t.Fatalf("%v prints %q", c.args, out)
		}
		if e := r.Error; r.OK || e.Step != c.step || e.Line != c.line || e.Code != c.code || e.Detail == "" {
			t.Errorf("%v gives %+v, want step %d line %d %s", c.args, e, c.step, c.line, c.code)
		}
	}
}

// The real program: started, asked, killed, started again, backed up, restored.
func TestProgram(t *testing.T) {
	dir := t.TempDir()
	bin := filepath.Join(dir, "tussock")
	if out, err := exec.CommandContext(t.Context(), "go", "build", "-o", bin, ".").CombinedOutput(); err != nil {
		t.Fatalf("%v: %s", err, out)
	}
	data := filepath.Join(dir, "data.db")
	start := func(args ...string) (url string, took time.Duration, kill func()) {
		t.Helper()
		begin := time.Now()
		c := exec.CommandContext(t.Context(), bin, append(args, "--addr", "127.0.0.1:0", "--data", data)...)
		pipe, err := c.StdoutPipe()
		if err != nil {
			t.Fatal(err)
		}
		if err := c.Start(); err != nil {
			t.Fatal(err)
		}
		line, err := bufio.NewReader(pipe).ReadString('\n')
		if err != nil {
			t.Fatal(err)
		}
		_, url, ok := strings.Cut(strings.TrimSpace(line), "http://")
		if !ok {
			t.Fatalf("it prints %q", line)
		}
		url = "http://" + url + "/api/v1"
		fetch(t, url+"/health")
		return url, time.Since(begin), func() {
			if err := c.Process.Kill(); err != nil {
				t.Error(err)
			}
			_ = c.Wait() // says "killed", as it was
		}
	}
	url, _, kill := start("demo")
	if n := strings.Count(fetch(t, url+"/builds"), `"pattern"`); n != len(demo.Names()) {
		t.Errorf("the demo has %d builds", n)
	}
	kill()
	url, took, kill := start("demo")
	t.Logf("start to first answer: %d ms", took.Milliseconds())
	if took > 2*time.Second {
		t.Errorf("start to first answer takes %v", took)
	}
	if n := strings.Count(fetch(t, url+"/builds"), `"pattern"`); n != len(demo.Names()) {
		t.Errorf("after the kill there are %d builds", n)
	}
	kill()
	file := filepath.Join(dir, "all.tussock")
	for _, args := range [][]string{{"backup", file, "--data", data}, {"restore", file, "--data", filepath.Join(dir, "new.db")}} {
		if out, err := call(t, args...); err != nil {
			t.Fatalf("%v: %v %s", args, err, out)
		}
	}
	data = filepath.Join(dir, "new.db")
	url, _, kill = start("serve")
	defer kill()
	if n := strings.Count(fetch(t, url+"/builds"), `"pattern"`); n != len(demo.Names()) {
		t.Errorf("restored into a new file there are %d builds", n)
	}
	if _, err := call(t, "serve", "--addr", "0.0.0.0:0", "--data", data); err == nil {
		t.Error("it listens on every network without being asked to share")
	}
}

func fetch(t *testing.T, url string) string {
	t.Helper()
	req, err := http.NewRequestWithContext(t.Context(), http.MethodGet, url, nil)
	if err != nil {
		t.Fatal(err)
	}
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		t.Fatal(err)
	}
	b, err := io.ReadAll(res.Body)
	if err != nil {
		t.Fatal(err)
	}
	if err := res.Body.Close(); err != nil {
		t.Fatal(err)
	}
	return string(b)
}
