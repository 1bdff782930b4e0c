// Command thirdparty writes what others have made and Tussock ships: Go packages in the
// program, npm packages and fonts in the page, each with its version and licence.
package main

import (
	"bufio"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"maps"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
)

func main() {
	root := "."
	if len(os.Args) > 1 {
		root = os.Args[1]
	}
	if err := write(context.Background(), os.Stdout, root); err != nil {
		fmt.Fprintln(os.Stderr, "thirdparty:", err)
		os.Exit(1)
	}
}

// part is something that is shipped.
type part struct{ name, version, licence string }

// write writes the whole document for the sources below root.
func write(ctx context.Context, w io.Writer, root string) error {
	goes, err := modules(ctx, root)
	if err != nil {
		return err
	}
	packed, fonts, err := packages(root)
	if err != nil {
		return err
	}
	out := bufio.NewWriter(w)
	fmt.Fprint(out, "# Made by others\n\nWhat Tussock ships of others, by `make third-party`. Their licences come with their sources.\n")
	for _, s := range []struct {
		title string
		parts []part
	}{{"Fonts in the page", fonts}, {"npm packages in the page", packed}, {"Go packages in the program", goes}} {
		fmt.Fprintf(out, "\n## %s\n\n| Part | Version | Licence |\n|---|---|---|\n", s.title)
		for _, p := range s.parts {
			fmt.Fprintf(out, "| %s | %s | %s |\n", p.name, p.version, p.licence)
		}
	}
	return out.Flush()
}

// modules are those that the program is built from.
func modules(ctx context.Context, root string) ([]part, error) {
	cmd := exec.CommandContext(ctx, "go", "list", "-deps", "-f", "{{with .Module}}{{if not .Main}}{{.Path}}\t{{.Version}}\t{{.Dir}}{{end}}{{end}}", "./cmd/tussock")
	cmd.Dir = root
	text, err := cmd.Output()
	if err != nil {
		return nil, fmt.Errorf("go list: %w", err)
	}
	seen := map[string]part{}
	for line := range strings.Lines(string(text)) {
		f := strings.Split(strings.TrimSpace(line), "\t")
		if len(f) != 3 {
			continue
		}
		licence, err := licenceIn(f[2])
		if err != nil {
			return nil, fmt.Errorf("%s: %w", f[0], err)
		}
		seen[f[0]] = part{f[0], f[1], licence}
	}
	var out []part
	for _, name := range slices.Sorted(maps.Keys(seen)) {
		out = append(out, seen[name])
	}
	return out, nil
}

// known are licences by words that only they have.
var known = []struct {
	words *regexp.Regexp
	name  string
}{
	{regexp.MustCompile(`Apache License`), "Apache-2.0"},
	{regexp.MustCompile(`Mozilla Public License`), "MPL-2.0"},
	{regexp.MustCompile(`(?s)Redistribution and use.*(Neither the name|endorse or promote)`), "BSD-3-Clause"},
	{regexp.MustCompile(`Redistribution and use`), "BSD-2-Clause"},
	{regexp.MustCompile(`(?i)permission to use, copy, modify, and(/or)? distribute`), "ISC"},
	{regexp.MustCompile(`(?is)permission is hereby granted, free of charge.*without restriction`), "MIT"},
	{regexp.MustCompile(`(?i)free and unencumbered software`), "Unlicense"},
}

// licenceIn names the licence that lies in a folder.
func licenceIn(folder string) (string, error) {
	entries, err := os.ReadDir(folder)
	if err != nil {
		return "", err
	}
	for _, e := range entries {
		if name := strings.ToLower(e.Name()); e.IsDir() || !strings.HasPrefix(name, "licen") && !strings.HasPrefix(name, "copying") && !strings.HasPrefix(name, "unlicense") {
			continue
		}
		text, err := os.ReadFile(filepath.Join(folder, e.Name()))
		if err != nil {
			return "", err
		}
		flat := strings.Join(strings.Fields(string(text)), " ")
		for _, k := range known {
			if k.words.MatchString(flat) {
				return k.name, nil
			}
		}
	}
	return "", errors.New("its licence is not recognised; look at it, and say in thirdparty what it is")
}

// packages are what the page is built from, and the fonts among it.
func packages(root string) (packed, fonts []part, err error) {
	text, err := os.ReadFile(filepath.Join(root, "web", "package-lock.json"))
	if err != nil {
		return nil, nil, err
	}
	var lock struct {
		Packages map[string]struct {
			Version, License    string
			Dev, Optional, Peer bool
			DevOptional         bool
		}
	}
	if err := json.Unmarshal(text, &lock); err != nil {
		return nil, nil, err
	}
	for _, path := range slices.Sorted(maps.Keys(lock.Packages)) {
		p := lock.Packages[path]
		i := strings.LastIndex(path, "node_modules/")
		if i < 0 || p.Dev || p.DevOptional || strings.Contains(path, "/@types/") {
			continue
		}
		name := path[i+len("node_modules/"):]
		if p.License == "" {
			return nil, nil, fmt.Errorf("%s names no licence", name)
		}
		to := &packed
		if strings.HasPrefix(name, "@fontsource") {
			to = &fonts
		}
		if q := (part{name, p.Version, p.License}); !slices.Contains(*to, q) {
			*to = append(*to, q)
		}
	}
	return packed, fonts, nil
}
