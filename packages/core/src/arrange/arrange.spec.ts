import * as fc from 'fast-check';
import { instrumentById, practiceChanter, type Instrument } from '../fingering';
import { formOf } from '../form';
import { phraseRhythms, writeAbc, type PhraseRhythm } from '../score';
import { levels, RiskTable } from '../timing';
import { changesOfTune, readTune, type Articulation, type Tune } from '../tune';
import {
  arrangedTune,
  arrangementText,
  asWritten,
  commonKeys,
  embellish,
  foldsFor,
  hardPlaces,
  instrumentsFor,
  keyRows,
  LieWeigher,
  newNotesOf,
  outsideOf,
  proposalOf,
  proposedKey,
  shiftsOf,
  simplifiedFor,
  type KeyRow,
} from '.';

const whistle = instrumentById('whistle-d');
const recorder = instrumentById('recorder-soprano-baroque');
const tuneOf = (music: string, key = 'D', instrument: Instrument = whistle, meter = '4/4'): Tune =>
  readTune(instrument, `X:1\nT:Made up\nM:${meter}\nL:1/8\nK:${key}\n${music}\n`);
const weigher = (instrument: Instrument, tune: Tune, articulation: Articulation = 'slurred'): LieWeigher =>
  new LieWeigher(instrument, tune, articulation, new RiskTable(instrument, levels.learner));
const rowsFor = (instrument: Instrument, tune: Tune): readonly KeyRow[] => keyRows(weigher(instrument, tune), tune);
const musicOf = (tune: Tune): string => writeAbc(tune.score).trimEnd().split('\n').at(-1) ?? '';
const notesOf = (tune: Tune): string[] => tune.notes.map(({ written }) => (written.kind === 'note' ? written.note : written.kind));

/** A hymn in D that dips a fourth under its home note. */
const hymn = 'D4 F2 G2 | A4 F4 | G2 F2 E2 D2 | A,4 D4 | F4 G2 A2 | B4 A4 | G2 F2 E2 C2 | D8 |]';

describe('a phrase in another rhythm', () => {
  const played = (music: string, rhythm: PhraseRhythm, meter = '2/4', bars: readonly [number, number] = [1, 1]): string =>
    musicOf(arrangedTune(whistle, tuneOf(music, 'D', whistle, meter), { ...asWritten, rhythms: [{ from: bars[0], to: bars[1], rhythm }] }));

  it('shares a beat of two notes evenly, long and short, or short and long', () => {
    expect(played('D>E F<G|A4|]', 'even')).toBe('DE FG|A4|]');
    expect(played('DE FG|A4|]', 'dotted')).toBe('D3/2E/ F3/2G/|A4|]');
    expect(played('DE FG|A4|]', 'cut')).toBe('D/E3/2 F/G3/2|A4|]');
  });

  it('shares the three eighths of a beat in 6/8', () => {
    expect(played('DEF G3|]', 'dotted', '6/8')).toBe('D3/2E/F G3|]');
    expect(played('D>EF G2A|]', 'even', '6/8')).toBe('DEF G2A|]');
  });

  it('leaves other bars, rests, ties and tuplets as they are', () => {
    expect(played('DE FG|DE FG|]', 'dotted', '2/4', [2, 2])).toBe('DE FG|D3/2E/ F3/2G/|]');
    expect(played('Dz F2|(3DEF G2-|GA B2|]', 'dotted', '2/4', [1, 3])).toBe('Dz F2|(3DEF G2-|GA B2|]');
  });

  it('keeps the length of every bar and its theme notes, whatever is asked for', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('DE', 'F>G', 'A2', 'Bz', 'D/E/F', 'G<A', '(3DEF'), { minLength: 2, maxLength: 12 }),
        fc.constantFrom(...phraseRhythms),
        (beats, rhythm) => {
          const music = `${beats.map((beat, index) => `${beat}${index % 2 === 1 ? '|' : ' '}`).join('')}${beats.length % 2 === 1 ? 'A2' : ''}|]`;
          const before = tuneOf(music, 'D', whistle, '2/4');
          const after = arrangedTune(whistle, before, { ...asWritten, rhythms: [{ from: 1, to: 99, rhythm }] });
          expect(notesOf(after)).toEqual(notesOf(before));
          const lengths = ({ bars, notes }: Tune): number[] =>
            bars.map(({ first, end }) => notes.slice(first, end).reduce((sum, { duration }) => sum + duration, 0));
          lengths(after).forEach((length, bar) => expect(length).toBeCloseTo(lengths(before)[bar], 9));
        },
      ),
    );
  });

  it('is named in what is played otherwise', () => {
    expect(arrangementText({ ...asWritten, rhythms: [{ from: 1, to: 4, rhythm: 'even' }] })).toBe('4 bars in another rhythm');
    expect(arrangementText({ ...asWritten, voice: 3 })).toBe('voice 3 of the round');
  });
});

describe('keys', () => {
  it('offers a hymn in D on a D whistle in G, which fits and is easier, not in B', () => {
    const tune = tuneOf(hymn);
    const rows = rowsFor(whistle, tune);
    const best = rows[0];
    expect([best.name, best.way, best.outside]).toEqual(['G', 'up a fourth', '']);
    expect(proposedKey(rows)?.text).toBe('Play it in G, up a fourth.');
    expect(rows.filter(({ name, hard }) => name === 'B' && hard === 'little')).toEqual([]);
    expect(rows.find(({ semitones, folds }) => semitones === 0 && folds.length === 0)?.outside).toBe('2 notes too low');
  });

  it('has every key at every octave that could be wanted, by name, as written among them', () => {
    const rows = rowsFor(whistle, tuneOf(hymn));
    expect(rows.some(({ way }) => way === 'as written')).toBe(true);
    expect(new Set(rows.map(({ semitones, folds }) => `${semitones} ${JSON.stringify(folds)}`)).size).toBe(rows.length);
    for (const row of rows) expect(row.hard === 'does not fit').toBe(outsideOf(row.lie) > 0);
  });

  it('has one row for the pipes: nine notes, one key', () => {
    const rows = rowsFor(practiceChanter, tuneOf('A2 c2 e2 a2|]', 'HP', practiceChanter));
    expect(rows.map(({ semitones }) => semitones)).toEqual([0]);
  });

  it('puts the lower way first for singers', () => {
    const rows = keyRows(weigher(whistle, tuneOf('d4 f4 | a4 f4 |]')), tuneOf('d4 f4 | a4 f4 |]'), undefined, 'lowest');
    expect(rows[0].lie.highest).toBeLessThanOrEqual(rows[1].lie.highest);
  });

  it('finds keys that a whistle and a recorder can both play, sounding alike', () => {
    const players = [whistle, recorder].map((instrument) => {
      const tune = tuneOf(hymn, 'D', instrument);
      return { weigher: weigher(instrument, tune), tune };
    });
    const keys = commonKeys(players);
    expect(keys.length).toBeGreaterThan(0);
    for (const { players: rows } of keys) expect(rows.every(({ hard }) => hard !== 'does not fit')).toBe(true);
    expect(keys.map(({ name }) => name)).toContain('G');
  });

  it('says which of somebody’s whistles gives a sounding key with easy fingers', () => {
    const own = ['whistle-d', 'whistle-c'].map((id) => {
      const instrument = instrumentById(id);
      const tune = tuneOf('D2 E2 F2 G2 | A2 B2 d4 |]', 'D', instrument);
      return { weigher: weigher(instrument, tune), tune };
    });
    // Sounding a whole tone lower is what a whistle in C gives with the same fingers.
    const soundingAsWritten = instrumentsFor(own, 12 + 12)[0];
    expect(soundingAsWritten.instrument.id).toBe('whistle-d');
    expect(instrumentsFor(own, 12 + 10)[0].instrument.id).toBe('whistle-c');
  });
});

describe('folding', () => {
  const high = tuneOf("d4 e4 | f4 g4 | a4 b4 | d'8 | D4 E4 | F4 G4 | A4 B4 | d8 |]");

  it('takes a phrase down where it is shrill, and says what that costs', () => {
    const rows = rowsFor(whistle, high);
    const folded = rows.find(({ semitones, folds }) => semitones === 0 && folds.length > 0);
    const written = rows.find(({ semitones, folds }) => semitones === 0 && folds.length === 0) as KeyRow;
    expect(folded?.folds).toEqual([{ from: 1, to: 4, octaves: -1 }]);
    const proposal = proposalOf(folded as KeyRow, written);
    expect(proposal.text).toBe('Fold bars 1 to 4 an octave down.');
    expect(proposal.gain).toContain('1 shrill notes fewer');
    expect(proposal.cost).toContain('the tune loses its high point');
  });

  it('never leaves the range, whatever is folded (property)', () => {
    const letters = ['D', 'E', 'F', 'G', 'A', 'B', 'd', 'e', 'f', 'g', 'a', 'b', "d'", 'A,', "e'"];
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...letters), { minLength: 8, maxLength: 64 }), fc.integer({ min: -12, max: 12 }), (music, semitones) => {
        const bars = Array.from({ length: Math.ceil(music.length / 4) }, (_, index) =>
          music
            .slice(4 * index, 4 * index + 4)
            .map((letter) => `${letter}2`)
            .join(' '),
        );
        const tune = tuneOf(`${bars.join(' | ')} |]`);
        const weighing = weigher(whistle, tune);
        const folds = foldsFor(weighing, tune, formOf(whistle, tune), semitones);
        const shifts = shiftsOf(tune, semitones, folds);
        tune.notes.forEach(({ bar }, index) => {
          const height = weighing.written[index];
          if (height !== undefined && folds.some(({ from, to }) => bar >= from && bar <= to)) expect(weighing.has(height + shifts[index])).toBe(true);
        });
        expect(outsideOf(weighing.at(shifts))).toBeLessThanOrEqual(outsideOf(weighing.at(shiftsOf(tune, semitones, []))));
      }),
      { numRuns: 60 },
    );
  });
});

describe('an arrangement', () => {
  it('moves key and notes, and leaves the tune as it is', () => {
    const tune = tuneOf(hymn);
    const moved = arrangedTune(whistle, tune, { ...asWritten, semitones: 5 });
    expect(moved.key).toBe('G');
    expect(notesOf(moved).slice(0, 4)).toEqual(['g5', 'b5', 'c6', 'd6']);
    expect(notesOf(moved)).not.toContain('outside');
    expect(tune.key).toBe('D');
  });

  it('comes back when it is moved there and back (property)', () => {
    fc.assert(
      fc.property(fc.constantFrom('C', 'G', 'D', 'A', 'F', 'Bb', 'Em', 'Ador'), fc.integer({ min: -12, max: 12 }), (key, semitones) => {
        const tune = tuneOf('C2 D2 E2 ^F2 | G2 A2 _B2 c2 |]', key, recorder);
        const there = arrangedTune(recorder, tune, { ...asWritten, semitones });
        const back = arrangedTune(recorder, there, { ...asWritten, semitones: -semitones });
        expect(notesOf(back)).toEqual(notesOf(tune));
      }),
      { numRuns: 60 },
    );
  });

  it('folds, replaces and simplifies by the index of the note', () => {
    const tune = tuneOf('{g}A2 {gcd}c2 | {gef}e2 a2 |]', 'HP', practiceChanter);
    const played = arrangedTune(practiceChanter, tune, {
      ...asWritten,
      layers: { '1': 'one' },
      instead: { '3': 'f' },
      graces: { '0': ['d'], '3': ['high-g'] },
    });
    expect(musicOf(played)).toBe('{g}A2 {g}c2|{gef}e2 {g}f2|]');
    const folded = arrangedTune(whistle, tuneOf('d4 f4 | D4 F4 |]'), { ...asWritten, folds: [{ from: 1, to: 1, octaves: -1 }] });
    expect(notesOf(folded)).toEqual(['d5', 'fs5', 'd5', 'fs5']);
  });

  it('adds cuts, taps and rolls to free notes only', () => {
    const tune = tuneOf('G2 G2 {a}G2 B4 | A8 |]');
    const played = arrangedTune(whistle, tune, { ...asWritten, ornaments: { '1': 'cut', '2': 'tap', '3': 'tap', '4': 'long-roll' } });
    expect(musicOf(played)).toBe('G2 {A}G2 {a}G2 {A}B4|~A8|]');
  });
});

describe('embellishing', () => {
  const plain = tuneOf('A2 A2 c2 d2 | e2 e2 a4 | d2 c2 A2 A2 | A8 |]', 'HP', practiceChanter);

  it('keeps repeated notes apart on the pipes, and explains every choice', () => {
    const found = embellish(practiceChanter, plain, { density: 'plain' });
    expect(found.map(({ note }) => note)).toEqual([1, 5, 10]);
    for (const { text, graces } of found) {
      expect(text).toMatch(/repeats/);
      expect(graces?.length).toBe(1);
    }
  });

  it('is fuller in a session than with a few, and knows throws and doublings', () => {
    const session = embellish(practiceChanter, plain, { density: 'session' });
    expect(session.length).toBeGreaterThan(embellish(practiceChanter, plain, { density: 'a-few' }).length);
    expect(session.map(({ name }) => name)).toContain('doubling');
  });

  it('takes only movements that the player has', () => {
    const found = embellish(practiceChanter, plain, { density: 'session', movements: ['g-grace-note'] });
    for (const { graces } of found) expect(graces).toHaveLength(1);
  });

  it('with a few never decorates two notes in a row, and never what a teacher set (property)', () => {
    const pipes = fc.array(fc.constantFrom('A2', 'c', 'd2', '{g}e', 'f3', 'A', 'A', 'a2', 'B4'), { minLength: 4, maxLength: 60 });
    const folk = fc.array(fc.constantFrom('D2', 'E', 'G3', 'G', 'A2', 'A', '{b}A', 'd4', 'f2'), { minLength: 4, maxLength: 60 });
    const check = (instrument: Instrument, key: string, music: readonly string[]): void => {
      const bars = Array.from({ length: Math.ceil(music.length / 5) }, (_, index) => music.slice(5 * index, 5 * index + 5).join(' '));
      const tune = readTune(instrument, `X:1\nT:x\nM:none\nL:1/8\nK:${key}\n${bars.join('|')}|]\n`);
      const found = embellish(instrument, tune, { density: 'a-few' }).map(({ note }) => note);
      const decorated = new Set([...found, ...tune.notes.flatMap(({ index, graceNotes }) => (graceNotes.length > 0 ? [index] : []))]);
      for (const note of found) {
        expect(tune.notes[note].graceNotes).toEqual([]);
        expect(decorated.has(note - 1)).toBe(false);
      }
    };
    fc.assert(
      fc.property(pipes, (music) => check(practiceChanter, 'HP', music)),
      { numRuns: 60 },
    );
    fc.assert(
      fc.property(folk, (music) => check(whistle, 'D', music)),
      { numRuns: 60 },
    );
  });
});

describe('simplifying', () => {
  const tune = tuneOf('{g}A2 {gcd}c2 {Gdc}d2 {gef}e2 | f2 {ag}a2 f2 {GdG}A2 |]', 'HP', practiceChanter);

  it('uses only what the player has, and says what was left out', () => {
    const had = { notes: ['low-a', 'b', 'c', 'd', 'e'], movements: ['g-grace-note'] };
    const found = simplifiedFor(practiceChanter, tune, had);
    if (found.kind === 'none') throw new Error(found.reason);
    const played = arrangedTune(practiceChanter, tune, { ...asWritten, layers: found.layers, instead: found.instead });
    for (const { written, graceNotes } of played.notes) {
      if (written.kind === 'note') expect(had.notes).toContain(written.note);
      expect(graceNotes.length).toBeLessThanOrEqual(1);
    }
    expect(found.leftOut.map(({ bar, text }) => `bar ${bar}: ${text}`)).toContain('bar 2: F becomes E');
    expect(found.leftOut.map(({ text }) => text)).toContain('the doubling on C becomes the G grace note');
  });

  it('says so where nothing is ticked', () => {
    expect(simplifiedFor(practiceChanter, tune, { notes: [], movements: [] })).toEqual({
      kind: 'none',
      reason: 'Nothing is ticked as known yet. Tick the notes and movements first.',
    });
    expect(newNotesOf(practiceChanter, tune, [])).toEqual([]);
  });

  it('says in words what is played otherwise', () => {
    expect(arrangementText(asWritten)).toBe('as written');
    expect(arrangementText({ ...asWritten, layers: { '3': 'full' } })).toBe('as written');
    const all = { semitones: 5, folds: [{ from: 3, to: 4, octaves: -1 as const }], layers: { '2': 'bare' as const }, ornaments: { '5': 'slide' as const } };
    expect(arrangementText({ ...asWritten, ...all, graces: { '5': ['d'] }, instead: { '1': 'b', '7': 'b' } })).toBe(
      'up a fourth, 2 bars folded by an octave, 1 ornament added, 1 embellishment at another layer and 2 notes played as another',
    );
  });

  it('names the notes that are new', () => {
    expect(newNotesOf(practiceChanter, tune, ['low-a', 'c', 'd', 'e'])).toEqual(['f', 'high-a']);
  });
});

describe('hard places', () => {
  it('names bars by their hardest change, and gives every bar its figure', () => {
    const tune = tuneOf('A2 B2 c2 B2 | A2 B2 c2 B2 | e2 c2 e2 c2 | A2 B2 A4 |]', 'HP', practiceChanter);
    const found = hardPlaces(practiceChanter, tune, changesOfTune(practiceChanter, tune));
    expect(found.bars.map(({ bar }) => bar)).toEqual([1, 2, 3, 4]);
    expect(found.text).toMatch(/^One hard place: bar 3 \((E to C|C to E)\)\.$/);
    expect(found.breath).toBeUndefined();
    expect(found.skills[0]).toBe('4 notes: low A, B, C and E');
  });

  it('finds the longest stretch without a rest, repeats played out', () => {
    const tune = tuneOf('|: D4 E4 | z4 F4 | G8 :|', 'D');
    const found = hardPlaces(whistle, tune, changesOfTune(whistle, tune), { tempo: 60 });
    expect(found.breath?.seconds).toBeCloseTo(10);
    expect(found.breath?.text).toBe('The longest stretch without a rest is 10 seconds, over the repeat: plan 1 place to breathe in it.');
  });

  it('says where the instrument is hardly held, and lets it count in the curve', () => {
    const tune = tuneOf('A4 A4 | g4 {a}d4 | A8 |]', 'HP', practiceChanter);
    const changes = changesOfTune(practiceChanter, tune);
    const found = hardPlaces(practiceChanter, tune, changes);
    expect(found.comfort).toBe(
      'High G to D (bar 2): no finger is left to hold the instrument. Rest the foot of the chanter on a table, or hold it with the right thumb.',
    );
    const held = tuneOf('A4 A4 | B4 A4 | A8 |]', 'HP', practiceChanter);
    expect(hardPlaces(practiceChanter, held, changesOfTune(practiceChanter, held)).comfort).toBeUndefined();
    const [, second] = found.bars;
    const alone = [...changes.open, ...changes.underGraceNotes]
      .filter(({ places }) => places.some(({ bar }) => bar === 2))
      .reduce((sum, { difficulty }) => sum + difficulty, 0);
    expect(second.difficulty).toBeGreaterThan(alone);
  });

  it('names movements that have no time at this tempo, with what fits', () => {
    const tune = tuneOf('A2 {GdGe}A2 B2 c2 | A8 |]', 'HP', practiceChanter);
    const changes = changesOfTune(practiceChanter, tune);
    expect(hardPlaces(practiceChanter, tune, changes, { tempo: 40 }).tooFast).toBeUndefined();
    expect(hardPlaces(practiceChanter, tune, changes, { tempo: 160 }).tooFast).toMatch(/^Too fast at this tempo: the taorluath in bar 1 \(.+ fits\)\.$/);
  });

  it('answers for rests, one note and notes outside', () => {
    for (const music of ['z8 |]', 'D8 |]', "A,,4 c''4 |]"]) {
      const tune = tuneOf(music);
      expect(hardPlaces(whistle, tune, changesOfTune(whistle, tune)).text).toBe('No place is much harder than the others.');
      expect(keyRows(weigher(whistle, tune), tune).length).toBeLessThan(60);
    }
  });
});
