/** How loud something comes in, for a meter: where it stands between silence and too much, and in a word. */
export interface InputLevel {
  /** 0 to 1 along the meter. */
  readonly share: number;
  readonly word: 'too soft' | 'loud enough' | 'too loud';
}

/** Ends of the meter, and what is too soft, in decibels below full scale; too loud is a peak that is nearly cut off. Our own choices. */
const [quietest, softest] = [-60, -36];
const loudestPeak = 0.89;

const decibels = (amplitude: number): number => 20 * Math.log10(Math.max(amplitude, 1e-6));
const shareOf = (amplitude: number): number => Math.min(1, Math.max(0, 1 - decibels(amplitude) / quietest));

/** Where the marks "too soft" and "too loud" stand along the meter. */
export const meterMarks = { soft: 1 - softest / quietest, loud: shareOf(loudestPeak * Math.SQRT1_2) } as const;

/**
 * @param rms root of the mean square of a short piece, of full scale
 * @param peak its highest sample
 */
export function inputLevel(rms: number, peak: number): InputLevel {
  const share = shareOf(rms);
  if (peak >= loudestPeak) return { share: Math.max(share, meterMarks.loud), word: 'too loud' };
  return { share: Math.min(share, meterMarks.loud), word: decibels(rms) < softest ? 'too soft' : 'loud enough' };
}

/** Why a take cannot be judged at all. */
export type InputProblem = 'too short' | 'only the room' | 'too loud';

/** A take has at least so many seconds. */
const shortest = 0.4;
/** So much of a take, of what is loudest in it, must be louder than the room, in decibels below full scale. */
const [loudShare, roomLevel] = [0.05, -50];
/** A sample is cut off from here on; so many of them, as a share, are heard as other sounds. Our own choices. */
const [cutOff, mostCutOff] = [0.985, 0.0005];
const pieceSeconds = 0.02;

/** Whether a take can be judged; undefined where it can. */
export function inputProblem(samples: Float32Array, sampleRate: number): InputProblem | undefined {
  if (samples.length < shortest * sampleRate) return 'too short';
  const size = Math.round(pieceSeconds * sampleRate);
  const levels: number[] = [];
  let cut = 0;
  for (let from = 0; from + size <= samples.length; from += size) {
    let sum = 0;
    for (let index = from; index < from + size; index += 1) {
      sum += samples[index] * samples[index];
      if (Math.abs(samples[index]) >= cutOff) cut += 1;
    }
    levels.push(Math.sqrt(sum / size));
  }
  levels.sort((one, other) => other - one);
  if (decibels(levels[Math.floor(levels.length * loudShare)]) < roomLevel) return 'only the room';
  return cut / samples.length > mostCutOff ? 'too loud' : undefined;
}

/** What is said of it, and what helps. */
export const inputProblemText: Readonly<Record<InputProblem, string>> = {
  'too short': 'This is too short to hear a change in it. Play at least two notes.',
  'only the room': 'Only the room was heard. Come nearer to the microphone, or turn it up.',
  'too loud': 'This came in too loud, and what is cut off sounds like other notes. It is not judged: move away from the microphone and record again.',
};
