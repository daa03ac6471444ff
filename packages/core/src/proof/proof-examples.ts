import type { Instrument } from '../fingering';

/** A form that the proofreader reads, by an example of it. */
export interface ProofExample {
  /** What is said so: "holes one by one". */
  readonly form: string;
  /** One line, or the line before it too where it needs one. */
  readonly text: string;
}

const pipes: readonly ProofExample[] = [
  { form: 'a row of signs', text: 'E: X XXO XXXO' },
  { form: 'holes by their numbers', text: 'F: thumb 1 4 5 6' },
  { form: 'all but some', text: 'low A: all but the little finger' },
  { form: 'like another note', text: 'B: like low A with the right ring off' },
  { form: 'from another note', text: 'E from D: lift L3, R4, lower R1, R2, R3' },
  { form: 'what changes from the line before', text: 'low G: all closed\nlift the two middle fingers of the lower hand' },
  { form: 'a movement by its elements', text: 'Doubling on E: G grace note, E, F grace note' },
  { form: 'a movement from a note', text: 'Grip from D: low G, B grace note, low G' },
  { form: 'a movement by itself', text: 'Taorluath: low G, D grace note, low G, E grace note' },
  { form: 'a movement as it is written', text: '{GBGe}A from D' },
];

const irish: readonly ProofExample[] = [
  { form: 'a row of signs', text: 'F: X XXX XOXX' },
  { form: 'all but some', text: 'A: all but the left ring finger' },
  { form: 'one finger off', text: 'back D: just the thumb off' },
  { form: 'the second octave', text: 'E in the second octave: X XXX XXOO' },
  { form: 'from another note', text: 'G from F: lift R1' },
];

const whistle: readonly ProofExample[] = [
  { form: 'holes by their numbers', text: 'G: 1 2 3' },
  { form: 'a row of signs', text: 'E: XXX XXO' },
  { form: 'so many fingers', text: 'A: first two fingers' },
  { form: 'by hands', text: 'G = top hand down, bottom hand up' },
  { form: 'all but some', text: 'E: all but the right ring finger' },
  { form: 'like another note', text: 'high D: like D with the top finger off' },
  { form: 'the second octave', text: 'E in the second octave: XXX XXO' },
  { form: 'from another note', text: 'F sharp from G: add R1' },
];

const ocarina: readonly ProofExample[] = [
  { form: 'what is open', text: 'D: both sub-holes and the right little finger open' },
  { form: 'what is open, the rest shut', text: 'C: both small holes open, all else shut' },
  { form: 'one of the sub-holes', text: 'B: the larger sub-hole open' },
  { form: 'open but for some', text: 'high E: everything open but the left little finger' },
  { form: 'from another note', text: 'E from D: lift R3' },
];

/** A recorder's examples by semitones above its lowest note: sizes call the same fingers by other letters. */
function recorder({ notes }: Instrument): readonly ProofExample[] {
  const letter = (semitones: number): string =>
    notes.find(({ writtenSemitone }) => writtenSemitone - notes[0].writtenSemitone === semitones)?.schoolName.replace(/^(?:low|high|top) /, '') ?? '';
  return [
    { form: 'holes by their numbers', text: `low ${letter(4)}: thumb 1 2 3 4 5` },
    { form: 'written close', text: `${letter(7)} = T123` },
    { form: 'like another note', text: `${letter(11)}: like ${letter(9)} with 2 off` },
    { form: 'what changes from the line before', text: `${letter(9)}: 0 12\nlift L2` },
    { form: 'from another note', text: `${letter(7)} from ${letter(9)}: add 3` },
    { form: 'the second octave', text: `${letter(4)} in the second octave: pinched, 1 2 3 4 5` },
  ];
}

/**
 * An example of each form that is read on an instrument.
 * @example proofExamples(practiceChanter)[0].text // 'E: X XXO XXXO'
 */
export function proofExamples(instrument: Instrument): readonly ProofExample[] {
  switch (instrument.family) {
    case 'pipes':
      return pipes;
    case 'irish-pipes':
      return irish;
    case 'whistle':
      return whistle;
    case 'ocarina':
      return ocarina;
    case 'recorder':
      return recorder(instrument);
  }
}
