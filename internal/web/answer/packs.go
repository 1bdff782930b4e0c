package answer

import (
	"context"
	"encoding/json"
	"fmt"
	"strconv"
	"strings"

	"tussock/internal/packs"
	"tussock/internal/store"
)

// ownPack begins the ids of packs of one's own.
const ownPack = "own-"

// OwnPackID is the number of a pack of one's own by its id.
func OwnPackID(id string) (int64, bool) {
	n, own := strings.CutPrefix(id, ownPack)
	v, err := strconv.ParseInt(n, 10, 64)
	return v, own && err == nil && v > 0
}

// OwnPack is a pack of one's own as it is kept.
func OwnPack(row store.OwnPack) (packs.Pack, error) {
	var p packs.Pack
	if err := json.Unmarshal([]byte(row.Body), &p); err != nil {
		return p, fmt.Errorf("pack %d: %w", row.ID, err)
	}
	p.ID, p.Read, p.Ships = ownPack+strconv.FormatInt(row.ID, 10), row.Approved, false
	return p, nil
}

// Packs are all there are: those that ship, then one's own.
func Packs(ctx context.Context, s *store.Store) ([]packs.Pack, error) {
	all, err := packs.Shipped()
	if err != nil {
		return nil, err
	}
	own, err := s.OwnPacks(ctx, false)
	if err != nil {
		return nil, err
	}
	for _, row := range own {
		p, err := OwnPack(row)
		if err != nil {
			continue // it cannot be read; the others can
		}
		all = append(all, p)
	}
	return all, nil
}

// FindPack looks a pack up by its id; the problem says how to see which there are.
func FindPack(ctx context.Context, s *store.Store, field, id string) (packs.Pack, error) {
	all, err := Packs(ctx, s)
	if err != nil {
		return packs.Pack{}, AsProblem(err, "")
	}
	for _, p := range all {
		if p.ID == id {
			return p, nil
		}
	}
	return packs.Pack{}, Refuse(field, id, fmt.Sprintf("there is no pack %q, or it lies in the bin; look at the list of packs", id))
}
