import * as fc from 'fast-check';
import { hasAbc2midi, heardByAbc2midi, heardByUs, isSameHeard } from './abc2midi.spec-support';
import { generatedAbc } from './generated-abc.spec-support';
import { beatsText, plainText, playingOrder, readAbc, readMeter, writeAbc, type Score } from '.';

const head = 'X:1\nT:Try\nM:4/4\nL:1/8\nK:C\n';
const read = (music: string, fields = head) => readAbc(fields + music);
const notices = (music: string, fields = head) => read(music, fields).score.notices.map(({ kind, bar, text }) => `${kind} ${bar}: ${text}`);

describe('readAbc', () => {
  it('keeps every field of the head, its accents as letters', () => {
    const { score } = readAbc('X:1\nT:Caf\\\'e\nT:The &Eacute;glise\nC:M. H\\"olz\nR:slow air\nB:Green book\nN:for Pim\nN:again\nK:G\nG8|\n');
    expect(score.titles).toEqual(['Café', 'The Église']);
    expect(score.rhythm).toBe('slow air');
    expect(score.header.filter(({ letter }) => 'CBN'.includes(letter)).map(({ text }) => text)).toEqual(['M. Hölz', 'Green book', 'for Pim', 'again']);
  });

  it('puts words under notes: syllables, words, held and left-out notes, the next bar, verses', () => {
    const { score } = read('CDEF|GA2B|\nw:won-der ful _ | * two~words x\nw:ein\n');
    const lyrics = score.voices[0].events.map((event) => event.lyrics.map(({ text, joins, holds }) => `${text}${joins ? '-' : ''}${holds ? '_' : ''}`));
    expect(lyrics).toEqual([['won-', 'ein'], ['der'], ['ful'], ['_'], [''], ['two words'], ['x']]);
  });

  it('reads the word that a hyphen with blanks joins, and a hyphen that belongs to the word', () => {
    const { score } = read('CDEF|\nw:syll - able jack\\-in\n');
    expect(score.voices[0].events.map(({ lyrics }) => lyrics.at(0)?.text)).toEqual(['syll', 'able', 'jack-in', undefined]);
  });

  it('puts the signs of an s: line over the notes of the line before', () => {
    const [voice] = read('C2D2E2F2|G4A4|\ns:!trill! * ~ "^up" | !accent! "Am"\n').score.voices;
    expect(voice.events.map(({ decorations, annotations, chordSymbol }) => [...decorations, ...annotations, chordSymbol].join())).toEqual([
      ...['trill,', '', 'roll,', 'up,'],
      ...['accent,', 'Am'],
    ]);
  });

  it.each([
    ['GABc|\nr:x\n%%wobble 2\nd8|', ['passed-over 0: %%wobble']],
    ['JG8|', ['passed-over 0: “J”, which no U: explains']],
    ['m:~G=A\nG8|', ['passed-over 0: macros (m:)']],
    ['G8|\nw:one two\n', ['words 1: words: 2 syllables under 1 note, none is left for “two”']],
    ['GABc|\nw:a b c d e f g h\n', ['words 1: words: 8 syllables under 4 notes, none is left for “e”']],
    ['G4A4|B4c4|\nw:one two three\n', ['words 2: words: they run out here, 1 note has none']],
    ['G4A4|B4c4|\nw:one two three *\n', []],
    ['G8#|', ['passed-over 0: “#”']],
  ])('says what it passed over: %j', (music, expected) => {
    expect(notices(music).filter((each) => !each.startsWith('length'))).toEqual(expected);
  });

  it.each([
    ['G8|G6|G8|', ['length 2: 3 beats instead of 4 beats']],
    ['G8|G9|G8|', ['length 2: 4½ beats instead of 4 beats']],
    ['G2|G8|G8|', ['length 2: a full bar, though a lead-in of 1 beat comes before the first']],
    ['G2|G8|G6|', []],
    ['|:G2|G8|G6:|G2|G8|G6|]', []],
    ['G2|G8|G6:|G2|G8|G6:|', []],
    ['G8|G4||G4|G8|', []],
    ['G8|G4||G8|', ['length 2: 2 beats instead of 4 beats']],
    ['G8|[M:3/4]G6|[M:6/8]G6|', []],
    ['[M:none]G8|G3|G20|', []],
  ])('names a bar of the wrong length and never moves it: %s', (music, expected) => {
    expect(notices(music)).toEqual(expected);
  });

  it('counts bars as musicians do', () => {
    const numbers = (music: string): string =>
      read(music)
        .score.voices[0].bars.map(({ number }) => number)
        .join(' ');
    expect(numbers('G2|G8|G8|')).toBe('0 1 2');
    expect(numbers('G8|G4:|G4|G8|')).toBe('1 2 2 3');
    expect(numbers('G2|G8|G6:|G2|G8|')).toBe('0 1 2 2 3');
    expect(numbers('[M:3/4]G6|[M:4/4]G8|G4G4|')).toBe('1 2 3');
  });

  it.each([
    ['A B {gcd A|', 6, 5, 'A group of grace notes starts here and is never closed.'],
    ['A B "slow A|', 6, 5, 'A text above the staff starts here and is never closed.'],
    ['A B [Ac|', 6, 5, 'A chord starts here and is never closed.'],
    ['A n B|', 6, 3, '“n” means nothing in ABC here.'],
    ['A0 B|', 6, 1, 'No note has this length.'],
    ['A ^ B|', 6, 3, '“^” stands before no note.'],
    ['A ^/B|', 6, 3, 'Quarter tones cannot be read.'],
    ['A (1B|', 6, 3, 'No group has 1 notes.'],
    ['A {h}B|', 6, 4, '“h” means nothing between grace notes.'],
    ['A8|\nK:Hello\nB8|', 7, 3, 'There is no key “Hello”.'],
    ['A8|\nM:x/4\nB8|', 7, 3, 'There is no meter “x/4”.'],
    ['A8|\nL:0\nB8|', 7, 3, 'There is no length “0”.'],
  ])('refuses what makes notes uncertain, with its place: %j', (music, line, column, problem) => {
    expect(read(music).faults).toEqual([expect.objectContaining({ line, column, problem })]);
  });

  it.each([
    ['(A9)9', 81],
    ['((A4)4)4', 64],
  ])('plays an order of parts %s out', (order, parts) => {
    expect(read('P:A\nA8|', head.replace('K:', `P:${order}\nK:`)).score.partOrder).toHaveLength(parts);
  });

  it.each([['(((A9)9)9)9'], ['A99999'], ['(A'], ['A)'], ['A%B', true], ['A?']])(
    'an order of parts %s that no one can play is a fault',
    (order, isRemark = false) => {
      const { faults } = read('P:A\nA8|', head.replace('K:', `P:${order}\nK:`));
      expect(faults.length).toBe(isRemark ? 0 : 1);
    },
  );

  it('lists at most thirty faults, and ends quickly on long rows of the same character', () => {
    expect(read('n'.repeat(200)).faults).toHaveLength(30);
    for (const character of ['{', '[', '"', '(', '|', ':', '!', '-', '&', '(3', 'P:', '{g', '[V:']) {
      const { score } = read(`A${character.repeat(40_000)}|\n`);
      expect(score.voices.length).toBeLessThanOrEqual(40);
    }
  });

  it('a part order that repeats repeats ends', () => {
    const bars = '|:A8:|x9'.repeat(400);
    const { score } = read(`P:A\n${bars}`, head.replace('K:', 'P:A99\nK:'));
    expect(playingOrder(score.voices[0].bars, score.partOrder).length).toBeLessThanOrEqual(20_000);
  });

  it('reads a tune of 10 000 bars and a title of 10 000 signs', () => {
    const { score, faults } = readAbc(`X:1\nT:${'t'.repeat(10_000)}\nM:4/4\nL:1/8\nK:C\n${'ABcd efga|'.repeat(10_000)}\n`);
    expect(faults).toEqual([]);
    expect(score.voices[0].bars).toHaveLength(10_000);
  });

  it('takes the tempo with its words', () => {
    const tempo = (field: string) => readAbc(`X:1\nM:4/4\nL:1/8\nQ:${field}\nK:C\nA8|\n`).score.tempo;
    expect(tempo('1/4=90')).toEqual({ beat: 1 / 4, perMinute: 90, words: '' });
    expect(tempo('"Slow" 3/8=50')).toEqual({ beat: 3 / 8, perMinute: 50, words: 'Slow' });
    expect(tempo('1/4=ca. 80')).toMatchObject({ perMinute: 80 });
    expect(tempo('1/4 1/8=60')).toMatchObject({ beat: 3 / 8 });
    expect(tempo('120')).toMatchObject({ beat: 1 / 8, perMinute: 120 });
    expect(tempo('Allegro')).toMatchObject({ words: 'Allegro' });
    expect(tempo('of the heart')).toBeUndefined();
  });
});

describe('meters', () => {
  it.each([
    ['2/4', { beats: 2, beat: 1 / 4, bar: 1 / 2, text: '2/4' }],
    ['3/4', { beats: 3, beat: 1 / 4, bar: 3 / 4, text: '3/4' }],
    ['C', { beats: 4, beat: 1 / 4, bar: 1, text: '4/4' }],
    ['C|', { beats: 2, beat: 1 / 2, bar: 1, text: '2/2' }],
    ['6/8', { beats: 2, beat: 3 / 8, bar: 3 / 4, text: '6/8' }],
    ['9/8', { beats: 3, beat: 3 / 8, bar: 9 / 8, text: '9/8' }],
    ['12/8', { beats: 4, beat: 3 / 8, bar: 3 / 2, text: '12/8' }],
    ['3/8', { beats: 3, beat: 1 / 8, bar: 3 / 8, text: '3/8' }],
    ['5/4', { beats: 5, beat: 1 / 4, bar: 5 / 4, text: '5/4' }],
    ['(2+3)/8', { beats: 5, beat: 1 / 8, bar: 5 / 8, text: '2+3/8' }],
    ['2', { beats: 2, beat: 1 / 4, bar: 1 / 2, text: '2/4' }],
    ['none', { beats: 4, beat: 1 / 4, bar: 0, text: 'free' }],
  ])('M:%s', (text, meter) => {
    expect(readMeter(text)).toEqual(meter);
  });

  it('a text without M: has no meter, as the standard says', () => {
    expect(readAbc('X:1\nL:1/8\nK:C\nA2 B2 c4 e2|A3|\n')).toMatchObject({ faults: [], score: { meter: { bar: 0, text: 'free' }, notices: [] } });
  });

  it.each([['x'], ['0/4'], ['4/0'], ['4/4/4'], ['-3/4'], ['9999/4']])('there is no meter %s', (text) => {
    expect(readMeter(text)).toBeUndefined();
  });
});

describe('texts of fields', () => {
  it.each([
    ["Caf\\'e", 'Café'],
    ['&eacute;t&eacute;', 'été'],
    ['\\"u\\`a\\^o\\~n\\cc', 'üàôñç'],
    ['\\/o \\ss \\ae \\aa', 'ø ß æ å'],
    ['\\u00e9', 'é'],
    ['Ham &amp; Eggs', 'Ham & Eggs'],
    ['&#233;', 'é'],
    ['a &unknown; b', 'a &unknown; b'],
  ])('%s is %s', (text, plain) => {
    expect(plainText(text)).toBe(plain);
  });

  it('beats are said as they are counted', () => {
    expect([0.5, 1, 2.5, 3.75].map(beatsText)).toEqual(['½ beat', '1 beat', '2½ beats', '3¾ beats']);
  });
});

/** All that a second reading must find again. */
const essence = ({ voices, partOrder }: Score) => ({
  partOrder,
  voices: voices.map(({ bars, events }) => ({
    bars: bars.map(({ number, meter, key, part, opensRepeat, closesRepeat, passes, marks, length }) => [
      ...[number, meter.text, key.name, [...key.alters], part, opensRepeat, closesRepeat, passes, marks, length.toFixed(9)],
    ]),
    events: events.map((event) => [
      event.pitches.map(({ step, alter, isTiedOn, isTiedFromPrevious }) => [step, alter, isTiedOn, isTiedFromPrevious]),
      event.graceNotes.map(({ step, alter }) => [step, alter]),
      ...[
        event.duration.toFixed(9),
        event.decorations,
        event.chordSymbol,
        event.annotations,
        event.slurStarts,
        event.slurEnds,
        event.lyrics.filter(({ text, holds }) => text !== '' || holds),
        event.joinsPrevious,
      ],
    ]),
  })),
});

describe('a text that was read, written and read again', () => {
  it('has the same notes, durations, bars, endings, parts and grace notes', () => {
    fc.assert(
      fc.property(generatedAbc, (abc) => {
        const { score } = readAbc(abc);
        const again = readAbc(writeAbc(score));
        expect(again.faults).toEqual([]);
        expect(essence(again.score)).toEqual(essence(score));
      }),
      { numRuns: 80 },
    );
  });

  it('has the same words, fields and marks', () => {
    const abc =
      'X:1\nT:One\nT:Other\nC:Me & 100\\%\nR:jig\nM:6/8\nL:1/8\nQ:"Slow" 3/8=60\nK:Ador\n!segno!ABc d2e|f2g a3!fine!|"Am"A3 "^up"B3!D.S.!|]\nw:one two three four-teen _|jack\\-in * end\nW:after\n';
    const { score } = readAbc(abc);
    const again = readAbc(writeAbc(score)).score;
    expect(essence(again)).toEqual(essence(score));
    expect([again.titles, again.rhythm, again.words, again.tempo]).toEqual([score.titles, score.rhythm, score.words, score.tempo]);
    expect(again.header.find(({ letter }) => letter === 'C')?.text).toBe('Me & 100%');
  });
});

(hasAbc2midi ? describe : describe.skip)('beside abc2midi, where Debian’s abcmidi is installed', () => {
  it('begins the same notes at the same times in made-up tunes', () => {
    fc.assert(
      fc.property(generatedAbc, (abc) => {
        expect(isSameHeard(heardByUs(abc), heardByAbc2midi(abc))).toBe(true);
      }),
      { numRuns: 60 },
    );
  });
});
