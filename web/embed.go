// Package page holds the built front end, embedded into the program.
package page

import (
	"embed"
	"io/fs"
)

//go:embed all:dist
var files embed.FS

// FS is the built page; ok is false when it has not been built yet.
func FS() (dist fs.FS, ok bool) {
	dist, err := fs.Sub(files, "dist")
	if err != nil {
		return nil, false
	}
	_, err = fs.Stat(dist, "index.html")
	return dist, err == nil
}
