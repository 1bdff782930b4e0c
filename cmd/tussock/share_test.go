package main

import (
	"bufio"
	"context"
	"io"
	"net/http"
	"net/http/cookiejar"
	"net/url"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
	"time"
)

// Shared, the program tells an address and a code; this machine needs none, and where
// it has an address on a network that address asks for one.
func TestServeShared(t *testing.T) {
	ctx, stop := context.WithCancel(t.Context())
	out, in := io.Pipe()
	done := make(chan error, 1)
	go func() {
		done <- serve(ctx, in, serving{addr: "127.0.0.1:0", data: filepath.Join(t.TempDir(), "t.db"), share: true})
	}()
	var text strings.Builder
	scan := bufio.NewScanner(out)
	for scan.Scan() {
		text.WriteString(scan.Text() + "\n")
		if strings.Contains(text.String(), "Code for the next device") {
			break
		}
	}
	go func() { _, _ = io.Copy(io.Discard, out) }() // the square to scan
	here := regexp.MustCompile(`Tussock is at (http://127\.0\.0\.1:\d+)`).FindStringSubmatch(text.String())
	there := regexp.MustCompile(`on this network: (http://\S+)`).FindStringSubmatch(text.String())
	code := regexp.MustCompile(`next device: ([A-Z2-9]{6})`).FindStringSubmatch(text.String())
	if here == nil || there == nil || code == nil {
		t.Fatalf("it prints %q", text.String())
	}
	jar, err := cookiejar.New(nil)
	if err != nil {
		t.Fatal(err)
	}
	device := &http.Client{Jar: jar, Timeout: 5 * time.Second}
	status := func(at string) int {
		t.Helper()
		req, err := http.NewRequestWithContext(t.Context(), http.MethodGet, at, nil)
		if err != nil {
			t.Fatal(err)
		}
		res, err := device.Do(req)
		if err != nil {
			t.Fatal(err)
		}
		if err := res.Body.Close(); err != nil {
			t.Fatal(err)
		}
		return res.StatusCode
	}
	if s := status(here[1] + "/api/v1/health"); s != 200 {
		t.Errorf("this machine is answered %d", s)
	}
	if !strings.Contains(there[1], "127.0.0.1") {
		if s := status(there[1] + "/api/v1/health"); s != 403 {
			t.Errorf("without a code: %d", s)
		}
		res, err := device.PostForm(there[1]+"/join", url.Values{"code": {code[1]}, "name": {"Tablet"}}) //nolint:noctx // the client has a time limit
		if err != nil {
			t.Fatal(err)
		}
		if err := res.Body.Close(); err != nil {
			t.Fatal(err)
		}
		if s := status(there[1] + "/api/v1/health"); s != 200 {
			t.Errorf("after the code: %d", s)
		}
	}
	stop()
	select {
	case err := <-done:
		if err != nil {
			t.Error(err)
		}
	case <-time.After(10 * time.Second):
		t.Error("it does not stop")
	}
	if err := serve(t.Context(), io.Discard, serving{addr: "192.0.2.1:0", data: filepath.Join(t.TempDir(), "t.db")}); err == nil || !strings.Contains(err.Error(), "--share") {
		t.Errorf("another address without sharing: %v", err)
	}
}
