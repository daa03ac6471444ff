import { practiceChanter } from '../fingering';
import { halfOfMusic, musicOfLine, type LineMusic } from '.';

const line = musicOfLine(practiceChanter, { home: 'c', other: 'e' });
const piece = (abc: string): LineMusic =>
  musicOfLine(practiceChanter, { home: 'c', other: 'e', excerpt: { tune: 'Spare Buttons', place: '', abc: `X:1\nT:x\nM:4/4\nL:1/4\nK:HP\n${abc}\n` } });

describe('half of a line', () => {
  it('is two of its four bars, and both halves together are the whole', () => {
    const [first, second] = [halfOfMusic(line, 'first'), halfOfMusic(line, 'second')];
    expect([first.beats, second.beats]).toEqual([8, 8]);
    expect([...first.sounds, ...second.sounds]).toEqual(line.sounds);
    expect(second.firstBeat).toBe(0);
  });

  it('is cut where a note begins, also where the middle lies in a note', () => {
    for (const abc of ['A2 c4 e d|', 'c e|A c e c|', 'e4|c4|A B c|']) {
      const whole = piece(abc);
      const [first, second] = [halfOfMusic(whole, 'first'), halfOfMusic(whole, 'second')];
      expect(first.sounds.length + second.sounds.length).toBe(whole.sounds.length);
      expect(first.beats + second.beats).toBeCloseTo(whole.beats);
      expect(first.sounds.reduce((sum, { beats }) => sum + beats, 0)).toBeCloseTo(first.beats);
      expect(second.sounds[0].isTied).toBe(false);
      expect(Math.min(first.beats, second.beats)).toBeGreaterThan(0);
    }
  });

  it('of one note is that note', () => {
    const one = piece('A4|');
    expect(halfOfMusic(one, 'second')).toBe(one);
  });
});
