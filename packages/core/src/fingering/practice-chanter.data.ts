import { thumbAndSeven } from './fingers.data';
import type { InstrumentData } from './instrument';
import { builtIn } from './built-in';
import { pattern } from './pattern';

const usual = { school: 'usual', register: 1, source: 'chart' } as const;
const downToB = ['low-g', 'low-a', 'b'];
const downToC = [...downToB, 'c'];
const downToD = [...downToC, 'd'];
const downToE = [...downToD, 'e'];
const downToF = [...downToE, 'f'];
const downToHighG = [...downToF, 'high-g'];

/**
 * The Highland practice chanter: nine notes, closed at the reed end, no second register.
 * Fingerings and ratios: usual chart. Loudness: calibrated from players' reports for the pipe chanter, dB against low A.
 * Written low A is A4; it sounds an octave lower, 237.5 Hz by default.
 */
const data: InstrumentData = {
  id: 'practice-chanter',
  name: 'practice chanter',
  family: 'pipes',
  reference: { note: 'low-a', hertz: 237.5, lowestHertz: 230, highestHertz: 242 },
  ownKeys: ['HP', 'Hp'],
  fingers: thumbAndSeven,
  holes: ['T', 'L1', 'L2', 'L3', 'R1', 'R2', 'R3', 'R4'].map((id) => ({ id, finger: id })),
  notes: [
    { id: 'low-g', schoolName: 'low G', writtenName: 'G', abc: 'G', writtenSemitone: 67, ratio: 7 / 8, justRatios: ['7/8', '8/9'], loudnessDecibels: 2 },
    { id: 'low-a', schoolName: 'low A', writtenName: 'A', abc: 'A', writtenSemitone: 69, ratio: 1, loudnessDecibels: 0 },
    { id: 'b', schoolName: 'B', writtenName: 'B', abc: 'B', writtenSemitone: 71, ratio: 9 / 8, justRatios: ['9/8'], loudnessDecibels: -0.5 },
    { id: 'c', schoolName: 'C', writtenName: 'C', abc: 'c', writtenSemitone: 73, ratio: 5 / 4, justRatios: ['5/4'], loudnessDecibels: -1 },
    { id: 'd', schoolName: 'D', writtenName: 'D', abc: 'd', writtenSemitone: 74, ratio: 4 / 3, justRatios: ['4/3'], loudnessDecibels: -1.5 },
    { id: 'e', schoolName: 'E', writtenName: 'E', abc: 'e', writtenSemitone: 76, ratio: 3 / 2, justRatios: ['3/2'], loudnessDecibels: -2 },
    { id: 'f', schoolName: 'F', writtenName: 'F', abc: 'f', writtenSemitone: 78, ratio: 5 / 3, justRatios: ['5/3'], loudnessDecibels: -2.5 },
    {
      id: 'high-g',
      schoolName: 'high G',
      writtenName: 'G',
      abc: 'g',
      writtenSemitone: 79,
      ratio: 7 / 4,
      justRatios: ['7/4', '16/9', '9/5'],
      loudnessDecibels: -3,
    },
    { id: 'high-a', schoolName: 'high A', writtenName: 'A', abc: 'a', writtenSemitone: 81, ratio: 2, loudnessDecibels: -4 },
  ],
  fingerings: [
    { ...usual, note: 'low-g', rank: 1, pattern: pattern('X XXX XXXX') },
    { ...usual, note: 'low-a', rank: 1, pattern: pattern('X XXX XXXO') },
    { ...usual, note: 'b', rank: 1, pattern: pattern('X XXX XXOO') },
    { ...usual, note: 'c', rank: 1, pattern: pattern('X XXX XOOX'), remark: 'a sounding C sharp, called C' },
    { ...usual, note: 'd', rank: 1, pattern: pattern('X XXX OOOX') },
    { ...usual, note: 'e', rank: 1, pattern: pattern('X XXO XXXO') },
    { ...usual, note: 'f', rank: 1, pattern: pattern('X XOO XXXO'), remark: 'a sounding F sharp, called F' },
    { ...usual, note: 'high-g', rank: 1, pattern: pattern('X OOO XXXO') },
    { ...usual, note: 'high-a', rank: 1, pattern: pattern('O OOX XXXO') },
  ],
  graceNotes: [
    { name: 'thumb grace note', written: 'high-a', opens: ['T'], on: downToHighG },
    { name: 'G grace note', written: 'high-g', opens: ['L1'], on: downToF },
    { name: 'F grace note', written: 'f', opens: ['L2'], on: downToE },
    { name: 'E grace note', written: 'e', opens: ['L3'], on: downToD },
    { name: 'D grace note', written: 'd', opens: ['R1'], on: downToC },
    { name: 'C grace note', written: 'c', opens: ['R2', 'R3'], on: downToB },
    { name: 'B grace note', written: 'b', opens: ['R3'], on: ['low-g', 'low-a'] },
  ],
  taps: [{ on: 'high-a', written: 'high-g', closes: ['T'] }],
  breath:
    'One steady pressure for all nine notes; do not blow harder for the high ones. Low A and high A are an exact octave, so slurring between them shows whether you blow too hard or too softly.',
  checks: [
    'The reed sits firmly and is dry enough to speak.',
    'For every top-hand note the right hand keeps the low A shape: three fingers down, little finger up.',
    'If the reed sputters, blow a little more; if it shuts off, blow less.',
  ],
  mirror: { kind: 'allowed', said: 'Some players have the right hand on top; left and right then change places.' },
  extras: [
    { name: 'C natural', pattern: pattern('X XXX XOXX'), remark: 'sharp on many practice chanters' },
    { name: 'F natural', pattern: pattern('X XOX XXXO'), remark: 'depends on the chanter' },
  ],
};

/** It hides the differences of loudness that players report of the pipes. */
export const practiceChanter = builtIn({ ...data, hidesLoudness: true });

/** The pipe chanter: a cone where the practice chanter is a cylinder, an octave higher, same fingers. */
export const pipeChanter = builtIn({
  ...data,
  id: 'pipe-chanter',
  name: 'pipe chanter',
  reference: { note: 'low-a', hertz: 475, lowestHertz: 466, highestHertz: 484 },
});
