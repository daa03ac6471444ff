import abcjs from 'abcjs';
import fc from 'fast-check';
import { XMLParser } from 'fast-xml-parser';
import { parseMidi, writeMidi } from 'midi-file';
import { parse as parseWithMusicXmlIo, validate } from 'musicxml-io';
import { heardVoice, readAbc, type Score } from '@zelpit/core';
import { midiOf, readMusicXml, writeMusicXml, xmlFromParser, xmlParserSettings } from '@zelpit/core/music-files';
import { hasAbc2midi, heardByAbc2midi, heardByUs, isSameHeard } from '../packages/core/src/score/abc2midi.spec-support';
import { corpus, fragmentText, heardOf, scales } from '../packages/core/src/score/corpus.spec-support';
import { generatedAbc } from '../packages/core/src/score/generated-abc.spec-support';
import { createStudio } from '../e2e/api-visitor';
import { startServer } from '../e2e/server.mjs';
import { benchCommand, medianTime, type Figure } from './measure';

const seed = 20_261_128;
/** The package brings no types of its own. */
const [verovioModule, verovioToolkit] = ['verovio/wasm', 'verovio/esm'];
const generated = (count: number): readonly string[] => fc.sample(generatedAbc, { numRuns: count, seed });
const hasNotes = ({ voices }: Score): boolean => voices.some(({ events }) => events.some(({ pitches }) => pitches.length > 0));

/** The rest of a row that counts things of which all should be so. */
const counted = (name: string, right: number, all: number, baseline: Figure['baseline'] = null): Figure => ({
  ...{
    name: `${name}, of ${all}`,
    median: right,
    unit: 'tunes',
    goal: `all ${all}`,
    isMet: right === all,
    better: 'higher',
    baseline,
    ratio: null,
    command: benchCommand,
  },
});

/** What abcjs itself plays of a text, as far as notes go; undefined where it warns. */
function heardByAbcjs(abc: string): readonly string[] | undefined {
  const [tune] = abcjs.parseOnly(abc) as unknown as {
    warnings?: unknown[];
    setUpAudio: (options: object) => { tracks: { cmd: string; start: number; pitch: number; style?: string }[][] };
  }[];
  if ((tune.warnings ?? []).length > 0) return undefined;
  const track = tune.setUpAudio({}).tracks.find((events) => events.some(({ cmd }) => cmd === 'note')) ?? [];
  return track.flatMap(({ cmd, start, pitch, style }) => (cmd === 'note' && style !== 'grace' ? [`${Math.round(start * 120)} ${pitch}`] : [])).sort();
}

function corpusFigures(): readonly Figure[] {
  const fragments = [...corpus, ...scales].map(([, text]) => fragmentText(text));
  const isRight = (abc: string): boolean => {
    const { score } = readAbc(abc);
    const ours = heardVoice(score, score.voices[0], 0)
      .notes.flatMap(({ start, semitone, isGrace }) => (isGrace ? [] : [`${Math.round(start * 120)} ${semitone}`]))
      .sort();
    const theirs = heardByAbcjs(abc);
    return theirs !== undefined && JSON.stringify(theirs.filter((each) => ours.includes(each))) === JSON.stringify(ours) && theirs.length === ours.length;
  };
  const right = [...corpus, ...scales].filter(([, text, heard]) => heardOf(readAbc(fragmentText(text)).score) === heard).length;
  return [
    counted('corpus fragments that are read right', right, fragments.length, {
      name: 'abcjs by itself, without a warning, repeats unfolded',
      median: fragments.filter(isRight).length,
    }),
  ];
}

function abc2midiFigures(): readonly Figure[] {
  if (!hasAbc2midi) throw new Error('abc2midi is needed: install Debian’s package abcmidi.');
  const tunes = generated(2000);
  return [
    counted(
      'generated tunes that begin the same notes at the same times as by abc2midi',
      tunes.filter((abc) => isSameHeard(heardByUs(abc), heardByAbc2midi(abc))).length,
      tunes.length,
    ),
  ];
}

async function musicXmlFigures(): Promise<readonly Figure[]> {
  const { default: createModule } = (await import(verovioModule)) as { default: () => Promise<unknown> };
  const { VerovioToolkit, enableLogToBuffer } = (await import(verovioToolkit)) as unknown as {
    VerovioToolkit: new (module: unknown) => { loadData: (xml: string) => boolean; getLog: () => string };
    enableLogToBuffer: (value: boolean, module: unknown) => void;
  };
  const module = await createModule();
  const toolkit = new VerovioToolkit(module);
  enableLogToBuffer(true, module);
  const scores = generated(300)
    .map((abc) => readAbc(abc).score)
    .filter(hasNotes);
  const parser = new XMLParser(xmlParserSettings);
  const [quiet, strict, back] = [0, 0, 0];
  const right = { quiet, strict, back };
  for (const score of scores) {
    const xml = writeMusicXml(score);
    toolkit.loadData(xml);
    if (toolkit.getLog().trim() === '') right.quiet += 1;
    // Made-up bars are longer or shorter than their meter says; that is the one complaint that is wanted.
    if (validate(parseWithMusicXmlIo(xml)).errors.every(({ code }) => code === 'MEASURE_DURATION_OVERFLOW')) right.strict += 1;
    const again = readMusicXml(xmlFromParser(parser.parse(xml)) as never);
    if (heardText(again) === heardText(score)) right.back += 1;
  }
  return [
    counted('MusicXML files that verovio reads without a word in its log', right.quiet, scores.length),
    counted('MusicXML files that musicxml-io validates', right.strict, scores.length),
    counted('MusicXML files that come back as the same tune', right.back, scores.length),
  ];
}

const heardText = (score: Score): string =>
  JSON.stringify(heardVoice({ ...score, partOrder: [] }, score.voices[0], 0).notes.map(({ start, semitone }) => [Math.round(start * 10_080), semitone]));

function midiFigures(): readonly Figure[] {
  const scores = generated(300)
    .map((abc) => readAbc(abc).score)
    .filter(({ voices }) => voices[0].events.some(({ pitches }) => pitches.length > 0));
  const right = scores.filter((score) => {
    const [voice] = score.voices;
    const bytes = Uint8Array.from(writeMidi(midiOf(score, voice, { beat: 1 / 4, perMinute: 90, words: '' }) as never));
    const { tracks } = parseMidi(bytes);
    const ons = tracks[1].filter(({ type }) => type === 'noteOn').map((event) => (event as unknown as { noteNumber: number }).noteNumber);
    return (
      JSON.stringify(ons.sort()) ===
      JSON.stringify(
        heardVoice(score, voice, 0.01)
          .notes.map(({ semitone }) => semitone)
          .sort(),
      )
    );
  }).length;
  return [counted('MIDI files in which midi-file finds every note that is heard', right, scores.length)];
}

function readingFigures(): readonly Figure[] {
  const tunes = generated(1000);
  const reading = medianTime(() => tunes.forEach((abc) => void readAbc(abc)));
  const parsing = medianTime(() => tunes.forEach((abc) => void abcjs.parseOnly(abc)));
  return [
    {
      ...{ name: '1 000 tunes read', median: reading, unit: 'ms', goal: 'under 1.5 times abcjs’s parse', isMet: reading < 1.5 * parsing, better: 'lower' },
      ...{ baseline: { name: 'abcjs parses the same tunes', median: parsing }, ratio: reading / parsing, command: benchCommand },
    },
  ];
}

async function importFigures(): Promise<readonly Figure[]> {
  const server = await startServer();
  try {
    const visitor = await createStudio(server.address, 'Long Book');
    const book = generated(1000)
      .map((abc, index) => abc.replace('X:1\nT:Made', `X:${index + 1}\nT:Made ${index + 1}`))
      .join('\n');
    const begin = performance.now();
    const answer = await fetch(`${server.address}/api/tunes/import?instrument=whistle-d`, {
      ...{ method: 'POST', headers: { ...visitor.headers, 'content-type': 'application/octet-stream' }, body: book },
    });
    const { saved } = (await answer.json()) as { saved: unknown[] };
    const seconds = (performance.now() - begin) / 1000;
    if (saved.length !== 1000) throw new Error(`Of 1000 tunes ${saved.length} were saved.`);
    return [
      {
        ...{ name: '1 000 tunes imported, analysed and stored', median: seconds, unit: 's', goal: 'under 20 s', isMet: seconds < 20, better: 'lower' },
        ...{ baseline: null, ratio: null, command: benchCommand },
      },
    ];
  } finally {
    await server.stop();
  }
}

export async function tuneFigures(): Promise<readonly Figure[]> {
  return [...corpusFigures(), ...abc2midiFigures(), ...(await musicXmlFigures()), ...midiFigures(), ...readingFigures(), ...(await importFigures())];
}
