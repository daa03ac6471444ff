import {
  embellish,
  formOf,
  instrumentById,
  keyRows,
  levels,
  LieWeigher,
  practiceChanter,
  readTune,
  RiskTable,
  seededRandom,
  type Instrument,
  type Tune,
} from '@zelpit/core';
import { createStudio } from '../e2e/api-visitor';
import { startServer } from '../e2e/server.mjs';
import { benchCommand, medianTime, type Figure } from './measure';

const seed = 20_261_128;

/** A figure in ms that has an upper limit. */
const within = (name: string, median: number, goal: number): Figure => ({
  ...{ name, median, unit: 'ms', goal: `under ${goal} ms`, isMet: median < goal, better: 'lower', baseline: null, ratio: null, command: benchCommand },
});

/** A tune of so many bars, four notes each, in phrases that come again with other endings. */
function longTune(instrument: Instrument, bars: number, key: string, letters: readonly string[]): Tune {
  const random = seededRandom(seed);
  const note = (): string => letters[Math.floor(random() * letters.length)];
  const phrases = Array.from({ length: 6 }, () => Array.from({ length: 4 }, () => `${note()}2${note()}2${note()}2${note()}2`));
  const music = Array.from({ length: bars / 4 }, () => {
    const phrase = phrases[Math.floor(random() * phrases.length)];
    return [...phrase.slice(0, 3), random() < 0.5 ? phrase[3] : `${note()}4${note()}4`].join('|');
  });
  return readTune(instrument, `X:1\nT:Long\nM:4/4\nL:1/8\nK:${key}\n${music.join('|')}|]\n`);
}

/** Forms, keys and ornaments of long tunes, and the filters of a library of 5 000 tunes. */
export async function arrangingFigures(): Promise<readonly Figure[]> {
  const whistle = instrumentById('whistle-d');
  const folk = ['D', 'E', 'F', 'G', 'A', 'B', 'c', 'd', 'e', 'f', 'g'];
  const pipes = ['A', 'B', 'c', 'd', 'e', 'f', 'a'];
  const form = longTune(practiceChanter, 128, 'HP', pipes);
  const keyed = longTune(whistle, 64, 'D', folk);
  const plain = longTune(practiceChanter, 64, 'HP', pipes);
  const keys = (): unknown => keyRows(new LieWeigher(whistle, keyed, 'slurred', new RiskTable(whistle, levels.learner)), keyed);
  return [
    within(
      'form of a tune of 128 bars, near-identical sections',
      medianTime(() => formOf(practiceChanter, form), 20, 3),
      100,
    ),
    within('form: all keys of a 64-bar tune judged, nothing known before', medianTime(keys, 10, 2), 300),
    within(
      'form: a 64-bar tune embellished',
      medianTime(() => embellish(practiceChanter, plain, { density: 'session' }), 20, 3),
      100,
    ),
    ...(await libraryFigures()),
  ];
}

const tuneCount = 5000;
const [asks, warm] = [60, 5];

async function libraryFigures(): Promise<readonly Figure[]> {
  const server = await startServer();
  try {
    const visitor = await createStudio(server.address, 'Five thousand tunes');
    const random = seededRandom(seed);
    const letters = ['G', 'A', 'B', 'c', 'd', 'E', 'F', 'D', 'e'];
    const tune = (index: number): string => {
      const own = letters.slice(0, 3 + Math.floor(random() * 7));
      const bars = Array.from({ length: 8 }, () => Array.from({ length: 4 }, () => own[Math.floor(random() * own.length)]).join(''));
      return `X:${index}\nT:Tune ${index}\nR:${['reel', 'jig', 'song'][index % 3]}\nM:4/4\nL:1/4\nK:C\n${bars.join('|')}|]\n`;
    };
    const book = Array.from({ length: tuneCount }, (_, index) => tune(index + 1)).join('\n');
    const brought = await visitor.send('POST', '/api/tunes/import?instrument=recorder-soprano-german', new TextEncoder().encode(book));
    if (brought.status !== 201) throw new Error(`The book of ${tuneCount} tunes was answered with ${brought.status}.`);
    await brought.text();
    const filter = 'instrument=recorder-soprano-german&known=g5,a5,b5,c6,d6';
    const paths = [
      `/api/tunes?limit=50&missing=1&meter=4/4&${filter}`,
      `/api/tunes?limit=50&missing=0&rhythm=reel&${filter}`,
      `/api/tunes/openings?${filter}`,
      '/api/tunes?limit=50&phrase=g5,b5,a5,c6',
    ];
    const times: number[] = [];
    for (let ask = 0; ask < asks + warm; ask += 1) {
      for (const path of paths) {
        const start = performance.now();
        const answer = await visitor.send('GET', path);
        await answer.text();
        if (answer.status !== 200) throw new Error(`${path} was answered with ${answer.status}.`);
        if (ask >= warm) times.push(performance.now() - start);
      }
    }
    times.sort((one, other) => one - other);
    return [within(`form: filters over a library of ${tuneCount} tunes, p95 of ${times.length} answers`, times[Math.floor(times.length * 0.95)], 100)];
  } finally {
    await server.stop();
  }
}
