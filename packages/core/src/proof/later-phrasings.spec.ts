import { instrumentById, type Instrument } from '../fingering';
import { proofread, type Proof } from '.';

const recorder = instrumentById('recorder-soprano-baroque');
const whistle = instrumentById('whistle-d');
const chanter = instrumentById('practice-chanter');
const irish = instrumentById('irish-chanter-d');
const ocarina = instrumentById('ocarina-12-c-split');

type Wanted = readonly [kind: Proof['kind'], note?: string];

/**
 * Phrasings written down before the grammar was looked at again, as a teacher's handouts have them. At the first try 14 of the 40 came out as wanted,
 * one of them wanted wrongly ("first finger" must be asked); none was called right that is not. Four are not read to this day, and say so.
 */
const phrasings: readonly (readonly [Instrument, string, Wanted])[] = [
  [recorder, 'A: thumb + 2 fingers', ['right', 'a5']],
  [recorder, 'B, thumb and first finger of the left hand', ['ambiguous']],
  [recorder, 'C (high): thumb and 2', ['unread']],
  [recorder, "D': only 2", ['right', 'd6']],
  [recorder, 'low D  0|123|456', ['right', 'd5']],
  [recorder, 'C: all holes closed', ['right', 'c5']],
  [recorder, 'low C = everything down', ['right', 'c5']],
  [recorder, 'Bb: T 1 3 4', ['right', 'bb5']],
  [recorder, 'B flat -> 0 1 34', ['right', 'bb5']],
  [recorder, 'G: left hand only, with the thumb', ['right', 'g5']],
  [recorder, 'high E: pinch, 1 2 3 4 5', ['right', 'e6']],
  [recorder, 'E’: half thumb 12345', ['right', 'e6']],
  [recorder, 'G: 0123 (right hand off)', ['right', 'g5']],
  [recorder, 'A 0-1-2', ['right', 'a5']],
  [recorder, 'F: 0 1 2 3 5', ['unknown']],
  [recorder, 'A: thumb 1 2 3', ['right-for-another', 'g5']],
  [recorder, 'B: no thumb, 1', ['unknown']],
  [whistle, 'D: all six down', ['right', 'd5']],
  [whistle, 'G = top hand down, bottom hand up', ['right', 'g5']],
  [whistle, 'A: first two fingers', ['right', 'a5']],
  [whistle, 'B: just the top finger', ['right', 'b5']],
  [whistle, 'C#: nothing covered', ['right', 'cs6']],
  [whistle, 'C nat: o x x o o o', ['right', 'c6']],
  [whistle, 'C natural - OXXOOO', ['right', 'c6']],
  [whistle, 'E: ●●● ●●○', ['right', 'e5']],
  [whistle, 'F sharp 111 100', ['right', 'fs5']],
  [whistle, 'high D: same as D but the top finger up', ['right', 'd6']],
  [whistle, 'E: D without the bottom finger', ['right', 'e5']],
  [whistle, 'F natural: cover half of hole 5, 1-4 closed', ['right', 'f5']],
  [whistle, 'G: XXX OOX', ['unknown']],
  [chanter, 'Low A: little finger up, rest down', ['right', 'low-a']],
  [chanter, 'High A - thumb, index and middle off the top hand; bottom hand as for low A', ['ambiguous']],
  [chanter, 'E is low A with the ring finger of the left hand off', ['right', 'e']],
  [chanter, 'from F to high G lift the left index', ['right', 'high-g']],
  [chanter, 'D: right hand open but for the pinky', ['unread']],
  [chanter, 'F: top two fingers and thumb', ['unknown']],
  [chanter, 'high G = like F, L1 off too', ['right', 'high-g']],
  [irish, 'back d: just the thumb off', ['right', 'd5']],
  [irish, 'B: like A, put the ring back and lift the middle', ['unread']],
  [ocarina, 'C: both small holes open, all else shut', ['right', 'c5']],
];

const outcome = (instrument: Instrument, text: string): Wanted => {
  const proof = proofread(instrument, text).at(-1)?.proof as Proof;
  return 'note' in proof ? [proof.kind, proof.note] : [proof.kind];
};

it.each(phrasings.map(([instrument, text, wanted]) => [text, instrument, wanted] as const))('%s', (text, instrument, wanted) => {
  expect([text, ...outcome(instrument, text)]).toEqual([text, ...wanted]);
});
