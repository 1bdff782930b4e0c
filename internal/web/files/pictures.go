package files

import (
	"context"
	"errors"
	"maps"
	"slices"

	"tussock/internal/bench"
	"tussock/internal/motion"
	"tussock/internal/pictures"
	"tussock/internal/store"
	"tussock/internal/web/answer"
)

// maxPictureBytes bounds the pictures of one's own that a bundle carries: as text they grow by
// a third, and the rest of the file must have room.
const maxPictureBytes = 9 << 20

// setups are all set-ups of a build, the newest first.
func setups(b bench.Build) (out []bench.Setup) {
	if b.Draft != nil {
		out = append(out, *b.Draft)
	}
	for _, t := range slices.Backward(b.Tweaks) {
		out = append(out, t.Setup)
	}
	return out
}

// picturesOf are the pictures of one's own that a build names, of its newest set-ups first,
// as far as a file has room. Pictures that came without their contents are left out.
func (s *Routes) picturesOf(ctx context.Context, b bench.Build) (map[string][]byte, error) {
	out, room := map[string][]byte{}, maxPictureBytes
	for _, setup := range setups(b) {
		for _, name := range setup.Written.OwnNames() {
			if out[name] != nil {
				continue
			}
			body, err := s.store.Image(ctx, name)
			switch {
			case errors.Is(err, store.ErrNotFound):
				continue
			case err != nil:
				return nil, err
			case len(body) > room:
				return out, nil
			}
			out[name], room = body, room-len(body)
		}
	}
	return out, nil
}

// takePictures keeps the pictures of a bundle that its build names. They are read as if they
// had been sent by hand, so one may get another name, which the build then has.
func (s *Routes) takePictures(ctx context.Context, b bench.Build, sent map[string][]byte) error {
	clean, names := map[string][]byte{}, map[string]string{}
	for _, was := range slices.Sorted(maps.Keys(sent)) {
		name, body, err := pictures.Clean(sent[was])
		if err != nil {
			return answer.AsProblem(err, "body.pictures."+was)
		}
		names[was] = name
		clean[name] = body
	}
	used := map[string]bool{}
	for _, setup := range setups(b) {
		for place, m := range setup.Written {
			was, own := motion.OwnName(m.Picture)
			if name, came := names[was]; own && came {
				m.Picture = motion.OwnPicture(name)
				setup.Written[place] = m
				used[name] = true
			}
		}
	}
	for name := range used {
		if err := s.store.AddImage(ctx, name, clean[name]); err != nil {
			return answer.AsProblem(err, "")
		}
	}
	return nil
}
