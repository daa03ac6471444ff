import { practiceChanter as chanter } from '../fingering';
import {
  compileMovement,
  countOf,
  fittingLayers,
  layersOf,
  movementById,
  movementSettingsSchema,
  pipeMovements,
  syllablesOf,
  usualMovementSettings,
  usualPace,
  beatAt,
} from '.';

const letters = (graces: readonly string[]): string => graces.map((id) => chanter.notes.find((note) => note.id === id)?.abc ?? '?').join('');
const layers = (id: string, before: string, after: string): readonly string[] =>
  layersOf(chanter, movementById(id), before, after).map(({ kind, graces }) => `${kind} ${letters(graces)}`.trim());

describe('layers of a movement', () => {
  it('a doubling: bare, one grace note, half, full, with a strike', () => {
    expect(layers('doubling', 'e', 'c')).toEqual(['bare', 'one g', 'simpler cd', 'full gcd', 'heavier gcdcG']);
  });

  it('follow the laws too: the one grace note from high G is the thumb, from high A there is none', () => {
    expect(layers('doubling', 'high-g', 'c')).toContain('one a');
    expect(layers('doubling', 'high-a', 'c')).toEqual(['bare', 'full cd', 'heavier cdcG']);
  });

  it('a light throw has the heavy one over it, a taorluath the grip under it', () => {
    expect(layers('light-throw', 'e', 'd')).toContain('heavier GdGc');
    expect(layers('taorluath', 'e', 'low-a')).toContain('simpler GdG');
  });

  it('every movement has its own form among them, and the barest is nothing (property)', () => {
    for (const movement of pipeMovements)
      for (const { id: before } of chanter.notes)
        for (const { id: after } of chanter.notes) {
          const compiled = compileMovement(chanter, movement, before, after);
          if (compiled.kind === 'unplayable' || compiled.steps.length === 0) continue;
          const all = layersOf(chanter, movement, before, after);
          expect(all[0]).toMatchObject({ kind: 'bare', graces: [] });
          expect(all.find(({ kind }) => kind === 'full')?.graces).toEqual(compiled.steps.map(({ written }) => written));
          expect(new Set(all.map(({ graces }) => graces.join(' '))).size).toBe(all.length);
        }
  });

  it('a note too short for all of it still has room for less', () => {
    const all = layersOf(chanter, movementById('doubling'), 'e', 'c');
    expect(fittingLayers(all, 200).map(({ kind }) => kind)).toEqual(['bare', 'one']);
    expect(fittingLayers(all, 100)).toEqual([]);
  });
});

describe('counting', () => {
  const taorluath = (before: string) => compileMovement(chanter, movementById('taorluath'), before, 'low-a');

  it('a taorluath is four on its onsets', () => {
    expect(countOf(chanter, taorluath('e'), 'onsets')).toEqual({ before: '', steps: ['1', '2', '3', '4'], after: '' });
  });

  it('or four from the opener of the note before, three from high A', () => {
    expect(countOf(chanter, taorluath('e'), 'with-opener')).toEqual({ before: '1', steps: ['2', '3', '', '4'], after: '' });
    expect(countOf(chanter, taorluath('high-a'), 'with-opener')).toEqual({ before: '', steps: ['1', '2', '', '3'], after: '' });
  });

  it('other movements count every element and the theme note', () => {
    expect(countOf(chanter, compileMovement(chanter, movementById('doubling'), 'e', 'c'), 'onsets')).toEqual({
      before: '',
      steps: ['1', '2', '3'],
      after: '4',
    });
  });

  it('the beat falls on the first element, the theme note, or the first low note', () => {
    const grip = compileMovement(chanter, movementById('grip'), 'e', 'low-a');
    expect([beatAt(grip, usualPace, 'first'), beatAt(grip, usualPace, 'first-low')]).toEqual([0, 0]);
    expect(beatAt(grip, usualPace, 'theme')).toBe(90 + 60 + 90);
    const strike = compileMovement(chanter, movementById('strike'), 'e', 'low-a');
    expect(beatAt(strike, usualPace, 'first-low')).toBe(0);
  });
});

describe('settings of the fingers', () => {
  const steps = (id: string, after: string, settings: object) => {
    const compiled = compileMovement(chanter, movementById(id), null, after, { ...usualMovementSettings, ...settings });
    return compiled.kind === 'compiled' ? compiled.steps : [];
  };

  it('F and B grace notes with two fingers; E, where the ring finger is up anyway, has one', () => {
    expect(steps('f-grace-note', 'c', { twoFingers: ['f'] })[0].fingers).toEqual(['L2', 'L3']);
    expect(steps('f-grace-note', 'e', { twoFingers: ['f'] })[0].fingers).toEqual(['L2']);
    expect(steps('b-grace-note', 'low-g', { twoFingers: ['b'] })[0].fingers).toEqual(['R3', 'R4']);
    expect(steps('b-grace-note', 'low-g', {})[0].fingers).toEqual(['R3']);
  });

  it('a strike on D is heavy, or light by choice; the choice is for that note only', () => {
    const form = (after: string, settings: object) => letters(steps('strike', after, settings).map(({ written }) => written));
    expect([form('d', {}), form('d', { lightTaps: ['d'] }), form('c', { lightTaps: ['d'] })]).toEqual(['gdG', 'gdc', 'gcG']);
  });

  it('the second tap of a birl is drawn by choice', () => {
    expect(steps('birl', 'low-a', { secondTap: 'drag' }).map(({ isDragged }) => isDragged)).toEqual([undefined, undefined, undefined, true]);
    expect(steps('birl', 'low-a', {}).some(({ isDragged }) => isDragged)).toBe(false);
  });
});

describe('lengths that a studio chooses', () => {
  it('are within what can be', () => {
    expect(movementSettingsSchema.parse({ lowTimes: 2.5, evenTimes: 1.5 })).toMatchObject({ lowTimes: 2.5, evenTimes: 1.5 });
    for (const bad of [{ lowTimes: 0.9 }, { lowTimes: 2.6 }, { evenTimes: 1.4 }, { evenTimes: 4.1 }])
      expect(movementSettingsSchema.safeParse(bad).success).toBe(false);
  });

  it('a plain way down from high G is for the single grace note only: a doubling keeps its thumb', () => {
    const down = (id: string): string => {
      const made = compileMovement(chanter, movementById(id), 'high-g', 'f', { ...usualMovementSettings, thumbDown: 'plain' });
      return made.kind === 'compiled' ? made.written : made.reason;
    };
    expect([down('grace-note'), down('doubling')]).toEqual(['f', '{afg}f']);
  });
});

describe('syllables', () => {
  it('are one for each element and one for the theme note; what has none is its letter', () => {
    const set = { 'high-g': { note: '', grace: 'hi' }, c: { note: 'da', grace: '' } };
    expect(syllablesOf(chanter, ['high-g', 'c', 'd'], 'c', set)).toEqual(['hi', 'da', chanter.notes.find(({ id }) => id === 'd')?.writtenName, 'da']);
  });
});
