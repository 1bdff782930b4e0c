package sequence

// Operations is the language of the fold engine's own steps, with the words that ways of
// moving add to it.
func Operations(ways ...Vocabulary) *Language {
	return &Language{Ways: ways, Set: readSetting, Steps: map[Op]StepReader{
		OpCrease: readFold, OpValley: readFold, OpMountain: readFold, OpLeaf: readFold,
		OpPinch: readPinch, OpPair: readPair, OpPleat: readPleat, OpRoll: readRoll, OpRound: readRound,
		OpTurn: readTurn, OpRotate: readRotate,
		OpReverse: readReverse, OpCrimp: readCrimp, OpSquash: readSquash, OpPetal: readPetal, OpSink: readSink,
		OpCollapse: readCollapse, OpDraw: readCollapse, OpFlex: readCollapse,
		OpRabbit: readRabbit, OpTwist: readTwist, OpGather: readGather, OpPop: readPop,
		OpCut: readCut, OpTear: readCut, OpSlit: readSlit, OpUnfold: readUnfold, OpRefold: readRefold,
		OpTransfer: readTransfer, OpGlue: readGlue, OpTape: readTape, OpClip: readTape, OpLabel: readLabel, OpInk: readInk, OpAxle: readAxle,
		OpOpen: readOpen, OpBend: readBend, OpCurl: readBend, OpWrap: readBend, OpPart: readPart, OpPivot: readPivot,
	}}
}
