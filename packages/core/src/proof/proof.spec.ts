import fc from 'fast-check';
import { instrumentById, instruments, type Instrument } from '../fingering';
import { proofread, proofText, type Proof } from '.';

const baroque = instrumentById('recorder-soprano-baroque');
const german = instrumentById('recorder-soprano-german');
const whistle = instrumentById('whistle-d');
const chanter = instrumentById('practice-chanter');

const of = (instrument: Instrument, text: string, other?: Instrument): Proof => proofread(instrument, text, other).at(-1)?.proof as Proof;

/** Phrasings that are right, with the note that they are right for. */
const right: readonly (readonly [Instrument, string, string])[] = [
  [baroque, 'E: thumb 1 2 3 4 5', 'e5'],
  [baroque, 'E: T 1 2 3 4 5', 'e5'],
  [baroque, 'E = T12345', 'e5'],
  [baroque, 'E - 0 1 2 3 4 5', 'e5'],
  [baroque, 'E 0 123 45', 'e5'],
  [baroque, 'E is thumb, 1, 2, 3, 4 and 5', 'e5'],
  [baroque, 'low E: 0 1-5', 'e5'],
  [baroque, 'low E: thumb, 1 to 5', 'e5'],
  [baroque, 'F = T123 4 67', 'f5'],
  [baroque, 'F: thumb, left hand, 4, 6 and 7', 'f5'],
  [baroque, 'F: 0 123 4 67', 'f5'],
  [baroque, 'F♯: 0 123 56', 'fs5'],
  [baroque, 'F#: 0 123 56', 'fs5'],
  [baroque, 'F sharp: 0 123 56', 'fs5'],
  [baroque, 'G flat: 0 123 56', 'fs5'],
  [baroque, 'G: thumb and left hand', 'g5'],
  [baroque, 'G: T 123', 'g5'],
  [baroque, 'A: 0 12', 'a5'],
  [baroque, 'A: thumb index middle of the left hand', 'a5'],
  [baroque, 'B: thumb and 1', 'b5'],
  [baroque, 'B: thumb 1', 'b5'],
  [baroque, 'Bb: 0 1 34', 'bb5'],
  [baroque, 'B♭ = 0 1 3 56', 'bb5'],
  [baroque, 'B flat: thumb 1 3 4', 'bb5'],
  [baroque, 'A sharp: thumb 1 3 4', 'bb5'],
  [baroque, 'C: 0 2', 'c6'],
  [baroque, 'C: thumb and 2', 'c6'],
  [baroque, 'low C: all', 'c5'],
  [baroque, 'low C: everything closed', 'c5'],
  [baroque, 'low C: thumb, left hand and right hand', 'c5'],
  [baroque, 'high D: 2', 'd6'],
  [baroque, 'high D: pinched thumb 123 456', 'd6'],
  [baroque, 'high D: ø 123 456', 'd6'],
  [baroque, 'high E: half thumb, 1 2 3 4 5', 'e6'],
  [baroque, 'high E: pinch the thumb 12345', 'e6'],
  [baroque, 'high G: ø123', 'g6'],
  [baroque, 'C sharp: 12', 'cs6'],
  [baroque, 'low C sharp: 0 123 456 7h', 'cs5'],
  [baroque, 'low C sharp: 0 123 456 half 7', 'cs5'],
  [baroque, 'E flat: 0 123 45 6h', 'eb5'],
  [baroque, 'D#: 0 123 45 half hole 6', 'eb5'],
  [baroque, 'G#: 0 12 45 6h', 'gs5'],
  [baroque, 'E5: 0 12345', 'e5'],
  [baroque, 'B: like A with the middle finger off', 'b5'],
  [baroque, 'B: like A with 2 off', 'b5'],
  [baroque, 'B: same as A but lift the left middle', 'b5'],
  [baroque, 'B: same as A without 2', 'b5'],
  [baroque, 'A: like B with 2 added', 'a5'],
  [baroque, 'A: like B plus 2', 'a5'],
  [baroque, 'G: as A, and add the left ring finger', 'g5'],
  [baroque, 'D: like low E with 6 down', 'd5'],
  [baroque, 'G: 0 123\nlift the ring finger', 'a5'],
  [baroque, 'G: 0 123\nlift 3', 'a5'],
  [baroque, 'G: 0 123\nA: lift the ring finger', 'a5'],
  [baroque, 'A: 0 12\nB: take off the middle finger', 'b5'],
  [baroque, 'A: 0 12\nG: put down 3', 'g5'],
  [german, 'F: 0 123 4', 'f5'],
  [german, 'F sharp: 0 123 567', 'fs5'],
  [whistle, 'D: xxx xxx', 'd5'],
  [whistle, 'D: all', 'd5'],
  [whistle, 'E: xxx xxo', 'e5'],
  [whistle, 'E: 1 2 3 4 5', 'e5'],
  [whistle, 'G: 123', 'g5'],
  [whistle, 'G: left hand', 'g5'],
  [whistle, 'A: 1 and 2', 'a5'],
  [whistle, 'A: ●●○ ○○○', 'a5'],
  [whistle, 'B: 1', 'b5'],
  [whistle, 'C natural: oxx ooo', 'c6'],
  [whistle, 'C: oxx xox', 'c6'],
  [whistle, 'C natural: 2 3', 'c6'],
  [whistle, 'C sharp: none', 'cs6'],
  [whistle, 'C sharp: all open', 'cs6'],
  [whistle, 'high D: 2 3 4 5 6', 'd6'],
  [whistle, 'F natural: 123 4 5h', 'f5'],
  [whistle, 'B: like A with the bottom finger off', 'b5'],
  [whistle, 'A: like G, but lift the left ring', 'a5'],
  [chanter, 'low A: X XXX XXXO', 'low-a'],
  [chanter, 'low G: all', 'low-g'],
  [chanter, 'B: thumb 1 2 3 4 5', 'b'],
  [chanter, 'C: X XXX XOOX', 'c'],
  [chanter, 'C sharp: thumb 123 4 7', 'c'],
  [chanter, 'D: thumb, left hand and 7', 'd'],
  [chanter, 'E: T 1 2 4 5 6', 'e'],
  [chanter, 'F sharp: T 1 4 5 6', 'f'],
  [chanter, 'high G: T456', 'high-g'],
  [chanter, 'high A: 3 4 5 6', 'high-a'],
  [chanter, 'B: like low A with the right ring off', 'b'],
  [chanter, 'low A: X XXX XXXO\nlift the right ring finger', 'b'],
];

/** Phrasings that are not right, with what they are. */
const notRight: readonly (readonly [Instrument, string, Proof['kind']])[] = [
  [baroque, 'F: 0 123 4', 'right-on-other-model'],
  [german, 'F: 0 123 4 67', 'right-on-other-model'],
  [baroque, 'F sharp: 0 123 567', 'right-on-other-model'],
  [baroque, 'E: 0 123 4 67', 'right-for-another'],
  [baroque, 'E: 0 123', 'right-for-another'],
  [baroque, 'A: 0 1', 'right-for-another'],
  [baroque, 'high D: 0 123 456', 'right-for-another'],
  [whistle, 'G: xxo ooo', 'right-for-another'],
  [whistle, 'F: xxx xoo', 'right-for-another'],
  [chanter, 'low A: all', 'right-for-another'],
  [chanter, 'E: X XXO XXXX', 'unknown'],
  [chanter, 'F: T 1 3 4 5 6', 'unknown'],
  [baroque, 'G: 0 13', 'unknown'],
  [baroque, 'C: 0 2 7', 'unknown'],
  [whistle, 'G: 1 2 3 6', 'unknown'],
  [baroque, 'A: like G with the first finger off', 'ambiguous'],
  [whistle, 'E: like D with the ring finger off', 'ambiguous'],
  [chanter, 'B: like low A with the second finger off', 'ambiguous'],
  [baroque, 'D: like low C, lift the index', 'ambiguous'],
  [baroque, 'H: 0 123', 'unread'],
  [baroque, 'hello there', 'unread'],
  [baroque, 'E: thumb 1 2 banana', 'unread'],
  [baroque, 'E: 0 123 4h', 'unread'],
  [baroque, 'lift the ring finger', 'unread'],
  [baroque, 'E: like Q with 2 off', 'unread'],
  [baroque, 'E:', 'unread'],
  [whistle, 'G: thumb 1 2 3', 'unread'],
  [whistle, 'G: 1 2 3 7', 'unread'],
  [baroque, '<b>E</b>: 0 12345', 'unread'],
  [baroque, '', 'empty'],
];

describe('proofread', () => {
  it.each(right.map(([{ id }, ...rest]) => [id, ...rest] as const))('%s: %s is right for %s', (id, text, note) => {
    expect(of(instrumentById(id), text)).toMatchObject({ kind: 'right', note });
  });

  it.each(notRight.map(([{ id }, ...rest]) => [id, ...rest] as const))('%s: %s is %s', (id, text, kind) => {
    const instrument = instrumentById(id);
    const other = instrument === baroque ? german : baroque;
    expect(of(instrument, text, other).kind).toBe(kind);
  });

  it('says what is wrong in a sentence, and asks which finger is meant', () => {
    expect(proofText(baroque, of(baroque, 'E: 0 123'))).toBe('These fingers are G, not low E or high E.');
    expect(proofText(whistle, of(whistle, 'E: like D with the ring finger off'))).toBe('Which finger is “ring”: L ring or R ring?');
    expect(proofText(baroque, of(baroque, 'F: 0 123 4', german))).toBe('Right for the German model, but not for this one.');
    expect(proofText(baroque, of(baroque, 'E: thumb 1 banana'))).toBe('“banana” cannot be read.');
  });

  it('calls no fingering right for a note that the chart does not give it', () => {
    const names = ['low C', 'D', 'E', 'F', 'F sharp', 'G', 'A', 'B flat', 'B', 'C', 'high D', 'high E'];
    fc.assert(
      fc.property(
        fc.constantFrom(baroque, german, whistle, chanter),
        fc.constantFrom(...names),
        fc.uniqueArray(fc.integer({ min: 0, max: 7 })),
        (instrument, name, holes) => {
          const proof = of(instrument, `${name}: ${holes.join(' ')}`);
          if (proof.kind !== 'right') return;
          const charted = instrument.fingerings.filter((fingering) => fingering.note === proof.note);
          const thumb = instrument.holes[0].finger === 'T' ? 0 : 1;
          const covered = holes.map((hole) => hole - thumb).sort((one, other) => one - other);
          expect(charted.some(({ pattern }) => pattern.flatMap((coverage, hole) => (coverage > 0 ? [hole] : [])).join() === covered.join())).toBe(true);
        },
      ),
      { numRuns: 400 },
    );
  });

  it('reads any text without breaking, on every instrument, and never calls nonsense right', () => {
    fc.assert(
      fc.property(fc.constantFrom(...instruments), fc.string({ maxLength: 60 }), (instrument, text) => {
        for (const { proof } of proofread(instrument, text)) expect(proofText(instrument, proof)).toEqual(expect.any(String));
      }),
      { numRuns: 300 },
    );
  });

  it('reads 10 000 lines as far as a handout goes, quickly enough to type along', () => {
    expect(proofread(baroque, 'E: 0 12345\n'.repeat(10_000))).toHaveLength(2000);
  });
});
