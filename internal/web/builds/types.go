package builds

import (
	"time"

	"tussock/internal/bench"
	"tussock/internal/draw"
	"tussock/internal/web/answer"
)

// TrialView is one trial.
type TrialView struct {
	ID int64     `json:"id"`
	At time.Time `json:"at"`
	TrialInput
}

// TrialInput is a trial as logged or edited.
type TrialInput struct {
	Kind    string             `json:"kind,omitempty" maxLength:"40" doc:"of trial, as the way of moving names it; empty for the usual one"`
	Read    map[string]float64 `json:"read,omitempty" doc:"readings by id, as the way of moving asks for them; m and s"`
	Under   map[string]string  `json:"under,omitempty" doc:"conditions that are kept with it, by name, as they are called"`
	Seen    []string           `json:"seen,omitempty" maxItems:"8"`
	Thrower string             `json:"thrower,omitempty"`
	Place   string             `json:"place,omitempty"`
	Air     string             `json:"air,omitempty"`
	Note    string             `json:"note,omitempty"`
}

// TweakView is a numbered set-up with its throws.
type TweakView struct {
	No        int                    `json:"no"`
	Why       string                 `json:"why"`
	Setup     bench.Setup            `json:"setup"`
	Changes   []answer.ChangeView    `json:"changes" doc:"since the tweak before, or since the pattern"`
	CreatedAt time.Time              `json:"created_at"`
	Stats     map[string]bench.Stats `json:"stats" doc:"by reading; those that occur"`
	Trials    []TrialView            `json:"trials"`
}

// BuildView is a build with all that belongs to it.
type BuildView struct {
	ID         int64               `json:"id"`
	Name       string              `json:"name"`
	Pattern    string              `json:"pattern"`
	Title      string              `json:"title" doc:"of the pattern"`
	Unprinted  string              `json:"unprinted" doc:"letters of the name that the print's font lacks; empty when a PDF has it whole"`
	Step       int                 `json:"step"`
	Version    int                 `json:"version" doc:"of what lies on the table; to be sent along with what is moved"`
	Setup      bench.Setup         `json:"setup" doc:"on the table now: the draft, or the tweak"`
	Draft      bool                `json:"draft"`
	At         int                 `json:"at" doc:"number of the tweak beneath the draft; 0 before the first"`
	Changes    []answer.ChangeView `json:"changes" doc:"of the draft, since the tweak beneath it or the pattern"`
	NeedsChild bool                `json:"needs_child" doc:"the draft can only become a child build"`
	Tweaks     []TweakView         `json:"tweaks"`
	Trials     int                 `json:"trials"`
	Parent     *answer.BuildRef    `json:"parent,omitempty"`
	Children   []answer.BuildRef   `json:"children"`
	Conditions TrialInput          `json:"conditions" doc:"of the trial before: kind, thrower, place, air and what is usually the same"`
	UpdatedAt  time.Time           `json:"updated_at"`
}

// BuildCard is a build in a list.
type BuildCard struct {
	ID        int64           `json:"id"`
	Name      string          `json:"name"`
	Pattern   string          `json:"pattern"`
	Title     string          `json:"title"`
	Sheet     bench.SheetSpec `json:"sheet"`
	Size      string          `json:"size"`
	Tweaks    int             `json:"tweaks"`
	Trials    int             `json:"trials"`
	Moves     string          `json:"moves"`
	Record    string          `json:"record" doc:"id of the reading that counts"`
	Stats     bench.Stats     `json:"stats" doc:"of that reading, of the newest tweak that has any"`
	Last      *float64        `json:"last,omitempty" doc:"the newest reading of that kind"`
	LastSeen  []string        `json:"last_seen" doc:"what was noted of the newest trial"`
	Step      int             `json:"step"`
	Steps     int             `json:"steps"`
	ParentID  *int64          `json:"parent_id,omitempty"`
	Picture   *draw.Picture   `json:"picture,omitempty" doc:"the toy as it is set up now"`
	UpdatedAt time.Time       `json:"updated_at"`
}
