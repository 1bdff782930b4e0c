package basis

// OfShape is what people call a corner, a side or its middle of a sheet that is no rectangle,
// by its name: P1, E1, M1.
func OfShape(name string) (string, bool) {
	if len(name) != 2 || name[1] < '1' || name[1] > '9' {
		return "", false
	}
	words, ok := map[byte]string{'P': "corner ", 'M': "the middle of side ", 'E': "side "}[name[0]]
	return words + name[1:], ok
}
