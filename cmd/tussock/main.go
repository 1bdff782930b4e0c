// Command tussock is the whole program: it serves the workbench, and folds
// patterns from the command line for scripts.
package main

import (
	"context"
	"errors"
	"fmt"
	"os"
	"os/signal"
	"path/filepath"
	"syscall"

	"github.com/spf13/cobra"
)

// errReported ends the program with code 1 after the error has been printed.
var errReported = errors.New("reported")

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	if err := root().ExecuteContext(ctx); err != nil {
		if !errors.Is(err, errReported) {
			fmt.Fprintln(os.Stderr, "tussock:", err)
		}
		stop()
		os.Exit(1)
	}
}

func root() *cobra.Command {
	c := &cobra.Command{Use: "tussock", Short: "A workbench for folded paper toys that move", SilenceUsage: true, SilenceErrors: true}
	c.CompletionOptions.DisableDefaultCmd = true
	c.AddCommand(serveCommand(), demoCommand(), replayCommand(), ordersCommand(), spreadCommand(), checkCommand(), wordsCommand(), modelsCommand(), backupCommand(), restoreCommand(), openAPICommand())
	return c
}

// dataFile is where a person's data lies unless told otherwise.
func dataFile(name string) string {
	if dir := os.Getenv("XDG_DATA_HOME"); dir != "" {
		return filepath.Join(dir, "tussock", name)
	}
	home, err := os.UserHomeDir()
	if err != nil {
		return name
	}
	return filepath.Join(home, ".local", "share", "tussock", name)
}
