import { instrumentById, practiceChanter, type Instrument, type NoteId } from '../fingering';
import { playNotes, renderTimeline } from '../sound';
import { seededRandom } from '../timing';
import {
  alignTake,
  askedSounds,
  decodeTake,
  isNoteFaulty,
  judgeAsked,
  noteText,
  ownPulse,
  passesText,
  pieceText,
  worstNotesFirst,
  type AskedNote,
  type HeardStretch,
  type JudgedPiece,
} from '.';

const rate = 22_050;
const asked = (note: NoteId, graceNotes: readonly NoteId[] = [], bar?: number): AskedNote => ({
  ...{ note, graceNotes, beats: 1, isTied: false },
  ...(bar !== undefined && { bar }),
});

/** Two bars of a march made up here, with a doubling, a grip and single grace notes. */
const march: readonly AskedNote[] = [
  asked('low-a', ['high-g'], 1),
  { ...asked('e', ['high-g', 'e', 'f'], 1), movement: 'doubling' },
  asked('c', [], 1),
  asked('b', ['high-g'], 1),
  { ...asked('d', ['low-g', 'd', 'low-g'], 2), movement: 'grip' },
  asked('e', [], 2),
  asked('c', ['high-g'], 2),
  asked('low-a', [], 2),
];

/** What would be heard, note by note, without a microphone. */
function heardOf(instrument: Instrument, notes: readonly AskedNote[], { beatMs = 500, graceMs = 40 } = {}): HeardStretch[] {
  const stretches: HeardStretch[] = [];
  let at = 0;
  for (const sound of askedSounds(instrument, notes)) {
    const isGrace = sound.kind === 'grace';
    const before = isGrace ? at : (stretches.findLast(({ end, start }) => end - start > 100)?.end ?? 0);
    const length = isGrace ? graceMs : sound.times * beatMs - (at - before);
    stretches.push({ note: sound.heardAs[sound.heardAs.length - 1], start: at, end: at + length, confidence: 0.9 });
    at += length;
  }
  return stretches;
}

const texts = (piece: JudgedPiece): string[] => worstNotesFirst(piece.notes).map((note) => noteText(practiceChanter, note));

describe('what is asked for, as sounds', () => {
  it('has each grace note before its theme note, and a start at each bar', () => {
    const sounds = askedSounds(practiceChanter, march);
    expect(sounds.map(({ note }) => note).join(' ')).toBe('high-g low-a high-g e f e c high-g b low-g d low-g d e high-g c low-a');
    expect(sounds.flatMap(({ isStart }, place) => (isStart ? [place] : []))).toEqual([0, 9]);
    expect(sounds.every(({ heardAs }) => heardAs.length > 0)).toBe(true);
  });

  it('takes a note that is tied or comes again without a grace note for one sound, and hears no rest', () => {
    const notes: AskedNote[] = [asked('b'), asked('b'), { ...asked('b'), isTied: true }, { ...asked('b'), note: null }, asked('b')];
    expect(askedSounds(practiceChanter, notes).map(({ times, of }) => [times, of])).toEqual([
      [2, 0],
      [1, 4],
    ]);
  });
});

describe('a take laid along what was asked for', () => {
  it('is clean where it is as asked, the low G of a grip too', () => {
    const piece = judgeAsked(practiceChanter, march, heardOf(practiceChanter, march));
    expect(piece.notes.map(({ verdict }) => verdict)).toEqual(march.map(() => 'clean'));
    expect(pieceText(practiceChanter, piece)).toBe('Two of two bars clean.');
    expect(passesText(practiceChanter, piece)).toMatch(/^About 120 beats a minute; nine of ten notes within \d+ ms of the pulse\.$/);
  });

  it('takes the silence of a rest that was asked for as no gap', () => {
    const notes: AskedNote[] = [asked('b'), { ...asked('b'), note: null }, asked('e'), asked('c')];
    const stretch = (note: NoteId | null, start: number, end: number): HeardStretch => ({ note, start, end, confidence: 0.9 });
    const heard = [stretch('b', 0, 500), stretch(null, 500, 1000), stretch('e', 1000, 1500), stretch(null, 1500, 1600), stretch('c', 1600, 2000)];
    expect(texts(judgeAsked(practiceChanter, notes, heard))).toEqual(['a gap of 100 ms before C']);
  });

  it('says how it keeps to a click, and where it does not', () => {
    const at = (beatMs: number, click: number): string => {
      const piece = judgeAsked(practiceChanter, march, heardOf(practiceChanter, march, { beatMs }), { beatMs: 60_000 / click });
      return passesText(practiceChanter, piece, click);
    };
    expect(at(500, 120)).toMatch(/^To a click at 120; nine of ten notes within \d+ ms of it\.$/);
    expect(at(1500, 120)).toBe('It does not keep to a click at 120.');
  });

  it('counts the elements of a movement, and names what is missing', () => {
    const heard = heardOf(practiceChanter, march);
    const piece = judgeAsked(
      practiceChanter,
      march,
      heard.filter((_, place) => place !== 4),
    );
    expect(pieceText(practiceChanter, piece)).toBe('One of two bars clean. Bar 1: F is missing in the doubling on E.');
    expect(piece.notes[1].graces.map(({ ms }) => ms === null)).toEqual([false, false, true]);
    const plain = judgeAsked(
      practiceChanter,
      march,
      heard.filter((_, place) => place !== 0),
    );
    expect(texts(plain)).toEqual(['no high G grace note before low A']);
  });

  it('does not claim a grace note that may sound as the note before it', () => {
    // The high G grace note on E lies near F.
    const notes = [asked('f', [], 1), { ...asked('e', ['high-g', 'e', 'f'], 1), movement: 'doubling' }, asked('c', [], 1)];
    const sounds = askedSounds(practiceChanter, notes);
    expect(sounds.map(({ isTellable }) => isTellable)).toEqual([true, false, true, true, true, true]);
    const heard = heardOf(practiceChanter, notes);
    const merged = [{ ...heard[0], end: heard[1].end }, ...heard.slice(2)];
    const piece = judgeAsked(practiceChanter, notes, merged);
    expect(piece.notes.map(({ verdict }) => verdict)).toEqual(['clean', 'clean', 'clean']);
    expect(piece.notes[1].graces.map(({ ms, isTellable }) => [ms === null, isTellable])).toEqual([
      [true, false],
      [false, true],
      [false, true],
    ]);
  });

  it('compares what comes after a note that was left out with itself', () => {
    const notes = ['low-a', 'b', 'c', 'd', 'e', 'd', 'c', 'b', 'low-a', 'c', 'e'].map((note) => asked(note as NoteId, [], 1));
    const all = heardOf(practiceChanter, notes);
    const sooner = all.flatMap((each, place) => {
      if (place === 5) return [];
      return [place < 5 ? each : { ...each, start: each.start - 500, end: each.end - 500 }];
    });
    const piece = judgeAsked(practiceChanter, notes, sooner);
    expect(texts(piece)).toEqual(['D was not heard']);
    expect(piece.passes[0].pulse).toMatchObject({ beatMs: 500, within: 1 });
  });

  it('names a note that was left out, and one that was played in place of another', () => {
    const heard = heardOf(practiceChanter, march);
    const without = judgeAsked(
      practiceChanter,
      march,
      heard.filter((_, place) => place !== 6),
    );
    expect(texts(without)).toEqual(['C was not heard']);
    const other = judgeAsked(
      practiceChanter,
      march,
      heard.map((each, place) => (place === 13 ? { ...each, note: 'f' } : each)),
    );
    expect(texts(other)).toEqual(['F in place of E']);
  });

  it('says what sounded between two notes, and a gap, but claims nothing uncertain', () => {
    const heard = heardOf(practiceChanter, march);
    const cut = (stretch: Partial<HeardStretch>): HeardStretch[] => {
      const [before, after] = [heard.slice(0, 13), heard.slice(13)];
      const length = (stretch.end ?? 0) - (stretch.start ?? 0);
      const last = before[12];
      return [
        ...before.slice(0, 12),
        { ...last, end: last.end - length },
        { note: null, confidence: 0.9, ...stretch, start: last.end - length, end: last.end },
        ...after,
      ];
    };
    expect(texts(judgeAsked(practiceChanter, march, cut({ note: 'low-a', end: 22, start: 0 })))).toEqual(['low A sounds for 22 ms before E']);
    expect(texts(judgeAsked(practiceChanter, march, cut({ note: null, end: 90, start: 0 })))).toEqual(['a gap of 90 ms before E']);
    const unsure = judgeAsked(practiceChanter, march, cut({ note: 'low-a', end: 22, start: 0, confidence: 0.1 }));
    expect(texts(unsure)).toEqual(['something before E, not certain what']);
    expect(pieceText(practiceChanter, unsure)).toBe('Two of two bars clean.');
    expect(isNoteFaulty(unsure.notes[5], new Map([[unsure.notes[5].number, 'faulty']]))).toBe(true);
  });

  it('hears a grace note that is held like a note', () => {
    const heard = heardOf(practiceChanter, march);
    const held = heard.map((each, place) => (place === 14 ? { ...each, end: each.end + 90 } : place === 15 ? { ...each, start: each.start + 90 } : each));
    expect(texts(judgeAsked(practiceChanter, march, held))).toEqual(['the grace note before C is held for 130 ms']);
  });

  it('follows somebody who stops, begins again at a bar, or plays it twice', () => {
    const heard = heardOf(practiceChanter, march);
    const later = (stretches: readonly HeardStretch[], ms: number): HeardStretch[] =>
      stretches.map((each) => ({ ...each, start: each.start + ms, end: each.end + ms }));
    const pause = (at: number): HeardStretch => ({ note: null, start: at, end: at + 1000, confidence: 1 });
    const twice = judgeAsked(practiceChanter, march, [...heard, pause(4000), ...later(heard, 5000)]);
    expect(twice.passes).toHaveLength(2);
    expect(pieceText(practiceChanter, twice)).toBe('Four of four bars clean.');
    const stopped = heard.slice(0, 13);
    const again = judgeAsked(practiceChanter, march, [...stopped, pause(2500), ...later(heard.slice(9), 2000)]);
    expect(again.passes.map(({ fromBar, toBar }) => [fromBar, toBar])).toEqual([
      [1, 2],
      [2, 2],
    ]);
    expect(again.notes.every(({ verdict }) => verdict === 'clean')).toBe(true);
    expect(passesText(practiceChanter, again)).toMatch(/^Begun again from bar 2\./);
    // What comes after the stop was not left out.
    expect(judgeAsked(practiceChanter, march, stopped).notes).toHaveLength(5);
  });

  it('says early and late only against a click, less what is the same for all', () => {
    const heard = heardOf(practiceChanter, march).map((each, place) => ({ ...each, start: each.start + 180, end: each.end + 180 + (place === 5 ? 130 : 0) }));
    const late = heard.map((each, place) => (place === 6 ? { ...each, start: each.start + 130 } : each));
    expect(texts(judgeAsked(practiceChanter, march, late))).toEqual([]);
    expect(passesText(practiceChanter, judgeAsked(practiceChanter, march, late))).toMatch(/Furthest from it: bar 1, C comes 1[23]\d ms late\.$/);
    expect(texts(judgeAsked(practiceChanter, march, late, { beatMs: 500 }))).toEqual(['C comes 130 ms late']);
  });

  it('is nothing where nothing of it was played', () => {
    expect(pieceText(practiceChanter, judgeAsked(practiceChanter, march, []))).toBe('Nothing that was asked for is in this take.');
    expect(judgeAsked(practiceChanter, [], heardOf(practiceChanter, march)).notes).toEqual([]);
    const [[sound], [stretch]] = [askedSounds(practiceChanter, march), heardOf(practiceChanter, march)];
    const many = <T>(each: T): T[] => new Array<T>(9000).fill(each);
    expect(() => alignTake(many(sound), many(stretch))).toThrow('too long');
  });

  it('finds every note of random pieces with random faults in its place', () => {
    const random = seededRandom(11);
    const notes = practiceChanter.notes.map(({ id }) => id);
    for (let round = 0; round < 60; round += 1) {
      const piece: AskedNote[] = [];
      while (piece.length < 24) {
        const note = notes[Math.floor(random() * notes.length)];
        if (note !== piece.at(-1)?.note)
          piece.push(asked(note, random() < 0.4 && note !== 'high-a' && note !== 'high-g' ? ['high-g'] : [], 1 + Math.floor(piece.length / 4)));
      }
      const heard = heardOf(practiceChanter, piece);
      // One long note is left out; what is around it stays.
      const longs = heard.flatMap(({ start, end }, place) => (end - start > 100 ? [place] : []));
      const out = longs[2 + Math.floor(random() * (longs.length - 4))];
      const judged = judgeAsked(
        practiceChanter,
        piece,
        heard.filter((_, place) => place !== out),
      );
      const missing = judged.notes.filter(({ verdict }) => verdict === 'missing' || verdict === 'elements');
      expect(judged.passes).toHaveLength(1);
      expect(missing.length).toBeGreaterThanOrEqual(1);
      expect(judged.notes.filter(({ verdict }) => verdict === 'clean').length).toBeGreaterThanOrEqual(piece.length - 3);
    }
  });
});

describe('a piece heard by the decoder', () => {
  const play = (notes: readonly AskedNote[]): readonly HeardStretch[] => {
    const played = notes.map(({ note, graceNotes, beats, isTied }, index) => ({ note, graceNotes, beats, index, isTied }));
    const settings = { tempo: 90, beatsInBar: 4, countInBeats: 0, isClickOn: false, firstBeat: 0, graceNoteMs: 45 };
    const timeline = playNotes(practiceChanter, played, settings);
    return decodeTake(practiceChanter, renderTimeline(practiceChanter, timeline, { sampleRate: rate }), rate).stretches;
  };

  it('has its doubling and its grip, and misses the one that was left out', () => {
    expect(pieceText(practiceChanter, judgeAsked(practiceChanter, march, play(march)))).toBe('Two of two bars clean.');
    const without = march.map((note, index) => (index === 6 ? { ...note, graceNotes: [] } : note));
    expect(pieceText(practiceChanter, judgeAsked(practiceChanter, march, play(without)))).toBe('One of two bars clean. Bar 2: no high G grace note before C.');
  });

  it('reads a whistle too, where a note comes again after the tongue', () => {
    const whistle = instrumentById('whistle-d');
    const notes = ['d5', 'e5', 'f#5', 'g5', 'a5'].filter((id) => whistle.notes.some((note) => note.id === id)).map((id) => asked(id));
    const again = [...notes, ...notes.slice(-1)];
    const stretches = heardOf(whistle, notes);
    const end = stretches[stretches.length - 1].end;
    const tongued: HeardStretch[] = [
      ...stretches,
      { note: null, start: end, end: end + 40, confidence: 1 },
      { ...stretches[stretches.length - 1], start: end + 40, end: end + 500 },
    ];
    expect(judgeAsked(whistle, again, tongued).notes.map(({ verdict }) => verdict)).toEqual(notes.map(() => 'clean'));
  });
});

describe('a player’s own pulse', () => {
  it('is not moved by one note that is far off, and is not told from four', () => {
    const points = Array.from({ length: 9 }, (_, beat) => ({ beat, segment: 0, at: 200 + beat * 480 + (beat === 4 ? 300 : 0) }));
    expect(ownPulse(points)).toMatchObject({ beatMs: 480, starts: [200], notes: 9 });
    expect(ownPulse(points.slice(0, 4))).toBeUndefined();
    expect(ownPulse(points.map((point) => ({ ...point, beat: 1 })))).toBeUndefined();
  });
});
