import { soundingPitch, type Instrument } from '@zelpit/core';
import { decodeTake, type HeardStretch } from '@zelpit/core/listening';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { PitchDetector } from 'pitchy';
import { addTake, emptyScore, f1Of, recallOf, type Score } from './listening/score-takes';
import { addedTones, simulatedTake, takeRate, type Place, type SimulatedTake, type Sounding } from './listening/simulated-takes';
import { synthesized } from './listening/synthesizer';
import { benchCommand, medianOf, percentile, type Figure } from './measure';

/** Takes of each place; the seeds that the reader was set with are others (from 1 on), and so are those whose misses were looked at (from 50 000 on). */
const takes = 100;
const firstSeed = 90_000;

type Reader = (take: SimulatedTake) => readonly HeardStretch[];

const ours: Reader = ({ instrument, samples }) => decodeTake(instrument, samples, takeRate).stretches;

/** The baseline: a pitch library's own estimate in a window of 256 samples, snapped to the nearest note; what is the same is one stretch. */
const baseline: Reader = ({ instrument, samples }) => {
  const [size, hop] = [256, Math.round(takeRate / 500)];
  const detector = PitchDetector.forFloat32Array(size);
  const bank = instrument.notes.map(({ id }) => ({ id, pitch: soundingPitch(instrument, id) }));
  const stretches: { note: HeardStretch['note']; start: number; end: number; confidence: number }[] = [];
  for (let from = 0; from + size <= samples.length; from += hop) {
    const [pitch, clarity] = detector.findPitch(samples.subarray(from, from + size), takeRate);
    const note = clarity < 0.5 || pitch <= 0 ? null : nearestOf(bank, pitch);
    const at = ((from + size / 2) / takeRate) * 1000;
    const last = stretches.at(-1);
    if (last?.note === note) last.end = at;
    else stretches.push({ note, start: at, end: at, confidence: 1 });
  }
  return stretches;
};

function nearestOf(bank: readonly { readonly id: Instrument['notes'][number]['id']; readonly pitch: number }[], pitch: number): HeardStretch['note'] {
  return [...bank].sort((one, other) => Math.abs(Math.log2(one.pitch / pitch)) - Math.abs(Math.log2(other.pitch / pitch)))[0].id;
}

/** How right takes are read, and how fast: simulated ones, so that these are upper bounds. */
export function listeningFigures(): readonly Figure[] {
  return [...places.flatMap((place) => figuresOf({ place, title: `listening, ${place}`, sounding: addedTones, isPlacedExactly: true })), memoryFigure()];
}

/** What stays in memory from one piece of a long take to the next; the sound itself is not counted. */
function memoryFigure(): Figure {
  setFlagsFromString('--expose-gc');
  const collect = runInNewContext('gc') as () => void;
  const { instrument, samples } = simulatedTake(firstSeed, 'dry', addedTones);
  const long = new Float32Array(20 * 60 * takeRate);
  for (let at = 0; at < long.length; at += samples.length) long.set(samples.subarray(0, long.length - at), at);
  collect();
  const before = process.memoryUsage().heapUsed;
  let most = 0;
  decodeTake(instrument, long, takeRate, () => {
    collect();
    most = Math.max(most, process.memoryUsage().heapUsed - before);
  });
  const median = most / 1_000_000;
  return {
    ...{ name: 'listening: what stays from one minute to the next while 20 minutes are read, beside their sound', median, unit: 'MB', goal: 'flat: at most 5' },
    ...{ isMet: median <= 5, better: 'lower', baseline: null, ratio: null, command: benchCommand },
  };
}

/** The same playing by recorded sounds of a General MIDI font, which know nothing of ours. */
export function synthesizerFigures(): readonly Figure[] {
  return places.flatMap((place) => figuresOf({ place, title: `a synthesizer listened to, ${place}`, sounding: synthesized, isPlacedExactly: false }));
}

const places: readonly Place[] = ['dry', 'room'];

interface Listening {
  readonly place: Place;
  /** What the names of its figures begin with. */
  readonly title: string;
  readonly sounding: Sounding;
  /** False where what sounds may lie some ms beside what is said of it: then nothing is said of boundaries, nor of speed. */
  readonly isPlacedExactly: boolean;
}

function figuresOf({ place, title, sounding, isPlacedExactly }: Listening): readonly Figure[] {
  const [own, other] = [emptyScore(), emptyScore()];
  let ms = 0;
  for (let seed = firstSeed; seed < firstSeed + takes; seed += 1) {
    const take = simulatedTake(seed, place, sounding);
    const start = performance.now();
    const heard = ours(take);
    ms += performance.now() - start;
    addTake(own, take, heard);
    addTake(other, take, baseline(take));
  }
  const isDry = place === 'dry';
  const higher = (name: string, of: (score: Score) => number, goal: number): Figure => ({
    ...{
      name: `${title}: ${name}`,
      median: of(own),
      unit: 'of 1',
      goal: goal === 0 ? 'none set' : `at least ${goal}`,
      isMet: of(own) >= goal,
      better: 'higher',
    },
    ...{ baseline: { name: 'pitchy, 256 samples, snapped to the scale', median: of(other) }, ratio: null, command: benchCommand },
  });
  const lower = (name: string, of: (score: Score) => number, unit: string, goal: number): Figure => ({
    ...{ name: `${title}: ${name}`, median: of(own), unit, goal: `at most ${goal}`, isMet: of(own) <= goal, better: 'lower' },
    ...{ baseline: { name: 'pitchy, 256 samples, snapped to the scale', median: of(other) }, ratio: null, command: benchCommand },
  });
  const falseClean = ({ clean }: Score): number => (100 * clean.said) / Math.max(1, clean.there);
  const speed = (own.seconds * 1000) / ms;
  const exact: readonly Figure[] = [
    lower('boundary between two notes, median', ({ boundaries }) => medianOf(boundaries), 'ms', isDry ? 0.4 : 0.5),
    lower('boundary between two notes, 95 %', ({ boundaries }) => percentile(boundaries, 0.95), 'ms', isDry ? 1.5 : 2.5),
    {
      ...{ name: `${title}: speed on one core`, median: speed, unit: 'times real time', goal: 'at least 20', isMet: speed >= 20, better: 'higher' },
      ...{ baseline: null, ratio: null, command: benchCommand },
    },
  ];
  return [
    higher(`melody notes of ${takes} simulated takes, F1`, ({ notes }) => f1Of(notes), isDry ? 0.995 : 0.99),
    ...(['25-35', '35-45', '45-60'] as const).map((length) =>
      higher(`grace notes of ${length} ms, F1`, ({ graces }) => f1Of(graces[length]), isDry ? 0.985 : 0.97),
    ),
    // No goal is set for these: they are the hard case.
    higher('grace notes an octave from the note beside them, F1', ({ graces }) => f1Of(graces.octave), 0),
    higher('of what lasts 10 ms and longer and is called sure, right', ({ sure }) => sure.right / Math.max(1, sure.said), 0.99),
    higher('of what lasts 10 ms and longer, called sure', ({ sure }) => sure.said / Math.max(1, sure.there), isDry ? 0.95 : 0),
    higher('crossing noises of 4 ms, recall', ({ noises }) => recallOf(noises['4']), isDry ? 0.85 : 0.6),
    higher('crossing noises of 6 to 8 ms, recall', ({ noises }) => recallOf(noises['6-8']), isDry ? 0.97 : 0.8),
    higher('crossing noises of 12 ms and more, recall', ({ noises }) => recallOf(noises['12+']), isDry ? 0.985 : 0.9),
    lower('short stretches that are not there', ({ falseShort, seconds }) => (60 * falseShort) / seconds, 'a minute', isDry ? 1 : 3),
    lower('clean changes called not clean', falseClean, 'of 100', isDry ? 1 : 2),
    ...(isPlacedExactly ? exact : []),
  ];
}
