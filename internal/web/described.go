package web

import (
	"strings"

	"github.com/danielgtaylor/huma/v2"
)

// described is what the API's description says of fields of the core, which knows nothing
// of APIs: by type and field as they stand in the description. only are the values that
// such a field may have.
var described = []struct{ in, field, says, only string }{
	{"Face", "points", "corners, x and y in turn, mm", ""},
	{"Face", "front", "the sheet's front shows", ""},
	{"Face", "creases", "opened creases, x1 y1 x2 y2 in turn", ""},
	{"Face", "edges", "the parts of the rim that are edges, x1 y1 x2 y2 in turn; all of it when absent", ""},
	{"Face", "plain", "no part of the rim is an edge but edges", ""},
	{"Stroke", "kind", "how it is dashed", "valley,mountain,meet,axis,cut,hidden"},
	{"Arrow", "kind", "which habit of the field it follows", "fold,behind,unfold,turn,rotate,push,pull,gather,open"},
	{"Arrow", "points", "start, control point, end", ""},
	{"Picture", "view", "left, top, width and height of the paper, mm", ""},
	{"Picture", "com", "centre of mass", ""},
	{"Overlay", "view", "what paper and signs take up together, mm", ""},
	{"Overlay", "moving", "layers that move, before the step", ""},
	{"Lever", "value", "where it stands", ""},
	{"Lever", "step", "one step that a hand can make: a millimetre, a degree", ""},
	{"Lever", "even", "tells left from right", ""},
	{"Lever", "hard", "moves a fold: needs a new sheet", ""},
	{"Lever", "trial", "a condition of the trial, not a knob of the toy", ""},
	{"Lever", "named", "values that people call by a name", ""},
	{"Way", "name", "as patterns say it: fly, hop …", ""},
	{"Way", "predicts", "a model of this way of moving is there", ""},
	{"Way", "headline", "id of the reading that matters most while it is set", ""},
	{"Way", "conditions", "how and where it is tried", ""},
	{"Way", "records", "what is read off a trial", ""},
	{"Way", "kinds", "of trials, the usual one first", ""},
	{"Way", "chips", "what can be noted of a trial", ""},
	{"Way", "measures", "what a set-up is measured by, the most asked for first", ""},
	{"Way", "aims", "what it can be tuned for", ""},
	{"Way", "free", "levers that a search moves when nothing is said", ""},
	{"Way", "sweep", "lever, and perhaps a second, that a sweep begins with", ""},
	{"Way", "asked", "what can be measured of the finished toy", ""},
	{"Way", "schools", "where folders disagree: both ways, to be tried against each other", ""},
	{"Way", "accuracy", "of its predictions, in a sentence", ""},
	{"Words", "one", "a throw, a hop", ""},
	{"Words", "do", "the button that goes on to the trials", ""},
	{"Words", "log", "the button that logs one", ""},
	{"Words", "none", "before the first trial", ""},
	{"Words", "who", "who does it", ""},
	{"Words", "motion", "what is seen on the mat: Flight, Hop", ""},
	{"Words", "busy", "while it is worked out", ""},
	{"Words", "title", "over its patterns on the shelf: Fly, Hop", ""},
	{"Words", "made", "of a toy made to be played with", ""},
	{"Words", "for_show", "of one made to be looked at", ""},
	{"Words", "untried", "folded, and no trial yet", ""},
	{"Words", "tried", "of a toy with trials: has been thrown already", ""},
	{"Words", "last", "what the set-up knobs of it are", ""},
	{"Words", "noting", "what to tap when a trial is logged", ""},
	{"Words", "better", "what a search is for when nothing is to be cured", ""},
	{"Words", "unlike", "when the toy lacks what this way of moving needs", ""},
	{"Condition", "unit", "m, cm, m/s, deg, or empty", ""},
	{"Condition", "group", "what it belongs to; conditions of a group stand together", ""},
	{"Condition", "none", "0, an empty field, means that there is none of it", ""},
	{"Condition", "check", "either 0 or 1", ""},
	{"Condition", "options", "the only values, when there are any", ""},
	{"Condition", "step", "a step that a hand can make, when it can be tuned; else 0", ""},
	{"Condition", "least", "of what is tuned", ""},
	{"Condition", "logged", "its name is kept with every trial", ""},
	{"Record", "unit", "m and s as they are kept; cm for metres that are typed in centimetres; empty for a count", ""},
	{"Record", "sides", "for what lies to one of two sides: names of the negative and the positive one", ""},
	{"Record", "watch", "timed with a stopwatch", ""},
	{"Record", "kept", "usually the same as the time before: a condition", ""},
	{"Record", "less", "less is better", ""},
	{"Record", "usual", "values to tap, in the unit it is typed in; none: round the usual one", ""},
	{"Kind", "asks", "the question it answers", ""},
	{"Kind", "record", "id of the reading that counts", ""},
	{"Kind", "others", "ids of readings that may be added", ""},
	{"Kind", "rules", "how it is done", ""},
	{"Chip", "bad", "a fault that asks for a cure", ""},
	{"Gauge", "firm", "small steps can be trusted", ""},
	{"Gauge", "shown", "among what the result of a search names", ""},
	{"Gauge", "less", "less is better", ""},
	{"Aim", "at", "what distance or height it is about, when there is one", ""},
	{"Aim", "child", "judged by a child's hand", ""},
	{"Aim", "needs", "a condition without which the aim means nothing", ""},
	{"Field", "unit", "mm or deg", ""},
	{"SchoolView", "order", "which is tried first on one toy, and why", ""},
	{"Caution", "at", "while it is set; before the first trial; for a kind of trial", "set,first,kind"},
	{"Reading", "brief", "what follows the value and its unit, when it stands alone", ""},
	{"Reading", "unit", "mm, g, deg, m, s, m/s, N/m², %, or empty; lengths of the toy are in mm", ""},
	{"Reading", "predicted", "rests on the model of the air, not on the folds alone", ""},
	{"Reading", "moved_by", "what changes it", ""},
	{"Reading", "says", "what this value means here, when it is worth a word", ""},
	{"Remedy", "do", "the change as a hand makes it, with sign and size", ""},
	{"Remedy", "school", "where folders disagree: which way this is", ""},
	{"Remedy", "then", "what it should do", ""},
	{"Remedy", "against", "what would contradict it, and what to do then", ""},
	{"Cause", "law", "the law behind it, with its numbers", ""},
	{"Cause", "log", "what the log says for or against it", ""},
	{"Cause", "weight", "share among the causes, 0 to 1", ""},
	{"Finding", "clear", "no fault in most trials", ""},
	{"PredictionView", "works", "the toy has what this way of moving needs", ""},
	{"PredictionView", "modes", "of scattered trials, most first", ""},
	{"PredictionView", "outcomes", "eight of ten scattered trials; the first counts most", ""},
	{"PredictionView", "tries", "scattered trials that bands rest on", ""},
	{"Outcome", "unit", "m, cm for metres shown in centimetres, s, %, or empty", ""},
	{"Outcome", "most", "beyond this the number is not to be trusted and is told as more; 0 for none", ""},
	{"Outcome", "sides", "names of the negative and the positive side, and of neither", ""},
	{"Outlook", "unit", "m, cm for metres shown in centimetres, s, %, or empty", ""},
	{"Outlook", "most", "beyond this the number is not to be trusted and is told as more; 0 for none", ""},
	{"Outlook", "sides", "names of the negative and the positive side, and of neither", ""},
	{"Check", "fix", "the knobs that put it right", ""},
	{"Check", "do", "the same as a hand does it", ""},
	{"Calibration", "what", "what the factor multiplies", ""},
	{"FlightDrawing", "band", "where eight of ten throws pass", ""},
	{"FlightDrawing", "rope_over_m", "how far over the rope; under is negative", ""},
	{"FlightDrawing", "nominal", "the throw without scatter, drawn as the path", ""},
	{"FlightSpot", "attack", "angle of attack, degrees", ""},
	{"FlightSpot", "pitch", "nose above level, degrees", ""},
	{"FlightSpot", "bank", "right wing down, degrees", ""},
	{"TurnTold", "turn", "what would explain the turn that was seen, likeliest first", ""},
	{"TurnTold", "turn_n", "throws whose offset was measured; 0: only the side was noted", ""},
	{"TurnCause", "words", "side and place", ""},
	{"TurnCause", "deg", "how much of it explains the turn", ""},
	{"TurnCause", "mm", "the same at the edge, where it is measured; 0 when it is none", ""},
	{"TurnCause", "per_deg", "degrees of turn at the end of the flight for one degree of it", ""},
	{"TurnCause", "weight", "share among the causes, 0 to 1: small and usual ones count most", ""},
	{"TurnCause", "unsure", "the model does not know the side", ""},
	{"Touch", "x", "mm ahead of the hip", ""},
	{"Touch", "y", "mm to the right", ""},
	{"LeapDrawing", "body_m", "hip to nose", ""},
	{"LeapDrawing", "middle_m", "hip to catch", ""},
	{"LeapDrawing", "foot_m", "catch to rear edge", ""},
	{"LeapDrawing", "com_m", "centre of mass of the body, ahead of the hip", ""},
	{"LeapDrawing", "flipped", "its second fold lies behind the hip", ""},
	{"LeapDrawing", "backward", "it leaps away from its nose", ""},
	{"LeapDrawing", "unsure", "which way it goes cannot be told", ""},
	{"LeapDrawing", "rest", "as it stands before it is pressed", ""},
	{"LeapDrawing", "push", "from letting go to leaving the table", ""},
	{"LeapDrawing", "path", "the hop just as meant", ""},
	{"LeapDrawing", "band", "where eight of ten hops pass", ""},
	{"LeapDrawing", "feet", "what touches the table, from above", ""},
	{"LeapDrawing", "outline", "the toy from above, mm ahead of the hip and to the right", ""},
	{"LeapDrawing", "press_mm", "where the finger presses, ahead of the hip", ""},
	{"LeapDrawing", "whole_mm", "centre of mass of the whole toy, ahead of the hip", ""},
	{"LeapDrawing", "hull", "the polygon of what touches the table", ""},
	{"LeapDrawing", "frames", "the toy moment by moment", ""},
	{"PushFrame", "x", "slip of the foot, m", ""},
	{"LeapSpot", "x", "m ahead of where it stood", ""},
	{"LeapSpot", "y", "m over the table", ""},
	{"LeapSpot", "pitch", "degrees, nose up", ""},
	{"SheetWant", "kind", "", "square,half,strip,ngon,ratio,size,margin"},
	{"SheetWant", "width_mm", "of a square (0: the largest), a strip or a size", ""},
	{"SheetWant", "height_mm", "of a size", ""},
	{"SheetWant", "ratio", "height over width", ""},
	{"SheetWant", "n", "corners of an n-gon, 3 to 8", ""},
	{"SheetWant", "left_mm", "margins that come off", ""},
	{"Settings", "units", "", "mm,in"},
	{"Settings", "hand", "", "right,left"},
	{"Settings", "theme", "", "auto,light,dark"},
}

// describe puts these words into a description. What names no type or field of it is
// given back: it is out of date.
func describe(api huma.API) (lost []string) {
	all := api.OpenAPI().Components.Schemas.Map()
	for _, d := range described {
		s := all[d.in]
		if s == nil || s.Properties[d.field] == nil {
			lost = append(lost, d.in+"."+d.field)
			continue
		}
		p := s.Properties[d.field]
		if d.says != "" {
			p.Description = d.says
		}
		if d.only != "" {
			for _, v := range strings.Split(d.only, ",") {
				p.Enum = append(p.Enum, v)
			}
			p.PrecomputeMessages()
		}
	}
	return lost
}
