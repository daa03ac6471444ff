import { practiceChanter } from '../fingering';
import { readTune } from '../tune';
import { chunkOf } from '../chunk';
import { proofScript } from '.';
import { scriptOf, scriptText } from '../script';

const tune = readTune(practiceChanter, 'X:1\nT:Made up\nM:2/4\nL:1/8\nK:HP\ne|a>f ec|A2 c2|]\n');
const found = chunkOf(practiceChanter, tune, { kind: 'bars', from: 1, to: 1 });
if (found.kind === 'none') throw new Error(found.reason);
const steps = scriptOf(practiceChanter, found.chunk);
const proof = (text: string): readonly string[] => proofScript(practiceChanter, tune, steps, text);

describe('proofreading a script', () => {
  it('finds nothing in what was made from the fingers', () => {
    expect(proof(scriptText(steps))).toEqual([]);
  });

  it('finds a finger that is said to move and stays, one the wrong way and one that is left out', () => {
    expect(proof('E to high A: Thumb, left index and middle lift; right ring lands.')).toEqual([
      'E to high A: the script says that right ring lands; it stays.',
      'E to high A: the script leaves out that left ring lands.',
    ]);
    expect(proof('F to E: Left middle lifts.')).toEqual(['F to E: the script says that left middle lifts; it lands.']);
  });

  it('finds a bar that is said to start on the wrong note', () => {
    expect(proof('Bar 1 starts on high A. Bar 2 begins on C.')).toEqual(['Bar 2 starts on low A, not on C.']);
  });

  it('leaves alone what it cannot read', () => {
    expect(proof('Breathe. Then play it as if it were the last bar of the evening.')).toEqual([]);
    expect(proof('E to high A: slowly at first.')).toEqual([]);
  });
});
