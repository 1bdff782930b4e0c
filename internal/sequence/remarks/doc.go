// Package remarks looks patterns and their replays over: whether a sheet does and what
// would, where a landmark misses, what usually goes wrong, what deserves a caution, and
// what a leftover is good for.
package remarks
