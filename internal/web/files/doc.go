// Package files takes builds and backups in and hands them out.
package files
