package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"os"
	"path/filepath"
	"time"

	"github.com/gofrs/flock"
	"github.com/spf13/cobra"

	"tussock/internal/demo"
	"tussock/internal/store"
	"tussock/internal/web"
	"tussock/internal/web/hall"
	page "tussock/web"
)

const defaultAddr = "127.0.0.1:7340"

// serving is what is served, and how.
type serving struct {
	addr, data string
	demo       bool // empty data are filled with the demo
	reset      bool // demo data are put aside and made anew
	share      bool // with the hall network
}

func (o *serving) flags(c *cobra.Command, file string) *cobra.Command {
	c.Flags().BoolVar(&o.share, "share", false, "listen on the hall network as well; each device comes in with a code that works once")
	c.Flags().StringVar(&o.addr, "addr", defaultAddr, "loopback address to listen on; port 0 takes a free one")
	c.Flags().StringVar(&o.data, "data", dataFile(file), "data file")
	return c
}

func serveCommand() *cobra.Command {
	var o serving
	c := &cobra.Command{Use: "serve", Short: "Serve the workbench on this machine", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error { return serve(cmd.Context(), cmd.OutOrStdout(), o) }}
	return o.flags(c, "tussock.db")
}

func demoCommand() *cobra.Command {
	o := serving{demo: true}
	c := &cobra.Command{Use: "demo", Short: "Serve the workbench with the Saltmarsh Ferry demo data", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error { return serve(cmd.Context(), cmd.OutOrStdout(), o) }}
	c.Flags().BoolVar(&o.reset, "reset", false, "put the demo data aside and make them anew")
	return o.flags(c, "demo.db")
}

// serve serves until ctx is done. The port and the data file are taken before anything is
// changed.
func serve(ctx context.Context, out io.Writer, o serving) (err error) {
	l, err := o.listen()
	if err != nil {
		return err
	}
	served := false
	defer func() {
		if !served {
			err = errors.Join(err, l.Close())
		}
	}()
	unlock, err := taking(o.data)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, unlock()) }()
	s, err := o.open(ctx, out)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, s.Close()) }()
	dist, built := page.FS()
	if !built {
		dist = nil
	}
	here := l.Addr().String()
	var sharing *hall.Sharing
	if o.share {
		if here, sharing, err = shared(ctx, out, l, s); err != nil {
			return err
		}
	}
	handler, err := web.NewShared(s, dist, sharing)
	if err != nil {
		return err
	}
	server := web.Serve(handler)
	done := make(chan error, 1)
	served = true
	go func() { done <- server.Serve(l) }()
	if _, err := fmt.Fprintf(out, "Tussock is at http://%s\n", here); err != nil {
		return err
	}
	if sharing != nil {
		words, err := sharing.Words()
		if err != nil {
			return err
		}
		if _, err := fmt.Fprint(out, words); err != nil {
			return err
		}
	}
	copies := make(chan struct{})
	go func() {
		defer close(copies)
		if err := web.Warm(ctx, handler); err != nil && ctx.Err() == nil {
			slog.Error("what is asked first could not be worked out before", "error", err)
		}
		keepCopies(ctx, s)
	}()
	defer func() { <-copies }()
	select {
	case err := <-done:
		return err
	case <-ctx.Done():
	}
	late, cancel := context.WithTimeout(context.WithoutCancel(ctx), 5*time.Second)
	defer cancel()
	if err := server.Shutdown(late); err != nil && !errors.Is(err, http.ErrServerClosed) {
		return err
	}
	return nil
}

// shared opens the house to the hall network; here is where this machine finds it.
func shared(ctx context.Context, out io.Writer, l net.Listener, s *store.Store) (here string, sharing *hall.Sharing, err error) {
	_, port, err := net.SplitHostPort(l.Addr().String())
	if err != nil {
		return "", nil, err
	}
	if sharing, err = hall.NewSharing(ctx, "http://"+net.JoinHostPort(hallAddress(), port), s); err != nil {
		return "", nil, err
	}
	sharing.Shown = func(code string) {
		// A terminal that has gone is no reason to keep people out.
		_, _ = fmt.Fprintf(out, "Somebody has come in. Code for the next device: %s\n", code)
	}
	return net.JoinHostPort("127.0.0.1", port), sharing, nil
}

func (o serving) listen() (net.Listener, error) {
	host, port, err := net.SplitHostPort(o.addr)
	if err != nil {
		return nil, fmt.Errorf("--addr %q: %w", o.addr, err)
	}
	if ip := net.ParseIP(host); host != "localhost" && (ip == nil || !ip.IsLoopback()) {
		return nil, fmt.Errorf("--addr %q is not on this machine; use 127.0.0.1:PORT, and --share for the hall network", o.addr)
	}
	on := o.addr
	if o.share {
		on = net.JoinHostPort("", port)
	}
	return net.Listen("tcp", on)
}

// open opens the data: demo data are made where there are none, rows that cannot be read
// are named, and where nothing can be read the copies are.
func (o serving) open(ctx context.Context, out io.Writer) (s *store.Store, err error) {
	if o.reset {
		if err := putAside(ctx, out, o.data); err != nil {
			return nil, err
		}
	}
	s, err = store.Open(ctx, o.data)
	if err != nil {
		return nil, pointToCopies(o.data, err)
	}
	defer func() {
		if err != nil {
			err, s = errors.Join(err, s.Close()), nil
		}
	}()
	asides, err := s.Examine(ctx)
	if err != nil {
		return s, pointToCopies(o.data, err)
	}
	for _, a := range asides {
		if _, err := fmt.Fprintf(out, "Could not be read and was set aside: %s (%s)\n", a.What, a.Why); err != nil {
			return s, err
		}
	}
	if len(asides) > 0 {
		if _, err := fmt.Fprintln(out, "All else is there. The daily copies may still have them whole: see Settings."); err != nil {
			return s, err
		}
	}
	if o.demo {
		if err := demo.Seed(ctx, s); err != nil && !errors.Is(err, store.ErrNotEmpty) {
			return s, fmt.Errorf("demo data: %w", err)
		}
	}
	return s, nil
}

// putAside moves demo data out of the way; other data are left alone.
func putAside(ctx context.Context, out io.Writer, data string) error {
	if info, err := os.Stat(data); errors.Is(err, os.ErrNotExist) || err == nil && info.Size() == 0 {
		return nil
	}
	s, err := store.Open(ctx, data)
	if err != nil {
		return fmt.Errorf("--reset: %w; it is left as it is", err)
	}
	is, err := s.Marked(ctx, store.Demo)
	// Closed whole: then nothing lies beside it.
	if err = errors.Join(err, s.Close()); err != nil {
		return err
	}
	if !is {
		return fmt.Errorf("--reset: %s does not hold demo data, so it is left as it is; name another file with --data, or move it away", data)
	}
	kept := data + ".before-reset-" + time.Now().UTC().Format("20060102-150405.000")
	if err := os.Rename(data, kept); err != nil {
		return err
	}
	_, err = fmt.Fprintf(out, "What was there before is in %s\n", kept)
	return err
}

// pointToCopies says what can be done when data cannot be read.
func pointToCopies(data string, err error) error {
	copies, cerr := store.Copies(data)
	if cerr != nil || len(copies) == 0 {
		return err
	}
	return fmt.Errorf("%w\nCopies were kept: the newest is of %s. Put it in place, the present file is kept beside it, with\n  tussock restore --data %q %q",
		err, copies[0].Day, data, filepath.Join(data+".copies", copies[0].Day+".tussock"))
}

// keepCopies keeps the copy of each day while it is served.
func keepCopies(ctx context.Context, s *store.Store) {
	for {
		if err := s.KeepCopy(ctx); err != nil && ctx.Err() == nil {
			slog.Error("the copy of today could not be kept", "error", err)
		}
		select {
		case <-ctx.Done():
			return
		case <-time.After(time.Hour):
		}
	}
}

// taking takes a data file for this program alone.
func taking(data string) (unlock func() error, err error) {
	if err := os.MkdirAll(filepath.Dir(data), 0o700); err != nil {
		return nil, fmt.Errorf("data folder: %w", err)
	}
	lock := flock.New(data+".lock", flock.SetPermissions(0o600))
	free, err := lock.TryLock()
	if err != nil {
		return nil, err
	}
	if !free {
		return nil, fmt.Errorf("another Tussock works with %s; stop it, or name another file with --data", data)
	}
	return lock.Unlock, nil
}

// hallAddress is this machine's address on its network, or the loopback address when
// it has none.
func hallAddress() string {
	addrs, err := net.InterfaceAddrs()
	if err != nil {
		return "127.0.0.1"
	}
	for _, a := range addrs {
		if n, ok := a.(*net.IPNet); ok && n.IP.To4() != nil && n.IP.IsGlobalUnicast() {
			return n.IP.String()
		}
	}
	return "127.0.0.1"
}

func backupCommand() *cobra.Command {
	var data string
	c := &cobra.Command{Use: "backup FILE", Short: "Write everything to one new file and check it", Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) (err error) {
			if _, err := os.Stat(data); err != nil {
				return fmt.Errorf("there is no data to back up: %w", err)
			}
			s, err := store.Open(cmd.Context(), data)
			if err != nil {
				return err
			}
			defer func() { err = errors.Join(err, s.Close()) }()
			if err := s.Backup(cmd.Context(), args[0]); err != nil {
				return err
			}
			_, err = fmt.Fprintf(cmd.OutOrStdout(), "Everything is in %s\n", args[0])
			return err
		}}
	c.Flags().StringVar(&data, "data", dataFile("tussock.db"), "data file")
	return c
}

func restoreCommand() *cobra.Command {
	var data string
	c := &cobra.Command{Use: "restore FILE", Short: "Replace everything by a backup; what was there is kept beside it", Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) (err error) {
			unlock, err := taking(data)
			if err != nil {
				return err
			}
			defer func() { err = errors.Join(err, unlock()) }()
			kept, err := restore(cmd.Context(), args[0], data)
			if err != nil {
				return err
			}
			if kept != "" {
				kept = "; what was there before is in " + kept
			}
			_, err = fmt.Fprintf(cmd.OutOrStdout(), "Restored from %s%s\n", args[0], kept)
			return err
		}}
	c.Flags().StringVar(&data, "data", dataFile("tussock.db"), "data file")
	return c
}

// restore puts a backup in the place of data, which may be damaged.
func restore(ctx context.Context, backup, data string) (kept string, err error) {
	s, err := store.Open(ctx, data)
	if err == nil {
		_, err = s.Examine(ctx)
		if err == nil {
			kept, err = s.Restore(ctx, backup)
			return kept, errors.Join(err, s.Close())
		}
		err = errors.Join(err, s.Close())
	}
	var no *store.Refused
	if !errors.As(err, &no) || !no.Damaged {
		return "", err
	}
	return store.PutInPlace(ctx, backup, data)
}

func openAPICommand() *cobra.Command {
	return &cobra.Command{Use: "openapi", Short: "Print the description of the API", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			y, err := web.Describe()
			if err != nil {
				return err
			}
			_, err = cmd.OutOrStdout().Write(y)
			return err
		}}
}
