// Package answer is what all areas of the API share: bodies, inputs with their checks, and
// core errors turned into the one problem shape (RFC 9457).
package answer
