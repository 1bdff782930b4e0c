package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"net"
	"net/http"
	"os"
	"time"

	"github.com/spf13/cobra"

	"tussock/internal/demo"
	"tussock/internal/store"
	"tussock/internal/web"
	"tussock/internal/web/hall"
	page "tussock/web"
)

const defaultAddr = "127.0.0.1:7340"

func serveCommand() *cobra.Command {
	var addr, data string
	var share bool
	c := &cobra.Command{Use: "serve", Short: "Serve the workbench on this machine", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			return serve(cmd.Context(), cmd.OutOrStdout(), addr, data, false, share)
		}}
	c.Flags().BoolVar(&share, "share", false, "listen on the hall network as well; each device comes in with a code that works once")
	c.Flags().StringVar(&addr, "addr", defaultAddr, "loopback address to listen on; port 0 takes a free one")
	c.Flags().StringVar(&data, "data", dataFile("tussock.db"), "data file")
	return c
}

func demoCommand() *cobra.Command {
	var addr, data string
	var reset, share bool
	c := &cobra.Command{Use: "demo", Short: "Serve the workbench with the Saltmarsh Ferry demo data", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			if reset {
				for _, end := range []string{"", "-wal", "-shm"} {
					if err := os.Remove(data + end); err != nil && !errors.Is(err, os.ErrNotExist) {
						return err
					}
				}
			}
			return serve(cmd.Context(), cmd.OutOrStdout(), addr, data, true, share)
		}}
	c.Flags().BoolVar(&share, "share", false, "listen on the hall network as well; each device comes in with a code that works once")
	c.Flags().StringVar(&addr, "addr", defaultAddr, "loopback address to listen on; port 0 takes a free one")
	c.Flags().StringVar(&data, "data", dataFile("demo.db"), "data file")
	c.Flags().BoolVar(&reset, "reset", false, "throw the demo data away and seed it anew")
	return c
}

func serve(ctx context.Context, out io.Writer, addr, data string, seed, share bool) (err error) {
	host, port, err := net.SplitHostPort(addr)
	if err != nil {
		return fmt.Errorf("--addr %q: %w", addr, err)
	}
	if ip := net.ParseIP(host); host != "localhost" && (ip == nil || !ip.IsLoopback()) {
		return fmt.Errorf("--addr %q is not on this machine; use 127.0.0.1:PORT, and --share for the hall network", addr)
	}
	listen := addr
	if share {
		listen = net.JoinHostPort("", port)
	}
	_, statErr := os.Stat(data)
	s, err := store.Open(ctx, data)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, s.Close()) }()
	if seed && errors.Is(statErr, os.ErrNotExist) {
		if err := demo.Seed(ctx, s); err != nil {
			return fmt.Errorf("demo data: %w", err)
		}
	}
	dist, built := page.FS()
	if !built {
		dist = nil
	}
	l, err := net.Listen("tcp", listen)
	if err != nil {
		return err
	}
	here := l.Addr().String()
	var sharing *hall.Sharing
	if share {
		_, taken, err := net.SplitHostPort(here)
		if err != nil {
			return err
		}
		here = net.JoinHostPort("127.0.0.1", taken)
		if sharing, err = hall.NewSharing("http://" + net.JoinHostPort(hallAddress(), taken)); err != nil {
			return err
		}
	}
	handler, err := web.NewShared(s, dist, sharing)
	if err != nil {
		return err
	}
	server := web.Serve(handler)
	done := make(chan error, 1)
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
			s, err := store.Open(cmd.Context(), data)
			if err != nil {
				return err
			}
			defer func() { err = errors.Join(err, s.Close()) }()
			kept, err := s.Restore(cmd.Context(), args[0])
			if err != nil {
				return err
			}
			_, err = fmt.Fprintf(cmd.OutOrStdout(), "Restored from %s; what was there before is in %s\n", args[0], kept)
			return err
		}}
	c.Flags().StringVar(&data, "data", dataFile("tussock.db"), "data file")
	return c
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
