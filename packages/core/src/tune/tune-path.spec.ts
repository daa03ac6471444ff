import { instrumentById, patternKey } from '../fingering';
import { PathCosts, type Pins } from '../timing';
import { readTune } from './read-tune';
import type { Articulation, Tune } from './tune';
import { pathOfTune } from './tune-path';

const whistle = instrumentById('whistle-d');
const tune = (music: string): Tune => readTune(whistle, `X:1\nT:Try\nM:4/4\nL:1/4\nK:G\n${music}`);
const cs = (music: string, articulation: Articulation = 'slurred', pins: Pins = new Map()): readonly string[] => {
  const read = tune(music);
  const path = pathOfTune(new PathCosts(whistle), read, articulation, pins);
  return read.notes.flatMap(({ written, index }) =>
    written.kind === 'note' && written.note === 'c6' ? [patternKey(path.get(index)?.fingering.pattern ?? [])] : [],
  );
};

describe('fingerings through a tune', () => {
  it('hang on the neighbours, and are one where the teacher pinned it', () => {
    const [between] = cs('A c A2|');
    const key = patternKey([0, 1, 1, 1, 0, 1]);
    expect(between).not.toBe(key);
    expect(cs('A c A c|', 'slurred', new Map([['c6', key]]))).toEqual([key, key]);
  });

  it('are the best by themselves where the tongue parts the notes', () => {
    expect(cs('A c B c|', 'tongued')).toEqual([cs('z c z2|')[0], cs('z c z2|')[0]]);
  });

  it('are only told where a note has several', () => {
    const read = tune('G A G A|');
    expect(pathOfTune(new PathCosts(whistle), read, 'slurred', new Map()).size).toBe(0);
    expect(pathOfTune(new PathCosts(instrumentById('practice-chanter')), read, 'slurred', new Map()).size).toBe(0);
  });
});
