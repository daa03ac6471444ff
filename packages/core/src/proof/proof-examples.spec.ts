import { instruments, type Instrument } from '../fingering';
import { proofreadMovement } from '../proofreading';
import { proofExamples, proofread, proofText } from '.';

function answer(instrument: Instrument, text: string): string {
  const last = proofread(instrument, text).at(-1);
  if (last === undefined) return '';
  const movement = last.proof.kind === 'right' ? undefined : proofreadMovement(instrument, last.text);
  return movement?.text ?? proofText(instrument, last.proof);
}

describe('examples of what the proofreader reads', () => {
  it.each(instruments.flatMap((instrument) => proofExamples(instrument).map(({ text }) => [instrument.id, text, instrument] as const)))(
    '%s: %s is right',
    (_, text, instrument) => {
      expect(answer(instrument, text)).toMatch(/^Right/);
    },
  );

  it.each([
    ['practice-chanter', 'low G: all closed\nlift the two middle fingers of the lower hand', /^Right: C\.$/],
    ['practice-chanter', 'E from low A: lift the ring finger', /^Which finger is “ring”/],
    ['practice-chanter', 'E from D: L3, R4 off, R1, R2, R3 on', /^Right: E\.$/],
    ['practice-chanter', 'E from D: lift L3, lower R1, R2, R3', /^No chart has this fingering/],
    ['practice-chanter', 'Grip from D: low G, D grace note, low G', /^Grip is written otherwise: {GBG}/],
    ['practice-chanter', 'Taorluath: low G, D grace note, low G, F grace note', /written otherwise/],
    ['practice-chanter', 'Taorluath: low G, banana', /cannot be read/],
    ['irish-chanter-d', 'F in the second octave: X XXX XOXX', /^Right: high F sharp/],
    ['irish-chanter-d', 'F natural: X XXX XOXX', /cannot be read|not/],
    ['recorder-soprano-baroque', 'E: pinched, 1 2 3 4 5, in the second octave', /^Right: high E/],
    ['recorder-soprano-baroque', 'E in the second octave: 0 123 45', /^These fingers are low E, not high E/],
    ['ocarina-12-c-split', 'high F: everything open', /^Right: high F/],
    ['ocarina-12-c-split', 'B: the smaller sub-hole open', /^No chart has this fingering/],
    ['ocarina-12-c-split', 'D: like C with the little finger off', /^Which finger is “little”/],
    ['whistle-d', 'lift the two middle fingers of the lower hand', /cannot be read/],
  ])('%s: %s', (id, text, wanted) => {
    const instrument = instruments.find((each) => each.id === id) as Instrument;
    expect(answer(instrument, text)).toMatch(wanted);
  });
});
