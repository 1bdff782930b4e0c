// Package builds answers for builds, tweaks, trials, settings and the bin.
package builds
