/** Three sentences a stop: what it decides, how, and what usually goes wrong there. */
export const HELP: Record<string, readonly [string, string, string]> = {
  measure: [
    'Measure decides the numbers that all others come from: how thick the board really is, how much the machine takes away, and how tight the parts should sit.',
    'Put the caliper to five spots round the board, and take the kerf from a test piece cut of the same board.',
    'What goes wrong: the thickness on the label was believed, or a kerf was taken over from another board.',
  ],
  shape: [
    'Shape decides the parts: each is a list of steps, and every size may be arithmetic with names and units.',
    'Click a part to see its sizes on it, and a size to type another; what else would change is said before Enter keeps it.',
    'What goes wrong: a size was typed as a plain number that should follow the board, so it stays behind when the board changes.',
  ],
  join: [
    'Join decides how parts meet: each joint makes both of its sides, so they always belong together.',
    'Stand each part up: it goes against an edge as long as one of its own, and joints are offered where parts meet. Pick a joint to see its gap where the board is thin, at its mean and where it is thick.',
    'What goes wrong: a fit that is snug at the mean is loose at the thin end; look at both before you choose it.',
  ],
  'lay-out': [
    'Lay out decides where each part lies on real sheets: spacing, margin, grain, and what has to stay clear.',
    'Take the smallest sheet or off-cut at hand that holds them all; what is left goes back to the rack.',
    'What goes wrong: too little between parts for the beam or tool, or a clamp where the tool wants to go.',
  ],
  prove: [
    'Prove tells whether it will fit: it reads the written file back, runs a beam or tool of the real width along every path, and measures what is left.',
    'Step through what it found with N and P; each has its place, its cause, and what to do.',
    'What goes wrong: the proof is only as true as the kerf and the readings; what it did not look at is named at the end.',
  ],
  'hand-over': [
    'Hand over decides what the machine or the cutter gets: one file as its receiver wants it, the job sheet, or the whole job.',
    'Look at the picture: it is the file and nothing else; the sentences beside it say what is done in which order.',
    'What goes wrong: the file is resized on its way into the machine; measure the first part, and say here how it came out.',
  ],
}
