import type { Change } from '../change';
import type { Instrument, Pattern } from '../fingering';
import { milliseconds } from '../pitch';
import { faultPatterns, renderTimeline, worstFault, type FaultKind, type Timeline, type TimelineStep } from '../sound';

/** Two versions of one change, one of them with a fault, equally long and equally loud. */
export interface BlindPair {
  readonly samples: Float32Array<ArrayBuffer>;
  /** Which of the two has the fault. */
  readonly crossed: 0 | 1;
  /** When the second begins, in ms. */
  readonly secondMs: number;
}

const [noteMs, pauseMs] = [420, 450];

/**
 * The sound of a blind test: the change twice with a pause between, once clean and once with a fault of `faultMs` before the second note. The fault is taken in
 * equal parts from both notes, and both versions are brought to the same root mean square, so that neither length nor loudness tells them apart.
 * Undefined where nothing can go wrong in the change.
 */
export function blindPair(
  instrument: Instrument,
  change: Change,
  faultMs: number,
  crossed: 0 | 1,
  sampleRate: number,
  fault?: FaultKind,
): BlindPair | undefined {
  const kind = fault ?? worstFault(instrument, change);
  const patterns = kind === undefined ? [] : faultPatterns(instrument, change, kind);
  if (patterns.length === 0) return undefined;
  const versions = [0, 1].map((which) => renderTimeline(instrument, version(change, which === crossed ? patterns : [], faultMs), { sampleRate }));
  const wanted = Math.min(...versions.map(rootMeanSquare));
  const pause = Math.round((pauseMs / 1000) * sampleRate);
  const samples = new Float32Array(versions[0].length + pause + versions[1].length);
  versions.forEach((own, which) => {
    const factor = wanted / rootMeanSquare(own);
    samples.set(
      own.map((sample) => sample * factor),
      which === 0 ? 0 : versions[0].length + pause,
    );
  });
  return { samples, crossed, secondMs: ((versions[0].length + pause) / sampleRate) * 1000 };
}

function version(change: Change, patterns: readonly Pattern[], faultMs: number): Timeline {
  const blown = change.register === undefined ? {} : { register: change.register };
  const steps: TimelineStep[] = [];
  let start = 0;
  const push = (pattern: Pattern, length: number, role: TimelineStep['role'], note: number): void => {
    if (length <= 0) return;
    steps.push({ pattern, ...blown, start: milliseconds(start), length: milliseconds(length), role, note });
    start += length;
  };
  const taken = patterns.length === 0 ? 0 : faultMs / 2;
  push(change.fromPattern, noteMs - taken, 'theme', 0);
  for (const pattern of patterns) push(pattern, faultMs / patterns.length, 'fault', 1);
  push(change.toPattern, noteMs - taken, 'theme', 1);
  return { steps, clicks: [], length: milliseconds(start) };
}

function rootMeanSquare(samples: Float32Array): number {
  return Math.sqrt(samples.reduce((sum, sample) => sum + sample * sample, 0) / samples.length);
}
