package manual

import (
	"tussock/internal/sequence"
	"tussock/internal/sequence/lang"
)

// Reference are all entries, in the order in which they are best read; those of ways of
// moving come behind the others of their group.
func Reference(l *lang.Language) []sequence.Entry {
	var out []sequence.Entry
	for _, part := range [][]sequence.Entry{headEntries, numberEntries, placeEntries, foldEntries, stepEntries, moreStepEntries, roundEntries, noteEntries, flagEntries} {
		out = append(out, part...)
	}
	for _, v := range l.Ways {
		out = append(out, v.Entries...)
	}
	return out
}

var headEntries = []sequence.Entry{
	{Group: "head", Word: "sheet", Syntax: "rect W H | square S | strip L W | ngon N SIDE | polygon X Y X Y …", Meaning: "The sheet the pattern is written for, in mm. The corners of an n-gon or polygon are P1, P2 …, the middles of its sides M1, M2 …, the sides E1, E2 …; N may be a knob of whole steps from 3 to 8. Outlines that are not convex are divided for the engine.",
		Example: "sheet ngon 5 60\ncrease through P1 M3\nexpect P1 at sheet(18.541,0) within 0.01", IDs: nil},
	{Group: "head", Word: "made", Syntax: "for play | for show", Meaning: "Whether it is made to be played with, which is meant when nothing is said, or to be looked at; how it moves is predicted all the same.",
		Example: "sheet square 100\nmade for show\ncrease bring left to right as k\nexpect facets 2", IDs: nil},
	{Group: "head", Word: "family", Syntax: "\"words\"", Meaning: "The family that it belongs to: patterns built alike, so that the shelf can show easier and harder ones of the same kind.",
		Example: "sheet square 100\nfamily \"book folds\"\ncrease bring left to right as k\nexpect facets 2", IDs: nil},
	{Group: "head", Word: "credit, adapts", Syntax: "credit \"words\"  adapts \"pattern\"", Meaning: "Whose work it is, and the id of the pattern that it was made from. Both are printed and go with every file that is saved.",
		Example: "sheet square 100\ncredit \"Folded first in the waiting hall\"\nadapts \"curlew\"\ncrease bring left to right as k\nexpect facets 2", IDs: nil},
	{Group: "head", Word: "adds", Syntax: "to \"pattern\" …", Meaning: "The patterns, by id, that it goes with: it is no toy of its own but an add-on, such as a stand.",
		Example: "sheet square 100\nadds to \"curlew\" \"avocet\"\ncrease bring left to right as k\nexpect facets 2", IDs: nil},
	{Group: "head", Word: "margin", Syntax: "left|right|bottom|top MM", Meaning: "A strip that comes off before the first fold, such as a perforated margin.",
		Example: "sheet rect 216 279\nmargin left 6\ncrease bring left to right as k\nexpect TR at sheet(210,279) within 0.001", IDs: nil},
	{Group: "head", Word: "knob", Syntax: "NAME \"label\" = DEFAULT [mm|deg] from MIN to MAX | either N \"label\" or N \"label\" [fold|set] [changes \"…\"]", Meaning: "A value with a dial, or a switch between two; its name may stand wherever a number may.",
		Example: "sheet square 100\nknob loose \"A bit under half\" = 0.45 from 0.3 to 0.5 fold changes \"Where the fold lies.\"\nvalley through part(BL,TL,loose) square left moving TL\nexpect TL at BL within 10.001", IDs: []string{"A13"}},
	{Group: "head", Word: "param", Syntax: "NAME = VALUE", Meaning: "A value without a dial.",
		Example: "sheet square 100\nparam d = 12.7\ncrease along par(left,d,C)\nexpect facets 2", IDs: nil},
	{Group: "head", Word: "require", Syntax: "ratio between LOW and HIGH", Meaning: "Height over width of the sheets that will do; others are refused.",
		Example: "sheet square 100\nrequire ratio between 0.9 and 1.1\ncrease bring left to right", IDs: nil},
	{Group: "head", Word: "macro", Syntax: "NAME … end; use NAME [as SUFFIX]", Meaning: "Lines written once and used where they are wanted, their names with a suffix. Every pattern has the macros blintz, preliminary, waterbomb, bird, pentagon and pack.",
		Example: "sheet square 120\nuse blintz\nexpect TL at C within 0.001\nexpect BR at C within 0.001\nexpect sheets 2 at mid(C,part(C,L,0.7))", IDs: []string{"K08"}},
	{Group: "head", Word: "repeat", Syntax: "NAME [to NAME] [N times] [mirrored lr|tb] [swap A B]… as SUFFIX", Meaning: "The lines from one named step or landmark to another once more: as often as said, mirrored (left and right, or top and bottom, change places in names and words), or with names swapped. New names get the suffix.",
		Example: "sheet rect 210 297\ncrease bring left to right as keel\nvalley bring TL to keel through T near C as c\n  say \"Bring the left corner to the middle.\"\nrepeat c mirrored lr as m\nexpect TR on keel within 0.001\nexpect TL at TR within 0.001", IDs: []string{"A26", "K35"}},
}

var numberEntries = []sequence.Entry{
	{Group: "number", Word: "+, -, *, /", Syntax: "NUMBER + NUMBER  NUMBER - NUMBER  NUMBER * NUMBER  NUMBER / NUMBER  (NUMBER)  -NUMBER", Meaning: "Arithmetic, wherever a number stands; × and ÷ do as well. A minus right before a number and behind a space is its sign: `0 -3` are two numbers, `0 - 3` is one.",
		Example: "sheet square 100\nparam third = 100/3\ncrease along par(left, 2*third - (10 + 20)/3, C) as a\nvalley bring left to a as f\nexpect TL at sheet(100*2/3 - 10, 100) within 0.001"},
	{Group: "number", Word: "width, height, thickness", Syntax: "width  height  thickness", Meaning: "What the sheet at hand measures, in mm, after margins have come off. An author's own name of that kind goes before.",
		Example: "sheet rect 100 160\nparam tail = (height - width)/2\ncrease along par(bottom, tail, C) as a\nexpect part(BL, TL, tail/height) at sheet(0, 30) within 0.001"},
	{Group: "number", Word: "dist", Syntax: "dist(P, P)", Meaning: "How far two landmarks lie apart as they lie now, in mm. A `param` is reckoned before anything is folded and knows no distances.",
		Example: "sheet square 100\nvalley bring TL to C as f\ncrease along par(bottom, dist(BL, TL)/2, C) as a\nexpect facets 3"},
	{Group: "number", Word: "functions", Syntax: "min(N, …)  max(N, …)  abs(N)  floor(N)  sqrt(N)  sin(N)  cos(N)  tan(N)  asin(N)  acos(N)  atan(N)  atan2(Y, X)", Meaning: "Functions of numbers; angles are degrees. What has no result, such as a root of less than nothing, stops the replay and says so.",
		Example: "sheet square 100\nparam side = min(width, height)\npoint P = sheet(side/2 + 40*cos(60), side/2 + 40*sin(60))\ncrease through C P as ray\nexpect P at sheet(70, 50 + sqrt(1200)) within 0.001"},
}

var placeEntries = []sequence.Entry{
	{Group: "place", Word: "point", Syntax: "NAME = POINT [on top | bottom | layer POINT] [called \"words\"]", Meaning: "A landmark: it belongs to the paper and travels with it. Several layers may lie at a place: the top one is taken unless said otherwise.",
		Example: "sheet square 100\nvalley bring top to bottom as f\npoint P = mid(B,C) on bottom called \"the middle of the lower half\"\nexpect P at sheet(50,25) within 0.001", IDs: nil},
	{Group: "place", Word: "mid, part, toward", Syntax: "mid(P,P)  part(P,P,k)  toward(P,P,mm)", Meaning: "Half-way; a fraction of the way; a length along the way.",
		Example: "sheet square 90\nvalley bring toward(TL,TR,30) to BL as f\nexpect part(TL,TR,1/3) at BL within 0.001", IDs: []string{"A11", "A12"}},
	{Group: "place", Word: "meet, foot", Syntax: "meet(LINE,LINE)  foot(P,LINE)", Meaning: "Where two lines cross, extended as far as need be; the nearest place of a line. Written inside a fold they may lie beyond the paper.",
		Example: "sheet polygon 0 0 100 0 80 100 20 100\nvalley through meet(E4,E2) square E1 moving P2\nexpect P2 at P1 within 0.001", IDs: []string{"A18"}},
	{Group: "place", Word: "sheet, com", Syntax: "sheet(x,y)  com  com standing", Meaning: "A place given in mm of the flat sheet; the centre of mass of the toy as it lies, with all that is fixed to it; that of the toy as it stands after steps in the round, seen square to the piece that stays.",
		Example: "sheet rect 100 200\nvalley bring TL to com as f\nexpect TL at sheet(50,100) within 0.001", IDs: []string{"A22"}},
	{Group: "line", Word: "NAME, [P P]", Syntax: "a crease or edge by its name, or the line through two landmarks", Meaning: "A named line that a later fold has bent is refused; the message names the piece to write instead.",
		Example: "sheet square 100\ncrease bring left to right as k\nvalley bring [BL TL] to k as g\nexpect TL at T within 0.001", IDs: []string{"A02"}},
	{Group: "line", Word: "square, par, bis", Syntax: "square(P,LINE)  par(LINE,mm,P)  par(LINE,P)  bis(LINE,LINE)", Meaning: "Square to a line through a landmark; parallel at a distance towards a landmark, or through it; half-way between two lines, parallel or not.",
		Example: "sheet square 100\ncrease along par(left,20,C) as a\ncrease along par(right,20,C) as b\nvalley bring bis(a,b) to par(left,30,C) moving R as f\nexpect C at sheet(30,50) within 0.001", IDs: []string{"A10", "A15"}},
	{Group: "line", Word: "turned", Syntax: "turned(LINE,DEG,P,P)", Meaning: "A line through the first landmark at an angle to another line, opening towards the second landmark.",
		Example: "sheet square 100\nknob a \"Angle\" = 45 deg from 10 to 80\nvalley along turned(bottom,a,BL,TL) moving BR as f\nexpect BR at TL within 0.001", IDs: []string{"A23", "A24"}},
	{Group: "line", Word: "taper", Syntax: "taper(LINE,MM,P,MM,P,P)", Meaning: "At one distance from a line at the first landmark, at another at the second, on the side of the third.",
		Example: "sheet square 100\ncrease along taper(bottom,10,BL,0,BR,C) as f\nexpect sheet(0,10) on f within 0.001\nexpect BR on f within 0.001", IDs: []string{"A17"}},
	{Group: "line", Word: "edge", Syntax: "edge(P,P)", Meaning: "The side of the layer at the first landmark that lies nearest to the second, hidden or not.",
		Example: "sheet square 100\nvalley bring TL to C as f\nturn lr\ncrease along edge(TL,mid(L,C)) layers all as g\nexpect facets 3", IDs: []string{"A20"}},
}

var foldEntries = []sequence.Entry{
	{Group: "fold", Word: "bring P to P", Syntax: "bring P to P", Meaning: "One point on another: corner to corner, to a mark, to a crossing.",
		Example: "sheet square 100\nvalley bring TL to BR as f\nexpect TL at BR within 0.001", IDs: []string{"A05"}},
	{Group: "fold", Word: "bring P to a crossing", Syntax: "bring P to meet(LINE,LINE)", Meaning: "The target may be any place, such as where two creases cross.",
		Example: "sheet square 100\ncrease bring left to right as v\ncrease bring top to bottom as h\nvalley bring TL to meet(v,h)\nexpect TL at C within 0.001", IDs: []string{"A06"}},
	{Group: "fold", Word: "bring LINE to LINE", Syntax: "bring LINE to LINE [near P]", Meaning: "Edge to edge, edge to crease, crease to crease: the line between parallels, or the one that halves the angle. near picks the other of the two.",
		Example: "sheet square 100\nvalley bring left to right as f\nexpect TL at TR within 0.001", IDs: []string{"A01"}},
	{Group: "fold", Word: "halving again", Syntax: "bring CREASE to LINE … between P P", Meaning: "A fold halved again, pressed only as far as said.",
		Example: "sheet square 100\ncrease bring left to bottom as d\ncrease bring left to d between TL C as e\nexpect e parallel turned(bottom,67.5,BL,TL) within 0.001", IDs: []string{"A03"}},
	{Group: "fold", Word: "bring P to LINE through P", Syntax: "bring P to LINE through P [near P]", Meaning: "A point on a line while the crease passes another point; near picks one of two.",
		Example: "sheet square 100\ncrease bring left to right as v\nvalley bring TL to v through BL near T\nexpect TL on v within 0.001\nexpect TL at sheet(50,86.6025) within 0.001", IDs: []string{"A07"}},
	{Group: "fold", Word: "bring P to LINE and P to LINE", Syntax: "bring P to LINE and P to LINE [near P]", Meaning: "Two points on two lines at once.",
		Example: "sheet square 120\npoint A = part(BL,TL,1/3)\ncrease through A square left as a\ncrease bring bottom to a as b\nvalley bring BL to right and A to turned(left,45,L,TR) near R as f\nexpect BL on [TR sheet(120,70)] within 0.001", IDs: []string{"A08"}},
	{Group: "fold", Word: "through P P", Syntax: "through P P", Meaning: "A crease through two points.",
		Example: "sheet square 100\nvalley through L T moving TL\nexpect TL at C within 0.001", IDs: []string{"A09"}},
	{Group: "fold", Word: "through P square LINE", Syntax: "through P square LINE", Meaning: "An edge folded onto itself, the crease through a point.",
		Example: "sheet square 100\nvalley through part(BL,TL,0.75) square left moving TL\nexpect TL on left within 0.001\nexpect TL at L within 0.001", IDs: []string{"A04"}},
	{Group: "fold", Word: "along LINE", Syntax: "along LINE", Meaning: "On a line that is there, or one that is written out.",
		Example: "sheet square 100\ncrease bring left to right as k\nmountain along k moving R\nexpect R at L within 0.001", IDs: nil},
	{Group: "fold", Word: "parallel and touching", Syntax: "bring LINE to par(LINE,P)", Meaning: "An edge is laid parallel to a line and through a point: two tests for one fold, each checked on its own.",
		Example: "sheet square 100\nvalley bring left to par(right,C) moving L as f\nexpect left parallel right within 0.001\nexpect L at C within 0.001", IDs: []string{"A14"}},
	{Group: "fold", Word: "constant width", Syntax: "bring LINE to par(LINE,MM,P)", Meaning: "After the turn a strip of the given width is left.",
		Example: "sheet strip 200 40\nvalley bring left to par(right,40,C) moving L as f\nexpect L at sheet(160,20) within 0.001", IDs: []string{"A16"}},
	{Group: "fold", Word: "gap", Syntax: "… gap MM | gap auto", Meaning: "Stops short of the target by so much (below 0: goes past); auto leaves what the layers inside the fold need, π/2 times their thickness.",
		Example: "sheet square 100\nvalley bring left to right gap 2 as f\nexpect TL at sheet(98,100) within 0.001", IDs: []string{"A21"}},
	{Group: "fold", Word: "offset, tilt", Syntax: "… offset MM toward P   … tilt DEG toward P about P", Meaning: "Moves the crease off its landmarks: for knobs.",
		Example: "sheet square 100\nvalley bring left to right offset 5 toward BL\nexpect TL at sheet(90,100) within 0.001", IDs: nil},
	{Group: "fold", Word: "bring P to balance", Syntax: "bring P to balance", Meaning: "The fold after which the point lies on the centre of mass of the folded toy, whatever it is fixed with and whichever layers this step moves; a tip may be reversed to it.",
		Example: "sheet rect 60 200\nvalley bring T to balance as f\nexpect T at com within 0.001", IDs: []string{"A22"}},
}

var stepEntries = []sequence.Entry{
	{Group: "step", Word: "crease", Syntax: "crease FOLD …", Meaning: "Folded and opened again. With both ways it is folded to both sides.",
		Example: "sheet square 100\ncrease bring left to right both ways as k\nexpect facets 2\nexpect sheets 1 at C", IDs: []string{"K31"}},
	{Group: "step", Word: "valley, mountain", Syntax: "valley|mountain FOLD [moving P] [grab P…] [layers …] [under P] [over P] [between P P]", Meaning: "Moved layers come up and over, or go behind. What the fingers hold decides which layers move: the pieces at the grabbed landmark, all that hang on them beyond the crease, and all that lie in the way.",
		Example: "sheet square 100\nvalley bring left to right as f\nunfold last\nmountain along f moving L\nexpect L at R within 0.001\nexpect R above L", IDs: []string{"K01"}},
	{Group: "step", Word: "layers", Syntax: "layers all | top N at P | bottom N at P | N to N at P", Meaning: "Which layers are held, counted at a landmark.",
		Example: "sheet square 100\nvalley bring top to bottom\nvalley along par(bottom,20,C) moving TL layers top 1 at TL expect 1\nexpect sheets 3 at sheet(50,30)", IDs: []string{"K02"}},
	{Group: "step", Word: "under, over", Syntax: "… under P   … over P", Meaning: "The moved layers end under or over the layer at a landmark; what lies in the way stays.",
		Example: "sheet rect 100 200\npoint P = part(BL,TL,0.6)\npoint A2 = part(BL,TL,0.75)\nvalley bring BL to P as f1\nvalley through A2 square [P A2] moving TL under BL as f2\nexpect BL above TL", IDs: []string{"K13", "K16"}},
	{Group: "step", Word: "pinch", Syntax: "pinch FOLD near P [length MM] [angle DEG]", Meaning: "A mark only: nothing is divided. Landmarks may be laid on it. With an angle it stays folded so far over its own length, and ends inside the paper: that is kept for models and drawn, and never opened over the whole sheet.",
		Example: "sheet square 100\npinch bring TL to BL near L length 8\nexpect facets 1", IDs: []string{"K17"}},
	{Group: "step", Word: "pinches on a hidden crease", Syntax: "bring P to LINE …", Meaning: "A mark laid on a crease that lies in another layer: the line is meant where it lies, seen or not.",
		Example: "sheet square 100\ncrease bring left to right as v\nvalley bring top to bottom as f\nturn lr\nvalley bring part(BL,BR,0.2) to v through B near C layers top 1 at BL as g\nexpect sheets 2 at TR", IDs: []string{"A19"}},
	{Group: "step", Word: "turn, rotate", Syntax: "turn lr | turn tb | rotate DEG", Meaning: "The whole toy, about the middle of the sheet.",
		Example: "sheet square 100\nturn lr\nrotate 90\nexpect TL at sheet(0,100) within 0.001", IDs: []string{"K36"}},
	{Group: "step", Word: "reverse", Syntax: "reverse inside|outside P FOLD spine P P [and P P]…", Meaning: "The tip at P goes in between its own walls, or around them. spine names the folded edges at which the walls hang together.",
		Example: "sheet square 100\nvalley bring TR to BL as d\npoint A = part(TL,C,0.5)\nreverse inside TL through A square [TL BR] spine TL BR as r\nexpect TL at C within 0.001", IDs: []string{"K03"}},
	{Group: "step", Word: "reverse outside", Syntax: "reverse outside P FOLD spine P P", Meaning: "The walls of the tip are wrapped around the flap.",
		Example: "sheet square 100\nvalley bring TR to BL as d\npoint A = part(TL,C,0.5)\nreverse outside TL through A square [TL BR] spine TL BR as r\nexpect sheets 4 at TL", IDs: []string{"K30"}},
	{Group: "step", Word: "crimp", Syntax: "crimp P along LINE and LINE spine P P", Meaning: "Two inside reverses, in and out again: the tip ends shorter, or turned.",
		Example: "sheet square 200\nvalley bring TR to BL as d\ncrimp TL along square(part(TL,C,0.5),[TL BR]) and square(part(TL,C,0.35),[TL BR]) spine TL BR\nexpect sheets 2 at TL", IDs: nil},
	{Group: "step", Word: "squash", Syntax: "squash spine P P onto LINE [under P] [over P]", Meaning: "A flap is stood up, opened and flattened: its spine comes to lie on the line about which it stands.",
		Example: "sheet square 150\nvalley bring TL to BR\nvalley bring TR to BL\nsquash spine C TR onto [C BR] as s\nexpect facets 6", IDs: []string{"K04"}},
	{Group: "step", Word: "petal", Syntax: "petal P creases LINE LINE spines LINE LINE [under P] [over P]", Meaning: "The point of a flap is lifted while its sides fold in.",
		Example: "sheet square 150\nuse preliminary\npetal BL creases bis([BL B],[BL C]) bis([BL L],[BL C]) spines [C B] [C L]\nexpect facets 14", IDs: []string{"K09"}},
	{Group: "step", Word: "collapse", Syntax: "collapse fixed P {M|V|A|F LINE or P P…}… [over P P]…", Meaning: "Several creases at once, while the piece at P stays: mountain or valley as seen on the flat sheet's front, A in whichever sense works, F laid flat. Creases that are not there are made.",
		Example: "sheet square 150\nuse waterbomb\nexpect sheets 4 at B", IDs: []string{"K06", "K10"}},
	{Group: "step", Word: "collapse with an implied line", Syntax: "collapse …", Meaning: "The cross line need not have been creased before.",
		Example: "sheet square 150\ncrease through BL TR as d1\ncrease through BR TL as d2\ncollapse fixed B V BL TR V BR TL M L R\nexpect sheets 4 at B", IDs: []string{"K07"}},
	{Group: "step", Word: "draw", Syntax: "draw P fixed P {M|V|A|F P P…}…", Meaning: "A trapped layer or corner is drawn out: creases are laid flat and others folded in their place.",
		Example: "sheet square 100\nvalley bring TL to C as f\nvalley through B C moving L as g\ndraw TL fixed R F f\nexpect TL at TR within 0.001", IDs: []string{"K12"}},
	{Group: "step", Word: "rabbit", Syntax: "rabbit P P P fixed P", Meaning: "A rabbit ear on a triangle of the sheet; the ear rises from the side between the first two corners.",
		Example: "sheet polygon 0 0 150 0 60 130\nrabbit P1 P2 P3 fixed part(C,P3,0.5)\nexpect P1 on [P3 P2] within 0.001", IDs: []string{"K05"}},
	{Group: "step", Word: "twist", Syntax: "twist N about P radius MM slant DEG [from P] fixed P", Meaning: "A flat twist: a polygon with N sides turns while N pleats close around it. The slant is at least 180°/N.",
		Example: "sheet square 150\ntwist 4 about C radius 20 slant 50 fixed C\nexpect sheets 1 at C", IDs: []string{"K22"}},
	{Group: "step", Word: "rays", Syntax: "rays about P", Meaning: "The creases of a base about a point, folded and opened one after the other: a crease to every corner and every side's middle.",
		Example: "sheet ngon 6 80\nrays about C\nexpect facets 12", IDs: []string{"K08"}},
	{Group: "step", Word: "gather", Syntax: "gather about P [in two] [fixed P]", Meaning: "A base about a point: a crease to every corner and every side's middle, in whichever sense works. In two: as leaves fall by themselves, corners as ridges and middles as valleys, half of the leaves to one side of the first middle and half to the other, the odd one to the first.",
		Example: "sheet ngon 6 80\ngather about C\nexpect P1 at P2 within 0.001", IDs: []string{"K08"}},
	{Group: "step", Word: "sink", Syntax: "sink P FOLD", Meaning: "A tip goes in between its own layers along the fold, whatever it holds.",
		Example: "sheet square 150\nuse waterbomb\nsink C through part(C,TL,0.3) part(C,TR,0.3) as s\nexpect sheets 4 at B", IDs: []string{"K40"}},
	{Group: "step", Word: "pop", Syntax: "pop P", Meaning: "A point is turned inside out: every fold that meets there changes its sense.",
		Example: "sheet square 150\nuse preliminary\npop C\nexpect sheets 4 at BL", IDs: []string{"K32"}},
}

var moreStepEntries = []sequence.Entry{
	{Group: "step", Word: "pleat", Syntax: "pleat along LINE and LINE [and LINE]… moving P", Meaning: "Forth and back along lines of the paper before the step.",
		Example: "sheet rect 60 240\npleat along par(top,120,B) and par(top,90,B) moving T\nexpect T on par(bottom,180,C) within 0.001\nexpect sheets 3 at sheet(30,110)", IDs: []string{"K11"}},
	{Group: "step", Word: "roll", Syntax: "roll LINE turns N width MM | to LINE moving P", Meaning: "An edge is folded over and over; with to, so that the last turn ends at a line.",
		Example: "sheet rect 100 200\ncrease bring top to bottom as m\nroll top turns 4 to m moving T\nexpect sheets 5 at sheet(50,110)", IDs: []string{"K14", "K33"}},
	{Group: "step", Word: "strap", Syntax: "valley … then valley … over P", Meaning: "A band folded over flaps locks them: the flaps first, then the band.",
		Example: "sheet rect 100 200\npoint A = sheet(0,150)\npoint D = sheet(100,150)\nvalley through A T moving TL as a\nvalley through D T moving TR as b\npoint P = part(T,mid(A,D),0.5) on bottom\nvalley along [A D] moving T as strap\nexpect P above TL\nexpect P above TR", IDs: []string{"K15"}},
	{Group: "step", Word: "round", Syntax: "round P radius MM count N [behind]", Meaning: "A corner is rounded by small folds that touch a circle in it.",
		Example: "sheet square 100\nround TL radius 20 count 3 behind\nexpect facets 6", IDs: []string{"K21"}},
	{Group: "step", Word: "pair", Syntax: "pair valley|mountain LINE moving P and LINE moving P", Meaning: "Two folds as one step, such as a pair of legs.",
		Example: "sheet square 100\npair mountain par(left,15,C) moving L and par(right,15,C) moving R\nexpect L at sheet(30,50) within 0.001\nexpect R at sheet(70,50) within 0.001", IDs: []string{"K28"}},
	{Group: "step", Word: "leaf", Syntax: "leaf FOLD moving P [layers …]", Meaning: "A leaf is turned about a fold that is there; a line that would make a new crease is refused.",
		Example: "sheet square 150\nuse preliminary\nleaf along [C BL] moving B layers top 1 at B as t\nexpect sheets 6 at L", IDs: []string{"K24"}},
	{Group: "step", Word: "cut, tear", Syntax: "cut|tear FOLD removing P [layers …]", Meaning: "What lies beyond the line comes off, through all layers or those named.",
		Example: "sheet rect 216 279\ncut along par(bottom,216,T) removing T\nexpect facets 1", IDs: []string{"K37"}},
	{Group: "step", Word: "tear", Syntax: "tear FOLD removing P", Meaning: "The same by hand, without scissors.",
		Example: "sheet rect 210 297\nvalley bring TL to right through TR near R as d\ntear along [TL sheet(0,87)] removing BL layers bottom 1 at BL\nexpect facets 2", IDs: []string{"K37"}},
	{Group: "step", Word: "slit", Syntax: "slit P P [and P P]…", Meaning: "A cut inside the sheet between two landmarks.",
		Example: "sheet square 100\nslit C T\nexpect facets 2", IDs: []string{"K37"}},
	{Group: "step", Word: "unfold, refold", Syntax: "unfold [last | all | to NAME]   refold", Meaning: "Back to the state before, to the flat sheet, or to that after a named step; and from there to where it was.",
		Example: "sheet square 100\nvalley bring left to right as a\nvalley bring top to bottom layers all as b\nunfold to a\nexpect TL at TR within 0.001\nrefold\nexpect sheets 4 at BR", IDs: []string{"K41"}},
	{Group: "step", Word: "transfer", Syntax: "transfer P across LINE as NAME", Meaning: "The toy is folded for a moment and a mark carried to the layer it touches.",
		Example: "sheet square 100\ncrease bring left to right as k\npoint P = sheet(20,30)\ntransfer P across k as Q\nexpect Q at sheet(80,30) within 0.001", IDs: []string{"K34"}},
	{Group: "step", Word: "glue", Syntax: "glue P to P [mass G]", Meaning: "Two faces that lie on each other are joined: they move together from then on.",
		Example: "sheet strip 120 20\nvalley bring right to left as f\nglue R to L\nvalley bring bottom to top layers all\nexpect sheets 4 at TL", IDs: []string{"K25"}},
	{Group: "step", Word: "flex", Syntax: "flex fixed P {M|V|A|F P P…}…", Meaning: "A ring goes on to its next state: some folds open, others close.",
		Example: "sheet square 100\nuse waterbomb\nflex fixed B F C BL C TR C BR C TL A L R\nexpect sheets 2 at B", IDs: []string{"K42"}},
}

var roundEntries = []sequence.Entry{
	{Group: "step", Word: "open", Syntax: "open along LINE [and LINE]… moving P [and P]… angle DEG [up | down] [with LINE [and LINE]…] [instead NAME]", Meaning: "Folds are opened in the round: 180 is flat-folded, 0 flat open. A crease that is not folded is folded so far, up or down. What hangs on them opens by as much as it has to; with names folds that must open as well, where there are several ways. Instead of an opening that was named this one is shown: the other mouth of a toy that opens two ways.",
		Example: "sheet square 100\nvalley bring left to right as f\nopen along f moving L angle 60\nexpect L at R within 0.001", IDs: []string{"K39"}},
	{Group: "step", Word: "bend", Syntax: "bend LINE moving P angle DEG [radius MM] [down] [layers all]", Meaning: "Layers are bent about a line without a crease: those that hang on the landmark, or all beyond the line.",
		Example: "sheet rect 60 200\ncrease through L R as m\nbend m moving T angle 90 radius 10\nexpect facets 2", IDs: []string{"K18"}},
	{Group: "step", Word: "curl", Syntax: "curl LINE moving P angle DEG | radius MM [down] [layers all]", Meaning: "An edge or surface is curled; with layers all every leaf of a pack alike.",
		Example: "sheet rect 60 200\ncrease through L R as m\ncurl par(top,30,C) moving T angle 40 radius 15\nexpect facets 2", IDs: []string{"K19"}},
	{Group: "step", Word: "wrap", Syntax: "wrap LINE moving P girth|diameter|radius MM", Meaning: "The paper goes round a gauge as far as it reaches.",
		Example: "sheet strip 200 40\ncrease through B T as m\nwrap left moving C girth 55\nexpect facets 2", IDs: []string{"A25", "K38"}},
	{Group: "step", Word: "part", Syntax: "part LINE into N", Meaning: "The leaves that hang on a line are spread to equal angles, over every joint between them, folded or not; where another number hangs there the message says it.",
		Example: "sheet square 150\nuse preliminary\npart [C BL] into 4\nexpect sheets 4 at BL", IDs: []string{"K23"}},
	{Group: "step", Word: "pivot", Syntax: "pivot P about P angle DEG", Meaning: "Layers slide by a small turn in their own plane: not strictly flat, and weighed so.",
		Example: "sheet square 100\nvalley bring TL to C as f\npivot TL about L angle 3\nexpect TL at C within 0.001", IDs: []string{"K20"}},
}

var noteEntries = []sequence.Entry{
	{Group: "step", Word: "tape, clip", Syntax: "tape P [size MM MM] mass G [back]   clip P mass G", Meaning: "Something fixed to the paper, with its weight.",
		Example: "sheet square 100\ncrease bring left to right\ntape T size 20 10 mass 0.2\nclip B mass 0.4\nexpect facets 2", IDs: []string{"K26"}},
	{Group: "step", Word: "label, ink", Syntax: "label P \"text\" [back] [size MM] [turn DEG] [zone NAME] [and P …]   ink P P [\"tag\"] [back]", Meaning: "Something written or drawn, which moves with the paper and is shown wherever its face is: in pictures, on prints, in exports. The turn goes against the clock as one looks at the face that is written on; a zone is a name of the place for its way of moving.",
		Example: "sheet square 100\nlabel sheet(20,20) \"7\"\nink BL C \"eye line\"\nvalley bring left to right\nexpect BL at BR within 0.001", IDs: []string{"K27", "K45"}},
	{Group: "step", Word: "axle", Syntax: "axle P [to P]", Meaning: "Where a pin or skewer goes through.",
		Example: "sheet square 100\ncrease bring left to right\naxle C\nexpect facets 2", IDs: []string{"K44"}},
}

var flagEntries = []sequence.Entry{
	{Group: "flag", Word: "sharp, firm, soft, bent", Syntax: "… sharp | firm | soft | bent", Meaning: "How hard the crease is pressed; bent is not pressed at all.",
		Example: "sheet square 100\nvalley bring top to bottom soft as f\nexpect TL at BL within 0.001", IDs: nil},
	{Group: "flag", Word: "class", Syntax: "… class critical | normal | free", Meaning: "What the author says of the step's exactness; the computed class stands beside it.",
		Example: "sheet square 100\nvalley bring top to bottom class critical\nexpect TL at BL within 0.001", IDs: nil},
	{Group: "flag", Word: "optional", Syntax: "… optional", Meaning: "A tidying fold that may be left out (tussock replay --skip-optional): it keeps its number, and its name then means nothing.",
		Example: "sheet square 100\nvalley along par(top,5,C) moving T optional as hem\nexpect sheets 2 at sheet(50,93)", IDs: []string{"K29"}},
	{Group: "flag", Word: "conditioning", Syntax: "… conditioning", Meaning: "Folded only to make the paper supple.",
		Example: "sheet square 100\ncrease bring left to right conditioning both ways\nexpect facets 2", IDs: []string{"K43"}},
	{Group: "flag", Word: "expect N", Syntax: "… expect N", Meaning: "How many pieces of paper must move; another number stops the replay.",
		Example: "sheet square 100\nvalley bring left to right expect 1", IDs: nil},
	{Group: "flag", Word: "as", Syntax: "… as NAME [called \"words\"]", Meaning: "The name of the crease, always last.",
		Example: "sheet square 100\ncrease bring left to right as keel called \"the centre crease\"\nexpect T on keel within 0.001", IDs: nil},
	{Group: "check", Word: "expect", Syntax: "expect P at P within MM | P on LINE within MM | P above P | LINE parallel LINE within DEG | facets N | sheets N at P | unique", Meaning: "What must be so now. unique: the layers could lie in no other way.",
		Example: "sheet square 100\nvalley bring TL to BR as f\nexpect TL at BR within 0.001\nexpect sheets 2 at BR\nexpect TL above BR\nexpect unique", IDs: nil},
	{Group: "check", Word: "guard", Syntax: "guard STEP before STEP \"reason\"", Meaning: "An order of work that matters; it is refused the other way round, and the reason is shown.",
		Example: "sheet square 100\nvalley bring TL to C as a\nvalley bring TR to C as b\nguard a before b \"the left corner lies under the right\"\nexpect TL at TR within 0.001", IDs: []string{"K46"}},
	{Group: "check", Word: "say, looks", Syntax: "say \"words\"   looks \"words\"", Meaning: "Under a step: what to do, in at most 25 words, and what it looks like when it is right. Words may quote numbers on the sheet at hand, {gap} or {dist(A, B)}, a bare number as {count 2*n}, an angle as {deg 360/n}; words in brackets are said only where a number is not 0: [gap: Leave {gap}.]",
		Example: "sheet square 100\nvalley bring left to right\n  say \"Fold side to side.\"\n  looks \"all edges lie on each other\"", IDs: nil},
}
