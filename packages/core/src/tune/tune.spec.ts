import { headingOf } from '../change';
import { instrumentById, practiceChanter as chanter } from '../fingering';
import { levels, RiskTable } from '../timing';
import { bookOf, changesOfTune, troubleOfTune, keyChoices, keyThatHelps, noticePhrase, placePhrase, readBook, readTune, splitBook, type BookReading } from '.';

const head = 'X:1\nT:Try\nM:2/4\nL:1/8\nK:HP\n';
const tune = (music: string, header = head) => readTune(chanter, header + music);
const letters = (music: string, header?: string) =>
  tune(music, header).notes.map(({ written }) => (written.kind === 'note' ? written.note : written.kind === 'rest' ? 'rest' : written.text));
const readAll = (text: string): BookReading[] => [...readBook(chanter, text)];

describe('readTune', () => {
  it('counts a single short bar as bar 1, not as a lead-in to nothing', () => {
    expect(tune('AB|').notes.map((note) => [note.bar, note.beat])).toEqual([
      [1, 1],
      [1, 1.5],
    ]);
    expect(tune('A|Bcde|').notes[0].bar).toBe(0);
  });

  it.each(['HP', 'Hp'])('takes letters for the nine notes under K:%s', (key) => {
    expect(letters('GABc defg|a4|', head.replace('K:HP', `K:${key}`))).toEqual(['low-g', 'low-a', 'b', 'c', 'd', 'e', 'f', 'high-g', 'high-a']);
  });

  it('says an accidental under the pipes’ own key, and never swallows it', () => {
    expect(letters('=c2 ^g2|^c2 =g2|')).toEqual(['C natural', 'G sharp', 'c', 'high-g']);
  });

  it('takes pitches under other keys: C sharp and F sharp are wanted', () => {
    const inD = head.replace('K:HP', 'K:D');
    expect(letters('c d f g|', inD)).toEqual(['c', 'd', 'f', 'high-g']);
    expect(letters('=c d =f ^g|', inD)).toEqual(['C natural', 'd', 'F natural', 'G sharp']);
    expect(letters('c ^c c d|c4|', head.replace('K:HP', 'K:C'))).toEqual(['C natural', 'c', 'c', 'd', 'C natural']);
  });

  it('names notes outside the nine with their place and keeps the rest', () => {
    const read = tune("A,2 A2|b2 c'2|A4|");
    expect(read.notices.map(noticePhrase)).toEqual([
      'A below low G cannot be played (bar 1, beat 1)',
      'B above high A cannot be played (bar 2, beat 1)',
      'C above high A cannot be played (bar 2, beat 2)',
    ]);
    expect(changesOfTune(chanter, read).open).toEqual([]);
  });

  it('counts the lead-in as bar 0 and beats from the bar line', () => {
    const read = tune('e|A2 cd|e4|');
    expect(read.notes.map(({ bar, beat }) => [bar, beat])).toEqual([
      [0, 2.5],
      [1, 1],
      [1, 2],
      [1, 2.5],
      [2, 1],
    ]);
    expect(placePhrase(0, 2.5)).toBe('lead-in');
    expect(placePhrase(1, 2.5)).toBe('bar 1, after beat 2');
  });

  it('counts a bar once that a repeat sign cuts in two', () => {
    const read = tune('|:e|A2 c2|d3:|: f|e2 c2|A3:|');
    expect(read.notes.map(({ bar, beat }) => `${bar}:${beat}`)).toEqual(['0:2.5', '1:1', '1:2', '2:1', '2:2.5', '3:1', '3:2', '4:1']);
  });

  it('counts three eighths to the beat in 6/8', () => {
    const read = tune('A2B c2d|e6|', head.replace('2/4', '6/8'));
    expect(read.meter).toMatchObject({ beats: 2, beat: 3 / 8 });
    expect(read.notes.map(({ beat }) => Math.round(beat * 100) / 100)).toEqual([1, 1.67, 2, 2.67, 1]);
  });

  it('reads triplets, ties, grace notes and tempo', () => {
    const read = tune('(3ABc {gcd}c2-|c4|', head.replace('K:HP', 'Q:1/4=66\nK:HP'));
    expect(read.notes[0].duration).toBeCloseTo(1 / 12);
    expect(read.notes[3].graceNotes).toEqual(['high-g', 'c', 'd']);
    expect(read.notes[4].isTiedFromPrevious).toBe(true);
    expect(read.tempo).toBe(66);
  });

  it('knows how fast each bar goes beside the first', () => {
    const read = tune('A4|[Q:1/4=132]B4|c4|[Q:1/8=66]d4|', head.replace('K:HP', 'Q:1/4=66\nK:HP'));
    expect(read.bars.map(({ pace }) => pace)).toEqual([1, 2, 2, 0.5]);
  });

  it('says when a second voice or a chord is left out', () => {
    expect(tune('[Ae]2 A2|').findings.map(({ text }) => text)).toEqual(['chords: the highest note is played']);
    expect(letters('[eA]2 A2|')).toEqual(['e', 'low-a']);
    expect(readTune(chanter, `${head}[ceA]2 A2|\n`, { chordNote: 'lowest' }).notes[0].written).toEqual({ kind: 'note', note: 'low-a' });
    expect(readTune(chanter, `${head}[ceA]2 A2|\n`, { chordNote: 'first' }).notes[0].written).toEqual({ kind: 'note', note: 'c' });
    expect(tune('V:1\nA4|\nV:2\ne4|').findings.map(({ text }) => text)).toEqual(['2 voices: the first is read']);
    expect(readTune(chanter, `${head}V:1\nA4|\nV:2\ne4|\n`, { voice: '2' }).notes[0].written).toEqual({ kind: 'note', note: 'e' });
  });
});

describe('bars', () => {
  it('know their stretch of the text, bar lines included', () => {
    const abc = `${head}|:{g}e|A>c c2|d4:|\n|:e2 f2|[1 A4:|[2 c4|]\n`;
    const read = readTune(chanter, abc);
    expect(read.bars.map(({ source }) => abc.slice(source.start, source.end).trim())).toEqual(['|:{g}e|', 'A>c c2|', 'd4:|', '|:e2 f2|', '[1 A4:|', '[2 c4|]']);
  });
});

describe('playedBars', () => {
  const order = (music: string) => {
    const read = tune(music);
    return read.playedBars.map((index) => read.bars[index].number).join(' ');
  };

  it('plays repeats and endings out', () => {
    expect(order('A4|B4:|c4|d4|]')).toBe('1 2 1 2 3 4');
    expect(order('|:A4|B4:|:c4|d4:|')).toBe('1 2 1 2 3 4 3 4');
    expect(order('|:A4|1 B4:|2 c4||d4|]')).toBe('1 2 1 3 4');
    expect(order('|:A4|1 B4:|2 c4:|:d4|e4:|')).toBe('1 2 1 3 4 5 4 5');
    expect(order('A4|B4|')).toBe('1 2');
  });

  it('ends on endings that do not fit together', () => {
    expect(order('|:A4|1 B4|c4:|d4:|')).toMatch(/^1 2 3 1/);
    expect(order('A4:|:B4:|:c4::')).toContain('3');
  });
});

describe('the rank of a change in a tune', () => {
  it('is by what is heard, then by difficulty, what lets nothing be heard last', () => {
    const { open } = changesOfTune(chanter, tune('A c e g|B e d f|c d c B|A e f a|'));
    const headings = open.map(({ trouble }) => headingOf(trouble));
    expect(headings.filter((heading, index) => heading !== headings[index - 1])).toHaveLength(new Set(headings).size);
    expect(headings[headings.length - 1]).toBe('none');
    open.slice(1).forEach(({ difficulty }, index) => {
      if (headings[index] === headings[index + 1]) expect(difficulty).toBeLessThanOrEqual(open[index].difficulty);
    });
  });

  it('is less hard under a grace note than bare, and the trouble of a tune is difficulty times occurrences', () => {
    const bare = changesOfTune(chanter, tune('d2 A2|d2 A2|')).open;
    const [under] = changesOfTune(chanter, tune('d2 {g}A2|')).underGraceNotes;
    const there = bare.find(({ change }) => change.from === 'd')!;
    expect(under.difficulty).toBeLessThan(there.difficulty);
    expect(there.occurrences).toBe(2);
    expect(troubleOfTune([there])).toBeCloseTo(2 * there.difficulty, 9);
  });
});

describe('changesOfTune', () => {
  it('finds each distinct change with its places, worst first, grace notes apart', () => {
    const { open, underGraceNotes } = changesOfTune(chanter, tune('c2 e2|c2 e2|A2 {g}d2|d4|'));
    expect(open.map((each) => `${each.id} ${each.occurrences}`)).toEqual(['c>e 2', 'e>c 1', 'e>low-a 1']);
    expect(open[0].places).toEqual([
      { from: 0, to: 1, bar: 1, beat: 2, isAcrossRepeat: false },
      { from: 2, to: 3, bar: 2, beat: 2, isAcrossRepeat: false },
    ]);
    expect(underGraceNotes).toHaveLength(1);
    expect(underGraceNotes[0]).toMatchObject({ id: 'low-a>d under G grace note', under: 'G grace note' });
  });

  it('names the written group where no grace note hides the change', () => {
    expect(changesOfTune(chanter, tune('c2 {GdG}A2|')).underGraceNotes[0].under).toBe('{GdG}');
  });

  it.each([
    ['A2 {Gdc}d2|', 'low-a>d'],
    ['e2 {Gdc}d2|', 'e>d'],
    ['c2 {GdG}e2|', 'c>e'],
    ['B2 {GdGe}A2|', 'b>low-a'],
  ])('%s: the low note that the movement wants never cuts in', (music, id) => {
    const [through] = changesOfTune(chanter, tune(music)).underGraceNotes;
    expect(through.id.startsWith(`${id} under`)).toBe(true);
    expect(through.trouble).not.toMatchObject({ kind: 'pop' });
    expect(through.inside).toBeDefined();
    expect(Object.values(through.advice).join(' ')).not.toMatch(/low G (cuts|slips) in/);
  });

  it('a taorluath is judged by coming off its last low G: low A before the E grace note', () => {
    const [through] = changesOfTune(chanter, tune('c2 {GdGe}A2|')).underGraceNotes;
    expect(through.inside).toMatchObject({ from: 'low-g', to: 'e' });
    expect(through.trouble).toEqual({ kind: 'run', notes: ['low-a'] });
  });

  it('a change under the same grace note is one, by itself and as the opener of a doubling', () => {
    const { underGraceNotes } = changesOfTune(chanter, tune('e2 {g}d2|e2 {gde}d2|e2 {Gdc}d2|'));
    expect(underGraceNotes.filter(({ change }) => change.from === 'e').map(({ under, occurrences }) => [under, occurrences])).toEqual([
      ['G grace note', 2],
      ['{Gdc}', 1],
    ]);
  });

  it('sees the change from the end of a part back to its start', () => {
    const { open } = changesOfTune(chanter, tune('|:c4|B4:|'));
    expect(open.map((each) => [each.id, each.places[0].isAcrossRepeat])).toEqual([
      ['c>b', false],
      ['b>c', true],
    ]);
  });

  it('finds nothing across a rest, a tie or a repeated note', () => {
    expect(changesOfTune(chanter, tune('A2 z2|c2 c2-|c4|')).open).toEqual([]);
  });
});

describe('readBook', () => {
  it('keeps the good tunes of a file and says line, character and what was expected of the bad one', () => {
    const text = 'X:1\nT:Good\nK:HP\nABcd|\n\nX:2\nT:Bad\nK:HP\nA B {gcd A|\n\nX:3\nT:Fine\nK:HP\na4|\n';
    const readings = readAll(text);
    expect(readings.map((reading) => `${reading.kind} ${reading.entry.title}`)).toEqual(['read Good', 'refused Bad', 'read Fine']);
    const bad = readings[1];
    expect(bad.kind === 'refused' && bad.entry.faults).toEqual([
      { line: 9, column: 5, problem: 'A group of grace notes starts here and is never closed.', expected: '"}" after the last grace note' },
    ]);
  });

  it('gives every tune what the head of the file says, unless the tune says it itself; lines stay those of the file', () => {
    const book = '\ufeff%%pagewidth 20cm\nM:3/4\nL:1/4\nR:waltz\n\nX:1\nT:One\nK:D\nABc|\n\nX:2\nT:Two\nM:4/4\nK:D\nABcd|\n\nX:3\nT:Bad\nK:D\nA n B|\n';
    const readings = readAll(book);
    const tunes = readings.flatMap((reading) => (reading.kind === 'read' ? [reading.entry.tune] : []));
    expect(tunes.map(({ meter, rhythm, notes }) => `${meter.text} ${rhythm} ${notes[0].duration}`)).toEqual(['3/4 waltz 0.25', '4/4 waltz 0.25']);
    const bad = readings[2];
    expect(bad.kind === 'refused' && bad.entry.faults[0]).toMatchObject({ line: 20, column: 3 });
    expect(bad.kind === 'refused' && bad.entry.abc).toBe('X:3\nT:Bad\nK:D\nA n B|\n');
  });

  it('puts tunes together as one book that comes apart again', () => {
    const texts = ['X:5\nT:One\nK:D\nA4|\n', 'X:5\nT:Two\nK:D\nB4|\n\n'];
    expect(splitBook(bookOf(texts)).map(({ abc }) => abc)).toEqual(['X:1\nT:One\nK:D\nA4|\n', 'X:2\nT:Two\nK:D\nB4|\n']);
    expect(bookOf([])).toBe('');
  });

  it('refuses a tune without a key at its first line of music', () => {
    const [reading] = readAll('X:1\nT:No key\nM:4/4\nABcd|\n');
    expect(reading).toMatchObject({ kind: 'refused', entry: { faults: [{ line: 4, expected: expect.stringContaining('K:HP') }] } });
  });

  it.each([
    [
      'a line that is too long',
      `X:1\nT:T\nK:HP\n${'A'.repeat(10_001)}\n`,
      { line: 4, problem: 'This line has 10001 characters; a line can have at most 10000.' },
    ],
    [
      'brackets in brackets',
      `X:1\nT:T\nK:HP\nA|\nA ${'{'.repeat(16_000)}\n`.slice(0, 9000),
      { line: 5, column: 33, problem: 'More than 30 brackets are open here.' },
    ],
    ['a text that is too long', `X:1\nT:T\nK:HP\n${'A B c d|\n'.repeat(30_000)}`, { line: 1, expected: 'a shorter text' }],
  ])('refuses %s, and reads the next tune', (_, text, fault) => {
    const [first, second] = readAll(`${text}\n\nX:2\nT:After\nK:HP\nA|\n`);
    expect(first).toMatchObject({ kind: 'refused', entry: { faults: [fault] } });
    expect(second).toMatchObject({ kind: 'read', entry: { title: 'After' } });
  });

  it('does not take endings, annotations and slurs that were left open for nesting', () => {
    const line = `${'|[1 A B :|[2 c d [|"(((("'.repeat(40)}\n`;
    expect(readAll(`X:1\nT:T\nL:1/4\nK:HP\n${line}${'(A B c d|\n'.repeat(40)}`)[0].kind).toBe('read');
  });

  it('refuses a tune without notes', () => {
    expect(readAll('X:1\nT:Silent\nK:HP\n')[0]).toMatchObject({ kind: 'refused', entry: { faults: [{ problem: 'No note follows the key.' }] } });
  });

  it('takes pasted music with a key but no X: line as one tune', () => {
    expect(readAll('T:Pasted\nK:HP\nABcd|\n\nefga|\n')).toMatchObject([{ kind: 'read', entry: { title: 'Pasted' } }]);
  });

  it('keeps a title as plain text, whatever it holds', () => {
    expect(readAll('X:1\nT:<script>alert(1)</script>\nK:HP\nA4|\n')[0].entry.title).toBe('<script>alert(1)</script>');
  });

  it.each([
    ['', /text is empty/],
    [' \n \n', /text is empty/],
    ['\u0000\u0001\u0002\ufffd'.repeat(100), /not a text file/],
    ['Dear parents,\nband practice is on Friday.\n', /no line starts with X:/],
  ])('refuses what is no ABC: %j', (text, message) => {
    expect(() => readAll(text)).toThrow(message);
  });

  it('splits a file of many tunes and counts lines of the file', () => {
    const book = splitBook(Array.from({ length: 2000 }, (_, index) => `X:${index}\nT:n\nK:HP\nA|\n`).join('\n'));
    expect(book).toHaveLength(2000);
    expect(book[1].firstLine).toBe(6);
    expect(splitBook('X:1\r\nK:HP\r\nA|\r\n')[0].abc).toBe('X:1\nK:HP\nA|\n');
  });
});

describe('keyChoices', () => {
  const whistle = instrumentById('whistle-d');
  const choices = (instrument: typeof whistle, music: string, key: string) =>
    keyChoices(instrument, readTune(instrument, `X:1\nT:t\nM:4/4\nL:1/4\nK:${key}\n${music}\n`), 'slurred', new RiskTable(instrument, levels.learner));

  it('names the key in which all notes fit without a half hole', () => {
    const [best] = choices(whistle, 'F G A B|c d e f|', 'F');
    expect(best).toMatchObject({ outside: 0, halfHoled: 0 });
    expect(best.text).toMatch(/^(D|G), (up|down) .*: all notes fit, no half holes/);
    expect(choices(whistle, 'F G A B|c d e f|', 'F').find(({ semitones }) => semitones === 0)?.halfHoled).toBeGreaterThan(0);
  });

  it('weighs every octave: what lies below a whistle is moved up by one', () => {
    const here = choices(whistle, 'D, E, F, G,|A, B, C D|', 'D').find(({ name }) => name === 'D');
    expect(here).toMatchObject({ semitones: 12, outside: 0, way: 'up an octave' });
  });

  it('counts half-holed and forked notes, and says which key is easier', () => {
    const recorder = instrumentById('recorder-soprano-baroque');
    const inB = choices(recorder, 'B ^c d e|f a b B|', 'B').find(({ semitones }) => semitones === 0)!;
    expect(inB.forked).toBeGreaterThan(0);
    expect(choices(recorder, 'B ^c d e|f a b B|', 'B').some(({ text }) => text.includes('easier than now'))).toBe(true);
  });

  it.each([
    ['Em', 'E minor'],
    ['Bb', 'B flat'],
    ['F#m', 'F sharp minor'],
    ['ADor', 'A Dorian'],
    ['Dmix', 'D Mixolydian'],
    ['Emin', 'E minor'],
    ['Gmaj', 'G'],
  ])('K:%s stands among them as %s', (key, name) => {
    expect(choices(whistle, 'd e f g|', key).find(({ semitones }) => semitones === 0)?.name ?? '').toBe(name);
  });

  it('helps a tune of which a note is missing; the chanter gets the key in which all are there', () => {
    const inG = readTune(chanter, 'X:1\nT:t\nM:4/4\nL:1/4\nK:G\nGABc|d4|\n');
    const all = keyChoices(chanter, inG, 'slurred', new RiskTable(chanter, levels.learner));
    expect(keyThatHelps(all, 1)).toMatchObject({ outside: 0 });
    expect(keyThatHelps(all, 0)).toBeUndefined();
  });

  it('a tune under the pipes’ own key has no other key', () => {
    expect(keyChoices(chanter, tune('GABc|'), 'slurred', new RiskTable(chanter, levels.learner))).toEqual([]);
  });
});
