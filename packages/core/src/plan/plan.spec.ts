import { practiceChanter as chanter } from '../fingering';
import { changesOfTune, readTune } from '../tune';
import { homeFirst, lineMusic, lineNotes, linesAsAbc, lineTitle, startingTempo } from '../line';
import { expectedSeconds, tenMinuteSheet } from '.';
import { parse } from '../testing.spec-support';

const changes = (music: string) => changesOfTune(chanter, readTune(chanter, parse(`X:1\nT:t\nM:4/4\nL:1/4\nK:HP\n${music}\n`))).open;

describe('lines', () => {
  it('are four bars of home-other-home-other, eight of the change', () => {
    const line = { home: 'c', other: 'e' };
    expect(lineMusic(chanter, line)).toBe('c e c e | c e c e | c e c e | c e c e |]');
    expect(lineNotes(line)).toHaveLength(16);
    expect(lineNotes(line).filter((note) => note === 'e')).toHaveLength(8);
    expect(lineTitle(chanter, line)).toBe('C to E');
  });

  it('go out as ABC that reads back as the same notes', () => {
    const abc = linesAsAbc(chanter, 'Week 1', [{ home: 'low-a', other: 'high-a', tempo: 60, point: 'listen\nto the octave' }]);
    const tune = readTune(chanter, parse(abc));
    expect(tune.title).toContain('low A to high A');
    expect(tune.tempo).toBe(60);
    expect(tune.notes.map(({ written }) => written.kind === 'note' && written.note)).toEqual(lineNotes({ home: 'low-a', other: 'high-a' }));
    expect(abc).toContain('N:listen to the octave\n');
  });

  it('start free where a low note can pop in, on a click where not', () => {
    expect(startingTempo(chanter, { home: 'c', other: 'e' })).toBeNull();
    expect(startingTempo(chanter, { home: 'b', other: 'c' })).toBe(60);
    expect(startingTempo(chanter, { home: 'e', other: 'high-g' })).toBe(48);
  });

  it('keep the worse direction first', () => {
    expect(homeFirst(chanter, 'e', 'c')).toEqual({ home: 'e', other: 'c' });
  });
});

describe('tenMinuteSheet', () => {
  it('takes the heaviest changes, both directions in one line, until most of the trouble is held', () => {
    const sheet = tenMinuteSheet(chanter, changes('c e c e|c e c e|c e c e|B c A A|'));
    expect(sheet.lines.map((line) => [line.home, line.other])).toEqual([['c', 'e']]);
    expect(sheet.heldMoments).toBe(11);
    expect(sheet.troubledMoments).toBeGreaterThan(11);
  });

  it('never takes more than ten minutes, rests included', () => {
    const sheet = tenMinuteSheet(chanter, changes('A c A d|B e B f|c e c f|d e d g|c a d a|B a E a|'));
    expect(sheet.lines.length).toBeGreaterThan(1);
    expect(sheet.lines.reduce((sum, line) => sum + expectedSeconds(line), 0)).toBeLessThanOrEqual(600);
    expect(sheet.minutes).toBeLessThanOrEqual(10);
  });

  it('is empty for a tune without trouble', () => {
    expect(tenMinuteSheet(chanter, changes('A e A e|')).lines).toEqual([]);
  });
});
