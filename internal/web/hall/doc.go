// Package hall lets other devices of the network in, and tells them where somebody is.
package hall
