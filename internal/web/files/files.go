package files

import (
	"bytes"
	"context"
	"fmt"
	"maps"
	"net/http"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/bench"
	"tussock/internal/exchange"
	"tussock/internal/shelf"
	"tussock/internal/store"
	"tussock/internal/ways"
	"tussock/internal/web/answer"
	"tussock/internal/web/builds"
)

// Routes takes builds and backups in and hands them out.
type Routes struct {
	store  *store.Store
	bench  *builds.Routes
	forget func(moves string) // what trials have taught: they have changed
}

// New makes the area. forget is told when trials have changed.
func New(s *store.Store, b *builds.Routes, forget func(moves string)) *Routes {
	return &Routes{s, b, forget}
}

// Register adds its routes.
func (s *Routes) Register(api huma.API) { s.fileRoutes(api) }

// Limits of what is read back from files.
const (
	bundleFormat    = "tussock-build"
	bundleVersion   = 2
	maxBundleBytes  = 16 << 20
	maxBundleTweaks = 1000
	maxBundleTrials = 50_000
)

// Bundle is a build in one file.
type Bundle struct {
	Format  string        `json:"format" enum:"tussock-build"`
	Version int           `json:"version" minimum:"1" maximum:"2" doc:"1 had readings of throws only"`
	Name    string        `json:"name"`
	Pattern string        `json:"pattern" maxLength:"80"`
	Credit  string        `json:"credit,omitempty" maxLength:"500" doc:"whose work the pattern is and what it was made from; told, not read back"`
	Of      *BundleParent `json:"of,omitempty" doc:"the build that it was made from; told, not read back"`
	Step    int           `json:"step" minimum:"0" maximum:"400"`
	Created time.Time     `json:"created"`
	Draft   *bench.Setup  `json:"draft,omitempty"`
	At      int           `json:"at,omitempty" minimum:"0" maximum:"1000" doc:"the tweak on the table, counted from 1; 0 or absent: the newest"`
	Tweaks  []BundleTweak `json:"tweaks" maxItems:"1000"`
	// Pictures of one's own that are drawn on it.
	Pictures map[string][]byte `json:"pictures,omitempty" maxProperties:"200" doc:"pictures of one's own by their names, PNG; of the newest set-ups as far as there is room"`
}

// BundleParent is the build that another was made from.
type BundleParent struct {
	Name  string `json:"name"`
	Tweak int    `json:"tweak"`
}

// BundleTweak is a tweak in a bundle.
type BundleTweak struct {
	Why     string        `json:"why,omitempty" maxLength:"500"`
	Setup   bench.Setup   `json:"setup"`
	Created time.Time     `json:"created"`
	Trials  []BundleTrial `json:"trials" maxItems:"50000"`
}

// BundleTrial is a trial in a bundle. The last four are how version 1 wrote a throw's
// readings; they are still read.
type BundleTrial struct {
	At time.Time `json:"at"`
	builds.TrialInput
	DistanceM    *float64 `json:"distance_m,omitempty"`
	TimeS        *float64 `json:"time_s,omitempty"`
	ThrowHeightM *float64 `json:"throw_height_m,omitempty"`
	OffsetM      *float64 `json:"offset_m,omitempty"`
}

// readings are those of a trial, however they were written.
func (x BundleTrial) readings() map[string]float64 {
	out := maps.Clone(x.Read)
	for id, v := range map[string]*float64{"distance": x.DistanceM, "time": x.TimeS, "from": x.ThrowHeightM, "aside": x.OffsetM} {
		if v != nil {
			if out == nil {
				out = map[string]float64{}
			}
			out[id] = *v
		}
	}
	return out
}

func (s *Routes) fileRoutes(api huma.API) {
	huma.Register(api, huma.Operation{OperationID: "get-bundle", Method: http.MethodGet, Path: "/api/v1/builds/{id}/bundle", Summary: "A build in one file"}, s.getBundle)
	huma.Register(api, huma.Operation{OperationID: "get-trials", Method: http.MethodGet, Path: "/api/v1/builds/{id}/trials.csv", Summary: "The trials of a build as a table"}, s.getTrials)
	huma.Register(api, huma.Operation{OperationID: "add-bundle", Method: http.MethodPost, Path: "/api/v1/bundles", Summary: "Read a build back from its file", MaxBodyBytes: maxBundleBytes}, s.addBundle)
	s.backupRoutes(api)
}

type bundleAnswer struct {
	Disposition string `header:"Content-Disposition"`
	Body        Bundle
}

func (s *Routes) getBundle(ctx context.Context, in *answer.PathID) (*bundleAnswer, error) {
	b, err := s.store.Build(ctx, in.ID)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	out := Bundle{Format: bundleFormat, Version: bundleVersion, Name: b.Name, Pattern: b.Pattern, Step: b.Step, Created: b.CreatedAt, Draft: b.Draft, Tweaks: []BundleTweak{}}
	if p, err := answer.FindPattern(b.Pattern); err == nil {
		out.Credit = shelf.Lineage(p)
	}
	if _, parent, err := s.store.Family(ctx, b); err == nil && b.ParentTweak != nil {
		out.Of = &BundleParent{parent, *b.ParentTweak}
	}
	out.At = 1 + slices.IndexFunc(b.Tweaks, func(t bench.Tweak) bool { return t.No == b.At })
	for _, t := range b.Tweaks {
		bt := BundleTweak{Why: t.Why, Setup: t.Setup, Created: t.CreatedAt, Trials: []BundleTrial{}}
		for _, x := range t.Trials {
			bt.Trials = append(bt.Trials, BundleTrial{At: x.At, TrialInput: builds.ViewTrial(x).TrialInput})
		}
		out.Tweaks = append(out.Tweaks, bt)
	}
	if out.Pictures, err = s.picturesOf(ctx, *b); err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return &bundleAnswer{fmt.Sprintf(`attachment; filename="tussock-build-%d.json"`, b.ID), out}, nil
}

func (s *Routes) getTrials(ctx context.Context, in *answer.PathID) (*answer.File, error) {
	b, err := s.store.Build(ctx, in.ID)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	p, err := answer.FindPattern(b.Pattern)
	if err != nil {
		return nil, err
	}
	var out bytes.Buffer
	if err := exchange.WriteTrials(&out, b, p, &ways.For(p).Way); err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return &answer.File{Type: "text/csv; charset=utf-8", Disposition: fmt.Sprintf(`attachment; filename="tussock-trials-%d.csv"`, b.ID), Body: out.Bytes()}, nil
}

type bundleInput struct{ Body Bundle }

func (s *Routes) addBundle(ctx context.Context, in *bundleInput) (*answer.Body[*builds.BuildView], error) {
	b, err := s.fromBundle(in.Body)
	if err != nil {
		return nil, err
	}
	if err := s.takePictures(ctx, b, in.Body.Pictures); err != nil {
		return nil, err
	}
	defer s.forget("")
	id, err := s.store.AddWhole(ctx, b)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return s.bench.BuildView(ctx, id)
}

// fromBundle checks every value of a bundle as if it had been typed.
func (s *Routes) fromBundle(in Bundle) (bench.Build, error) {
	name, err := bench.CleanName("name", in.Name)
	if err != nil {
		return bench.Build{}, answer.AsProblem(err, "body.")
	}
	p, err := answer.FindPattern(in.Pattern)
	if err != nil {
		return bench.Build{}, err
	}
	way := &ways.For(p).Way
	b := bench.Build{Name: name, Pattern: in.Pattern, Step: in.Step, CreatedAt: in.Created, Draft: in.Draft, At: in.At}
	if in.At > len(in.Tweaks) {
		return b, answer.Refuse("body.at", in.At, fmt.Sprintf("at is %d; it must be one of the %d tweaks, or 0", in.At, len(in.Tweaks)))
	}
	if in.Draft == nil && len(in.Tweaks) == 0 {
		return b, answer.Refuse("body.tweaks", 0, "the file holds neither a draft nor a tweak, so there is no set-up to read")
	}
	if in.Draft != nil {
		if err := s.checkSetup(in.Pattern, "body.draft", in.Draft); err != nil {
			return b, err
		}
	}
	total := 0
	for i, t := range in.Tweaks {
		where := fmt.Sprintf("body.tweaks[%d]", i)
		if err := s.checkSetup(in.Pattern, where+".setup", &t.Setup); err != nil {
			return b, err
		}
		tweak := bench.Tweak{No: i + 1, Why: t.Why, Setup: t.Setup, CreatedAt: t.Created}
		if total += len(t.Trials); total > maxBundleTrials {
			return b, answer.Refuse(where+".trials", total, fmt.Sprintf("a file holds at most %d throws", maxBundleTrials))
		}
		for k, x := range t.Trials {
			x.Read = x.readings()
			trial, err := x.Trial(way)
			if err != nil {
				return b, answer.Refuse(fmt.Sprintf("%s.trials[%d]", where, k), nil, err.Error())
			}
			trial.At = x.At
			tweak.Trials = append(tweak.Trials, trial)
		}
		b.Tweaks = append(b.Tweaks, tweak)
	}
	return b, nil
}

// checkSetup refuses set-ups that could not have been typed; texts are then as they are kept.
func (s *Routes) checkSetup(pattern, where string, setup *bench.Setup) error {
	p, err := answer.FindPattern(pattern)
	if err != nil {
		return err
	}
	if err := answer.CheckSheet(setup.Sheet); err != nil {
		return answer.AsProblem(err, where+".sheet.")
	}
	if err := answer.CheckRecipes(p, setup.Recipes); err != nil {
		return err
	}
	if setup.Written, err = setup.Written.Clean(); err != nil {
		return answer.AsProblem(err, where+".written.")
	}
	return answer.CheckKnobs(p, setup.Knobs)
}
