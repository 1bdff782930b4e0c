package sequence

// Entry is one word of the pattern language: what is written after it, what it
// means, and a small pattern that uses it. A test folds every example, and the
// reference for people is written from these entries.
type Entry struct {
	Group   string // head, place, line, fold, step, flag, check
	Word    string
	Syntax  string
	Meaning string
	Example string
	IDs     []string // the alignments and operations of the needs that it is for
}

// Reference are all entries, in the order in which they are best read; those of ways of
// moving come behind the others of their group.
func (l *Language) Reference() []Entry {
	var out []Entry
	for _, part := range [][]Entry{headEntries, placeEntries, foldEntries, stepEntries, moreStepEntries, roundEntries, noteEntries, flagEntries} {
		out = append(out, part...)
	}
	for _, v := range l.Ways {
		out = append(out, v.Entries...)
	}
	return out
}

var headEntries = []Entry{
	{"head", "sheet", "rect W H | square S | strip L W | ngon N SIDE | polygon X Y X Y …", "The sheet the pattern is written for, in mm. The corners of an n-gon or polygon are P1, P2 …, the middles of its sides M1, M2 …, the sides E1, E2 …; outlines that are not convex are divided for the engine.",
		"sheet ngon 5 60\ncrease through P1 M3\nexpect P1 at sheet(18.541,0) within 0.01", nil},
	{"head", "made", "for play | for show", "Whether it is made to be played with, which is meant when nothing is said, or to be looked at; how it moves is predicted all the same.",
		"sheet square 100\nmade for show\ncrease bring left to right as k\nexpect facets 2", nil},
	{"head", "margin", "left|right|bottom|top MM", "A strip that comes off before the first fold, such as a perforated margin.",
		"sheet rect 216 279\nmargin left 6\ncrease bring left to right as k\nexpect TR at sheet(210,279) within 0.001", nil},
	{"head", "knob", "NAME \"label\" = DEFAULT [mm|deg] from MIN to MAX [fold|set] [changes \"…\"]", "A value with a dial; its name may stand wherever a number may.",
		"sheet square 100\nknob loose \"A bit under half\" = 0.45 from 0.3 to 0.5 fold changes \"Where the fold lies.\"\nvalley through part(BL,TL,loose) square left moving TL\nexpect TL at BL within 10.001", []string{"A13"}},
	{"head", "param", "NAME = VALUE", "A value without a dial.",
		"sheet square 100\nparam d = 12.7\ncrease along par(left,d,C)\nexpect facets 2", nil},
	{"head", "require", "ratio between LOW and HIGH", "Height over width of the sheets that will do; others are refused.",
		"sheet square 100\nrequire ratio between 0.9 and 1.1\ncrease bring left to right", nil},
	{"head", "macro", "NAME … end; use NAME [as SUFFIX]", "Lines written once and used where they are wanted, their names with a suffix. Every pattern has the macros blintz, preliminary, waterbomb, bird, pentagon and pack.",
		"sheet square 120\nuse blintz\nexpect TL at C within 0.001\nexpect BR at C within 0.001\nexpect sheets 2 at mid(C,part(C,L,0.7))", []string{"K08"}},
	{"head", "repeat", "NAME [to NAME] [N times] [mirrored lr|tb] [swap A B]… as SUFFIX", "The lines from one named step or landmark to another once more: as often as said, mirrored (left and right, or top and bottom, change places in names and words), or with names swapped. New names get the suffix.",
		"sheet rect 210 297\ncrease bring left to right as keel\nvalley bring TL to keel through T near C as c\n  say \"Bring the left corner to the middle.\"\nrepeat c mirrored lr as m\nexpect TR on keel within 0.001\nexpect TL at TR within 0.001", []string{"A26", "K35"}},
}

var placeEntries = []Entry{
	{"place", "point", "NAME = POINT [on top | bottom | layer POINT] [called \"words\"]", "A landmark: it belongs to the paper and travels with it. Several layers may lie at a place: the top one is taken unless said otherwise.",
		"sheet square 100\nvalley bring top to bottom as f\npoint P = mid(B,C) on bottom called \"the middle of the lower half\"\nexpect P at sheet(50,25) within 0.001", nil},
	{"place", "mid, part, toward", "mid(P,P)  part(P,P,k)  toward(P,P,mm)", "Half-way; a fraction of the way; a length along the way.",
		"sheet square 90\nvalley bring toward(TL,TR,30) to BL as f\nexpect part(TL,TR,1/3) at BL within 0.001", []string{"A11", "A12"}},
	{"place", "meet, foot", "meet(LINE,LINE)  foot(P,LINE)", "Where two lines cross, extended as far as need be; the nearest place of a line. Written inside a fold they may lie beyond the paper.",
		"sheet polygon 0 0 100 0 80 100 20 100\nvalley through meet(E4,E2) square E1 moving P2\nexpect P2 at P1 within 0.001", []string{"A18"}},
	{"place", "sheet, com", "sheet(x,y)  com", "A place given in mm of the flat sheet; the centre of mass of the toy as it lies.",
		"sheet rect 100 200\nvalley bring TL to com as f\nexpect TL at sheet(50,100) within 0.001", []string{"A22"}},
	{"line", "NAME, [P P]", "a crease or edge by its name, or the line through two landmarks", "A named line that a later fold has bent is refused; the message names the piece to write instead.",
		"sheet square 100\ncrease bring left to right as k\nvalley bring [BL TL] to k as g\nexpect TL at T within 0.001", []string{"A02"}},
	{"line", "square, par, bis", "square(P,LINE)  par(LINE,mm,P)  par(LINE,P)  bis(LINE,LINE)", "Square to a line through a landmark; parallel at a distance towards a landmark, or through it; half-way between two lines, parallel or not.",
		"sheet square 100\ncrease along par(left,20,C) as a\ncrease along par(right,20,C) as b\nvalley bring bis(a,b) to par(left,30,C) moving R as f\nexpect C at sheet(30,50) within 0.001", []string{"A10", "A15"}},
	{"line", "turned", "turned(LINE,DEG,P,P)", "A line through the first landmark at an angle to another line, opening towards the second landmark.",
		"sheet square 100\nknob a \"Angle\" = 45 deg from 10 to 80\nvalley along turned(bottom,a,BL,TL) moving BR as f\nexpect BR at TL within 0.001", []string{"A23", "A24"}},
	{"line", "taper", "taper(LINE,MM,P,MM,P,P)", "At one distance from a line at the first landmark, at another at the second, on the side of the third.",
		"sheet square 100\ncrease along taper(bottom,10,BL,0,BR,C) as f\nexpect sheet(0,10) on f within 0.001\nexpect BR on f within 0.001", []string{"A17"}},
	{"line", "edge", "edge(P,P)", "The side of the layer at the first landmark that lies nearest to the second, hidden or not.",
		"sheet square 100\nvalley bring TL to C as f\nturn lr\ncrease along edge(TL,mid(L,C)) layers all as g\nexpect facets 3", []string{"A20"}},
}

var foldEntries = []Entry{
	{"fold", "bring P to P", "bring P to P", "One point on another: corner to corner, to a mark, to a crossing.",
		"sheet square 100\nvalley bring TL to BR as f\nexpect TL at BR within 0.001", []string{"A05"}},
	{"fold", "bring P to a crossing", "bring P to meet(LINE,LINE)", "The target may be any place, such as where two creases cross.",
		"sheet square 100\ncrease bring left to right as v\ncrease bring top to bottom as h\nvalley bring TL to meet(v,h)\nexpect TL at C within 0.001", []string{"A06"}},
	{"fold", "bring LINE to LINE", "bring LINE to LINE [near P]", "Edge to edge, edge to crease, crease to crease: the line between parallels, or the one that halves the angle. near picks the other of the two.",
		"sheet square 100\nvalley bring left to right as f\nexpect TL at TR within 0.001", []string{"A01"}},
	{"fold", "halving again", "bring CREASE to LINE … between P P", "A fold halved again, pressed only as far as said.",
		"sheet square 100\ncrease bring left to bottom as d\ncrease bring left to d between TL C as e\nexpect e parallel turned(bottom,67.5,BL,TL) within 0.001", []string{"A03"}},
	{"fold", "bring P to LINE through P", "bring P to LINE through P [near P]", "A point on a line while the crease passes another point; near picks one of two.",
		"sheet square 100\ncrease bring left to right as v\nvalley bring TL to v through BL near T\nexpect TL on v within 0.001\nexpect TL at sheet(50,86.6025) within 0.001", []string{"A07"}},
	{"fold", "bring P to LINE and P to LINE", "bring P to LINE and P to LINE [near P]", "Two points on two lines at once.",
		"sheet square 120\npoint A = part(BL,TL,1/3)\ncrease through A square left as a\ncrease bring bottom to a as b\nvalley bring BL to right and A to turned(left,45,L,TR) near R as f\nexpect BL on [TR sheet(120,70)] within 0.001", []string{"A08"}},
	{"fold", "through P P", "through P P", "A crease through two points.",
		"sheet square 100\nvalley through L T moving TL\nexpect TL at C within 0.001", []string{"A09"}},
	{"fold", "through P square LINE", "through P square LINE", "An edge folded onto itself, the crease through a point.",
		"sheet square 100\nvalley through part(BL,TL,0.75) square left moving TL\nexpect TL on left within 0.001\nexpect TL at L within 0.001", []string{"A04"}},
	{"fold", "along LINE", "along LINE", "On a line that is there, or one that is written out.",
		"sheet square 100\ncrease bring left to right as k\nmountain along k moving R\nexpect R at L within 0.001", nil},
	{"fold", "parallel and touching", "bring LINE to par(LINE,P)", "An edge is laid parallel to a line and through a point: two tests for one fold, each checked on its own.",
		"sheet square 100\nvalley bring left to par(right,C) moving L as f\nexpect left parallel right within 0.001\nexpect L at C within 0.001", []string{"A14"}},
	{"fold", "constant width", "bring LINE to par(LINE,MM,P)", "After the turn a strip of the given width is left.",
		"sheet strip 200 40\nvalley bring left to par(right,40,C) moving L as f\nexpect L at sheet(160,20) within 0.001", []string{"A16"}},
	{"fold", "gap", "… gap MM | gap auto", "Stops short of the target by so much (below 0: goes past); auto leaves what the layers inside the fold need, π/2 times their thickness.",
		"sheet square 100\nvalley bring left to right gap 2 as f\nexpect TL at sheet(98,100) within 0.001", []string{"A21"}},
	{"fold", "offset, tilt", "… offset MM toward P   … tilt DEG toward P about P", "Moves the crease off its landmarks: for knobs.",
		"sheet square 100\nvalley bring left to right offset 5 toward BL\nexpect TL at sheet(90,100) within 0.001", nil},
	{"fold", "bring P to balance", "bring P to balance", "The fold after which the point lies on the centre of mass of the folded toy.",
		"sheet rect 60 200\nvalley bring T to balance as f\nexpect T at com within 0.001", []string{"A22"}},
}

var stepEntries = []Entry{
	{"step", "crease", "crease FOLD …", "Folded and opened again. With both ways it is folded to both sides.",
		"sheet square 100\ncrease bring left to right both ways as k\nexpect facets 2\nexpect sheets 1 at C", []string{"K31"}},
	{"step", "valley, mountain", "valley|mountain FOLD [moving P] [grab P…] [layers …] [under P] [over P] [between P P]", "Moved layers come up and over, or go behind. What the fingers hold decides which layers move: the pieces at the grabbed landmark, all that hang on them beyond the crease, and all that lie in the way.",
		"sheet square 100\nvalley bring left to right as f\nunfold last\nmountain along f moving L\nexpect L at R within 0.001\nexpect R above L", []string{"K01"}},
	{"step", "layers", "layers all | top N at P | bottom N at P | N to N at P", "Which layers are held, counted at a landmark.",
		"sheet square 100\nvalley bring top to bottom\nvalley along par(bottom,20,C) moving TL layers top 1 at TL expect 1\nexpect sheets 3 at sheet(50,30)", []string{"K02"}},
	{"step", "under, over", "… under P   … over P", "The moved layers end under or over the layer at a landmark; what lies in the way stays.",
		"sheet rect 100 200\npoint P = part(BL,TL,0.6)\npoint A2 = part(BL,TL,0.75)\nvalley bring BL to P as f1\nvalley through A2 square [P A2] moving TL under BL as f2\nexpect BL above TL", []string{"K13", "K16"}},
	{"step", "pinch", "pinch FOLD near P [length MM]", "A mark only: nothing is divided. Landmarks may be laid on it.",
		"sheet square 100\npinch bring TL to BL near L length 8\nexpect facets 1", []string{"K17"}},
	{"step", "pinches on a hidden crease", "bring P to LINE …", "A mark laid on a crease that lies in another layer: the line is meant where it lies, seen or not.",
		"sheet square 100\ncrease bring left to right as v\nvalley bring top to bottom as f\nturn lr\nvalley bring part(BL,BR,0.2) to v through B near C layers top 1 at BL as g\nexpect sheets 2 at TR", []string{"A19"}},
	{"step", "turn, rotate", "turn lr | turn tb | rotate DEG", "The whole toy, about the middle of the sheet.",
		"sheet square 100\nturn lr\nrotate 90\nexpect TL at sheet(0,100) within 0.001", []string{"K36"}},
	{"step", "reverse", "reverse inside|outside P FOLD spine P P [and P P]…", "The tip at P goes in between its own walls, or around them. spine names the folded edges at which the walls hang together.",
		"sheet square 100\nvalley bring TR to BL as d\npoint A = part(TL,C,0.5)\nreverse inside TL through A square [TL BR] spine TL BR as r\nexpect TL at C within 0.001", []string{"K03"}},
	{"step", "reverse outside", "reverse outside P FOLD spine P P", "The walls of the tip are wrapped around the flap.",
		"sheet square 100\nvalley bring TR to BL as d\npoint A = part(TL,C,0.5)\nreverse outside TL through A square [TL BR] spine TL BR as r\nexpect sheets 4 at TL", []string{"K30"}},
	{"step", "crimp", "crimp P along LINE and LINE spine P P", "Two inside reverses, in and out again: the tip ends shorter, or turned.",
		"sheet square 200\nvalley bring TR to BL as d\ncrimp TL along square(part(TL,C,0.5),[TL BR]) and square(part(TL,C,0.35),[TL BR]) spine TL BR\nexpect sheets 2 at TL", nil},
	{"step", "squash", "squash spine P P onto LINE [under P] [over P]", "A flap is stood up, opened and flattened: its spine comes to lie on the line about which it stands.",
		"sheet square 150\nvalley bring TL to BR\nvalley bring TR to BL\nsquash spine C TR onto [C BR] as s\nexpect facets 6", []string{"K04"}},
	{"step", "petal", "petal P creases LINE LINE spines LINE LINE [under P] [over P]", "The point of a flap is lifted while its sides fold in.",
		"sheet square 150\nuse preliminary\npetal BL creases bis([BL B],[BL C]) bis([BL L],[BL C]) spines [C B] [C L]\nexpect facets 14", []string{"K09"}},
	{"step", "collapse", "collapse fixed P {M|V|A|F LINE or P P…}… [over P P]…", "Several creases at once, while the piece at P stays: mountain or valley as seen on the flat sheet's front, A in whichever sense works, F laid flat. Creases that are not there are made.",
		"sheet square 150\nuse waterbomb\nexpect sheets 4 at B", []string{"K06", "K10"}},
	{"step", "collapse with an implied line", "collapse …", "The cross line need not have been creased before.",
		"sheet square 150\ncrease through BL TR as d1\ncrease through BR TL as d2\ncollapse fixed B V BL TR V BR TL M L R\nexpect sheets 4 at B", []string{"K07"}},
	{"step", "draw", "draw P fixed P {M|V|A|F P P…}…", "A trapped layer or corner is drawn out: creases are laid flat and others folded in their place.",
		"sheet square 100\nvalley bring TL to C as f\nvalley through B C moving L as g\ndraw TL fixed R F f\nexpect TL at TR within 0.001", []string{"K12"}},
	{"step", "rabbit", "rabbit P P P fixed P", "A rabbit ear on a triangle of the sheet; the ear rises from the side between the first two corners.",
		"sheet polygon 0 0 150 0 60 130\nrabbit P1 P2 P3 fixed part(C,P3,0.5)\nexpect P1 on [P3 P2] within 0.001", []string{"K05"}},
	{"step", "twist", "twist N about P radius MM slant DEG [from P] fixed P", "A flat twist: a polygon with N sides turns while N pleats close around it. The slant is at least 180°/N.",
		"sheet square 150\ntwist 4 about C radius 20 slant 50 fixed C\nexpect sheets 1 at C", []string{"K22"}},
	{"step", "gather", "gather about P [fixed P]", "A base about a point: a crease to every corner and every side's middle, in whichever sense works.",
		"sheet ngon 6 80\ngather about C\nexpect P1 at P2 within 0.001", []string{"K08"}},
	{"step", "sink", "sink P FOLD", "A tip goes in between its own layers along the fold, whatever it holds.",
		"sheet square 150\nuse waterbomb\nsink C through part(C,TL,0.3) part(C,TR,0.3) as s\nexpect sheets 4 at B", []string{"K40"}},
	{"step", "pop", "pop P", "A point is turned inside out: every fold that meets there changes its sense.",
		"sheet square 150\nuse preliminary\npop C\nexpect sheets 4 at BL", []string{"K32"}},
}

var moreStepEntries = []Entry{
	{"step", "pleat", "pleat along LINE and LINE [and LINE]… moving P", "Forth and back along lines of the paper before the step.",
		"sheet rect 60 240\npleat along par(top,120,B) and par(top,90,B) moving T\nexpect T on par(bottom,180,C) within 0.001\nexpect sheets 3 at sheet(30,110)", []string{"K11"}},
	{"step", "roll", "roll LINE turns N width MM | to LINE moving P", "An edge is folded over and over; with to, so that the last turn ends at a line.",
		"sheet rect 100 200\ncrease bring top to bottom as m\nroll top turns 4 to m moving T\nexpect sheets 5 at sheet(50,110)", []string{"K14", "K33"}},
	{"step", "strap", "valley … then valley … over P", "A band folded over flaps locks them: the flaps first, then the band.",
		"sheet rect 100 200\npoint A = sheet(0,150)\npoint D = sheet(100,150)\nvalley through A T moving TL as a\nvalley through D T moving TR as b\npoint P = part(T,mid(A,D),0.5) on bottom\nvalley along [A D] moving T as strap\nexpect P above TL\nexpect P above TR", []string{"K15"}},
	{"step", "round", "round P radius MM count N [behind]", "A corner is rounded by small folds that touch a circle in it.",
		"sheet square 100\nround TL radius 20 count 3 behind\nexpect facets 6", []string{"K21"}},
	{"step", "pair", "pair valley|mountain LINE moving P and LINE moving P", "Two folds as one step, such as a pair of legs.",
		"sheet square 100\npair mountain par(left,15,C) moving L and par(right,15,C) moving R\nexpect L at sheet(30,50) within 0.001\nexpect R at sheet(70,50) within 0.001", []string{"K28"}},
	{"step", "leaf", "leaf FOLD moving P [layers …]", "A leaf is turned about a fold that is there; a line that would make a new crease is refused.",
		"sheet square 150\nuse preliminary\nleaf along [C BL] moving B layers top 1 at B as t\nexpect sheets 6 at L", []string{"K24"}},
	{"step", "cut, tear", "cut|tear FOLD removing P [layers …]", "What lies beyond the line comes off, through all layers or those named.",
		"sheet rect 216 279\ncut along par(bottom,216,T) removing T\nexpect facets 1", []string{"K37"}},
	{"step", "tear", "tear FOLD removing P", "The same by hand, without scissors.",
		"sheet rect 210 297\nvalley bring TL to right through TR near R as d\ntear along [TL sheet(0,87)] removing BL layers bottom 1 at BL\nexpect facets 2", []string{"K37"}},
	{"step", "slit", "slit P P [and P P]…", "A cut inside the sheet between two landmarks.",
		"sheet square 100\nslit C T\nexpect facets 2", []string{"K37"}},
	{"step", "unfold, refold", "unfold [last | all | to NAME]   refold", "Back to the state before, to the flat sheet, or to that after a named step; and from there to where it was.",
		"sheet square 100\nvalley bring left to right as a\nvalley bring top to bottom layers all as b\nunfold to a\nexpect TL at TR within 0.001\nrefold\nexpect sheets 4 at BR", []string{"K41"}},
	{"step", "transfer", "transfer P across LINE as NAME", "The toy is folded for a moment and a mark carried to the layer it touches.",
		"sheet square 100\ncrease bring left to right as k\npoint P = sheet(20,30)\ntransfer P across k as Q\nexpect Q at sheet(80,30) within 0.001", []string{"K34"}},
	{"step", "glue", "glue P to P [mass G]", "Two faces that lie on each other are joined: they move together from then on.",
		"sheet strip 120 20\nvalley bring right to left as f\nglue R to L\nvalley bring bottom to top layers all\nexpect sheets 4 at TL", []string{"K25"}},
	{"step", "flex", "flex fixed P {M|V|A|F P P…}…", "A ring goes on to its next state: some folds open, others close.",
		"sheet square 100\nuse waterbomb\nflex fixed B F C BL C TR C BR C TL A L R\nexpect sheets 2 at B", []string{"K42"}},
}

var roundEntries = []Entry{
	{"step", "open", "open along LINE [and LINE]… moving P [and P]… angle DEG", "Folds are opened in the round: 180 is flat-folded, 0 flat open.",
		"sheet square 100\nvalley bring left to right as f\nopen along f moving L angle 60\nexpect L at R within 0.001", []string{"K39"}},
	{"step", "bend", "bend LINE moving P angle DEG [radius MM] [down]", "Layers are bent about a line without a crease.",
		"sheet rect 60 200\ncrease through L R as m\nbend m moving T angle 90 radius 10\nexpect facets 2", []string{"K18"}},
	{"step", "curl", "curl LINE moving P angle DEG | radius MM [down]", "An edge or surface is curled.",
		"sheet rect 60 200\ncrease through L R as m\ncurl par(top,30,C) moving T angle 40 radius 15\nexpect facets 2", []string{"K19"}},
	{"step", "wrap", "wrap LINE moving P girth|diameter|radius MM", "The paper goes round a gauge as far as it reaches.",
		"sheet strip 200 40\ncrease through B T as m\nwrap left moving C girth 55\nexpect facets 2", []string{"A25", "K38"}},
	{"step", "part", "part LINE into N", "The leaves that hang on a line are spread to equal angles.",
		"sheet square 150\nuse preliminary\npart [C BL] into 4\nexpect sheets 4 at BL", []string{"K23"}},
	{"step", "pivot", "pivot P about P angle DEG", "Layers slide by a small turn in their own plane: not strictly flat, and weighed so.",
		"sheet square 100\nvalley bring TL to C as f\npivot TL about L angle 3\nexpect TL at C within 0.001", []string{"K20"}},
}

var noteEntries = []Entry{
	{"step", "tape, clip", "tape P [size MM MM] mass G [back]   clip P mass G", "Something fixed to the paper, with its weight.",
		"sheet square 100\ncrease bring left to right\ntape T size 20 10 mass 0.2\nclip B mass 0.4\nexpect facets 2", []string{"K26"}},
	{"step", "label, ink", "label P \"text\" [back]   ink P P [\"tag\"] [back]", "Something written or drawn, which moves with the paper.",
		"sheet square 100\nlabel sheet(20,20) \"7\"\nink BL C \"eye line\"\nvalley bring left to right\nexpect BL at BR within 0.001", []string{"K27", "K45"}},
	{"step", "axle", "axle P [to P]", "Where a pin or skewer goes through.",
		"sheet square 100\ncrease bring left to right\naxle C\nexpect facets 2", []string{"K44"}},
}

var flagEntries = []Entry{
	{"flag", "sharp, firm, soft, bent", "… sharp | firm | soft | bent", "How hard the crease is pressed; bent is not pressed at all.",
		"sheet square 100\nvalley bring top to bottom soft as f\nexpect TL at BL within 0.001", nil},
	{"flag", "class", "… class critical | normal | free", "What the author says of the step's exactness; the computed class stands beside it.",
		"sheet square 100\nvalley bring top to bottom class critical\nexpect TL at BL within 0.001", nil},
	{"flag", "optional", "… optional", "A tidying fold that may be left out (tussock replay --skip-optional): it keeps its number, and its name then means nothing.",
		"sheet square 100\nvalley along par(top,5,C) moving T optional as hem\nexpect sheets 2 at sheet(50,93)", []string{"K29"}},
	{"flag", "conditioning", "… conditioning", "Folded only to make the paper supple.",
		"sheet square 100\ncrease bring left to right conditioning both ways\nexpect facets 2", []string{"K43"}},
	{"flag", "expect N", "… expect N", "How many pieces of paper must move; another number stops the replay.",
		"sheet square 100\nvalley bring left to right expect 1", nil},
	{"flag", "as", "… as NAME [called \"words\"]", "The name of the crease, always last.",
		"sheet square 100\ncrease bring left to right as keel called \"the centre crease\"\nexpect T on keel within 0.001", nil},
	{"check", "expect", "expect P at P within MM | P on LINE within MM | P above P | LINE parallel LINE within DEG | facets N | sheets N at P | unique", "What must be so now. unique: the layers could lie in no other way.",
		"sheet square 100\nvalley bring TL to BR as f\nexpect TL at BR within 0.001\nexpect sheets 2 at BR\nexpect TL above BR\nexpect unique", nil},
	{"check", "guard", "guard STEP before STEP \"reason\"", "An order of work that matters; it is refused the other way round, and the reason is shown.",
		"sheet square 100\nvalley bring TL to C as a\nvalley bring TR to C as b\nguard a before b \"the left corner lies under the right\"\nexpect TL at TR within 0.001", []string{"K46"}},
	{"check", "say, looks", "say \"words\"   looks \"words\"", "Under a step: what to do, in at most 25 words, and what it looks like when it is right.",
		"sheet square 100\nvalley bring left to right\n  say \"Fold side to side.\"\n  looks \"all edges lie on each other\"", nil},
}
