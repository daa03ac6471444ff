import { Midi } from '@tonejs/midi';
import { excerptOf } from '@zelpit/core/excerpt';
import { instrumentById } from '@zelpit/core/fingering';
import type { PacedLine } from '@zelpit/core/line';
import { exercisesOf, type ExerciseKind } from '@zelpit/core/line-sets';
import { readTune } from '@zelpit/core/tune';
import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { midiFile } from './midi-file';
import { musicXml } from './music-xml';
import { writtenPitch } from './written-pitch';

const chanter = instrumentById('practice-chanter');
const linesOf = (kind: ExerciseKind, tempo: number | null = 60): readonly PacedLine[] =>
  exercisesOf(chanter, { kind, start: 'c', other: 'e', focus: 'fingers', hardness: () => 1 }).lines.map((line) => ({ ...line, tempo }));
const graced: PacedLine = {
  ...{ home: 'c', other: 'e', tempo: 60 },
  exercise: {
    ...{ title: 'Graced', musical: '', physical: '', focus: 'fingers' },
    notes: [
      { note: 'c', twelfths: 36, graceNotes: ['high-g'] },
      { note: 'c', twelfths: 12, isTied: true },
      { note: 'c', twelfths: 48 },
    ],
  },
};

interface Note {
  readonly grace?: unknown;
  readonly duration?: number;
  readonly type: string;
  readonly pitch: { readonly step: string; readonly alter?: number; readonly octave: number };
}
const measures = (xml: string): readonly { readonly note: Note | Note[] }[] => {
  const score = new XMLParser({ ignoreAttributes: false, isArray: (name) => name === 'measure' || name === 'note' }).parse(xml) as {
    'score-partwise': { part: { measure: { note: Note[] }[] } };
  };
  return score['score-partwise'].part.measure;
};

describe('writtenPitch', () => {
  it('has the sharps of the pipes’ own key, and the signs of others', () => {
    expect(writtenPitch(chanter, 'c')).toEqual({ step: 'C', alter: 1, octave: 5 });
    expect(writtenPitch(chanter, 'low-g')).toEqual({ step: 'G', alter: 0, octave: 4 });
    expect(writtenPitch(chanter, 'high-a')).toEqual({ step: 'A', alter: 0, octave: 5 });
    expect(writtenPitch(instrumentById('whistle-d'), 'fs5')).toMatchObject({ step: 'F', alter: 1 });
  });
});

describe('musicXml', () => {
  it.each(['scale', 'rhythms', 'leaps', 'scale-values'] as const)('of %s is well formed, and every bar is full', (kind) => {
    const xml = musicXml(chanter, 'Try <& see>', linesOf(kind));
    expect(XMLValidator.validate(xml)).toBe(true);
    for (const { note } of measures(xml)) {
      const sum = (note as Note[]).reduce((all, { duration = 0 }) => all + duration, 0);
      expect(sum).toBe(48);
    }
  });

  it('writes grace notes without length before their note, ties, slurs, triplets and the tempo', () => {
    const xml = musicXml(chanter, 'Try', [graced, ...linesOf('leaps', 72), ...linesOf('rhythms')]);
    const [first] = (measures(xml)[0].note as Note[]).filter(({ grace }) => grace !== undefined);
    expect(first).toMatchObject({ pitch: { step: 'G', octave: 5 }, type: '32nd' });
    expect(first.duration).toBeUndefined();
    for (const part of ['<tie type="start"', '<slur type="start"', '<actual-notes>3</actual-notes>', '<per-minute>72</per-minute>'])
      expect(xml).toContain(part);
  });

  it('closes every tie that it opens, on the same pitch, for every kind of line of every family', () => {
    for (const id of ['practice-chanter', 'whistle-d', 'recorder-soprano-baroque', 'ocarina-12-c-split', 'irish-chanter-d']) {
      const instrument = instrumentById(id);
      const [low, , , start, , other] = instrument.notes;
      for (const kind of ['scale', 'scale-values', 'rhythms', 'leaps', 'cumulative', 'alternation'] as const) {
        const { lines } = exercisesOf(instrument, { kind, start: kind === 'leaps' ? low.id : start.id, other: other.id, focus: 'fingers', hardness: () => 1 });
        let open: string | undefined;
        for (const { note } of measures(
          musicXml(
            instrument,
            'Try',
            lines.map((line) => ({ ...line, tempo: null })),
          ),
        ))
          for (const each of note as (Note & { tie?: unknown })[]) {
            const types = [each.tie ?? []].flat().map((tie) => (tie as Record<string, string>)['@_type']);
            expect(types.includes('stop')).toBe(open !== undefined);
            if (open !== undefined) expect(JSON.stringify(each.pitch)).toBe(open);
            open = types.includes('start') ? JSON.stringify(each.pitch) : undefined;
          }
        expect(open).toBeUndefined();
      }
    }
  });

  it('reads in the instrument’s own key, a scale in that of the scale', () => {
    const whistle = instrumentById('whistle-d');
    const scale = exercisesOf(whistle, { kind: 'scale', start: 'g5', focus: 'fingers', hardness: () => 1 }).lines.map((line) => ({ ...line, tempo: null }));
    const keys = (xml: string): string[] => [...xml.matchAll(/<fifths>(-?\d)<\/fifths>/g)].map(([, signs]) => signs);
    expect(keys(musicXml(whistle, 'Try', [{ home: 'd5', other: 'e5', tempo: null }]))).toEqual(['2']);
    expect(keys(musicXml(whistle, 'Try', [{ home: 'd5', other: 'e5', tempo: null }, ...scale]))).toEqual(['2', '1']);
    expect(keys(musicXml(chanter, 'Try', linesOf('scale')))).toEqual(['2']);
    expect(keys(musicXml(instrumentById('recorder-soprano-german'), 'Try', [{ home: 'f5', other: 'bb5', tempo: null }]))).toEqual(['0']);
  });

  it('has a piece of a tune in its own meter, and the line after it in four again', () => {
    const tune = readTune(chanter, 'X:1\nT:Six Spoons\nM:3/4\nL:1/4\nK:HP\nA B c|{g}d2 e|]');
    const piece: PacedLine = { home: 'low-a', other: 'b', tempo: 72, excerpt: excerptOf('Six <Spoons>', 'Bar 1', tune) };
    const [line] = linesOf('scale');
    const xml = musicXml(chanter, 'Try', [piece, line, piece]);
    expect(XMLValidator.validate(xml)).toBe(true);
    const all = [...xml.matchAll(/<measure ([^>]*)>([\s\S]*?)<\/measure>/g)].map(([, head, body]) => ({ head, body }));
    expect(all.map(({ head }) => /number="([^"]*)"/.exec(head)?.[1])).toEqual(all.map((_, index) => String(index + 1)));
    const beats = all.flatMap(({ body }) => /<beats>(\d)<\/beats>/.exec(body)?.slice(1) ?? []);
    expect(beats).toEqual(['3', '4', '3']);
    const lengths = all.map(({ body }) => [...body.matchAll(/<duration>(\d+)<\/duration>/g)].reduce((sum, [, length]) => sum + Number(length), 0));
    const divisions = (from: number): number => Number(/<divisions>(\d+)<\/divisions>/.exec(all[from].body)?.[1]);
    expect(lengths.slice(0, 2)).toEqual([3 * divisions(0), 3 * divisions(0)]);
    expect(lengths.slice(2, -2).every((length) => length === 4 * divisions(2))).toBe(true);
    expect(xml).toContain('Bar 1 of Six &lt;Spoons&gt;');
    expect(xml.match(/<print new-system="yes"/g)).toHaveLength(2);
  });

  it('keeps a title that looks like markup as text', () => {
    expect(musicXml(chanter, '<b>&"', linesOf('scale'))).toContain('&lt;b&gt;&amp;');
  });
});

describe('midiFile', () => {
  it('holds every note at its time, tied ones as one, grace notes before', () => {
    const midi = new Midi(midiFile(chanter, 'Try', [graced]));
    const { notes } = midi.tracks[0];
    expect(notes.map(({ midi: key }) => key)).toHaveLength(3);
    expect(notes[0].duration).toBeCloseTo(0.05, 2);
    expect(notes[1].time).toBeCloseTo(0.05, 2);
    expect(notes[2].duration).toBeCloseTo(5, 1);
  });

  it('puts lines one after another, each at its tempo', () => {
    const midi = new Midi(midiFile(chanter, 'Try', [...linesOf('alternation', 60), ...linesOf('alternation', 120)]));
    expect(midi.header.tempos.map(({ bpm }) => Math.round(bpm))).toEqual([60, 120]);
    const { notes } = midi.tracks[0];
    expect(notes).toHaveLength(32);
    expect(notes[16].time).toBeCloseTo(12, 1);
    expect(notes[17].time - notes[16].time).toBeCloseTo(0.25, 2);
  });
});
