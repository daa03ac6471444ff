import { readAbc } from '.';
import { lossesOf, type TuneFormat } from '../music-files';

const score = readAbc('X:1\nT:t\nS:a friend\nP:AAB\nM:4/4\nL:1/8\nK:HP\nV:1\nP:A\n"A"(A4 ~B4)|\nw:one two\nP:B\nc8|\nV:2\nG8|\nW:after\n').score;
const losses = (format: TuneFormat, of = score): string => lossesOf(format, of, of.voices[0]).join('; ');

describe('what a file cannot carry', () => {
  it('is nothing for ABC', () => {
    expect(losses('abc')).toBe('');
  });

  it('is said of MusicXML, packed or not', () => {
    expect(losses('musicxml')).toBe(losses('mxl'));
    expect(losses('musicxml')).toMatch(/order of the parts \(AAB\).*pipes’ own key.*; source; the words after/);
  });

  it('is said of sound and of pictures', () => {
    expect(losses('mid')).toMatch(/other voices.*words.*chord symbols.*signs.*slurs.*tuning/);
    expect(losses('wav')).not.toContain('tuning');
    expect(losses('png')).toMatch(/other voices.*words after/);
  });

  it('names only what the tune has', () => {
    const plain = readAbc('X:1\nT:t\nM:4/4\nL:1/8\nK:D\nA8|\n').score;
    expect(losses('musicxml', plain)).toBe('');
    expect(losses('pdf', plain)).toBe('');
    expect(losses('wav', plain)).toBe('the notes on the page: bars are played out as they are repeated');
  });
});
