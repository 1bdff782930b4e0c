package operations

import (
	"tussock/internal/sequence"
	"tussock/internal/sequence/lang"
)

// Language is the language of the fold engine's own steps, with the words that ways of
// moving add to it.
func Language(ways ...sequence.Vocabulary) *lang.Language {
	return &lang.Language{Ways: ways, Set: readSetting, Steps: map[sequence.Op]lang.StepReader{
		sequence.OpCrease: readFold, sequence.OpValley: readFold, sequence.OpMountain: readFold, sequence.OpLeaf: readFold,
		sequence.OpPinch: readPinch, sequence.OpPair: readPair, sequence.OpPleat: readPleat, sequence.OpRoll: readRoll, sequence.OpRound: readRound,
		sequence.OpTurn: readTurn, sequence.OpRotate: readRotate,
		sequence.OpReverse: readReverse, sequence.OpCrimp: readCrimp, sequence.OpSquash: readSquash, sequence.OpPetal: readPetal, sequence.OpSink: readSink,
		sequence.OpCollapse: readCollapse, sequence.OpDraw: readCollapse, sequence.OpFlex: readCollapse,
		sequence.OpRabbit: readRabbit, sequence.OpTwist: readTwist, sequence.OpGather: readGather, sequence.OpRays: readRays, sequence.OpPop: readPop,
		sequence.OpCut: readCut, sequence.OpTear: readCut, sequence.OpSlit: readSlit, sequence.OpUnfold: readUnfold, sequence.OpRefold: readRefold,
		sequence.OpTransfer: readTransfer, sequence.OpGlue: readGlue, sequence.OpTape: readTape, sequence.OpClip: readTape, sequence.OpLabel: readLabel, sequence.OpInk: readInk, sequence.OpAxle: readAxle,
		sequence.OpOpen: readOpen, sequence.OpBend: readBend, sequence.OpCurl: readBend, sequence.OpWrap: readBend, sequence.OpPart: readPart, sequence.OpPivot: readPivot,
	}}
}
