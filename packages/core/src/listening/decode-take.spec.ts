import { changeBetween, troubleOf } from '../change';
import { instrumentById, practiceChanter, soundingPitch, type Instrument, type NoteId } from '../fingering';
import { playNotes, renderTimeline, type FaultKind } from '../sound';
import { seededRandom } from '../timing';
import { changeText, decodeTake, judgeTake, takeText, worstFirst, type HeardChange } from '.';

const rate = 22_050;
const notesOf = (home: NoteId, other: NoteId, changes = 8): NoteId[] => Array.from({ length: changes + 1 }, (_, index) => (index % 2 === 0 ? home : other));

interface Playing {
  readonly fault?: { readonly kind: FaultKind; readonly ms: number };
  readonly cents?: number;
  /** Of white noise, as a share of full scale. */
  readonly hiss?: number;
  readonly tempo?: number;
  readonly sampleRate?: number;
}

/** A line as it would be recorded. */
function recorded(instrument: Instrument, notes: readonly NoteId[], { fault, cents = 0, hiss = 0, tempo = 90, sampleRate = rate }: Playing = {}): Float32Array {
  const played = notes.map((note, index) => ({ note, graceNotes: [], beats: 1, index, isTied: false }));
  const settings = { tempo, beatsInBar: 4, countInBeats: 0, isClickOn: false, firstBeat: 0, graceNoteMs: 40, ...(fault && { fault }) };
  const referenceHertz = instrument.reference.hertz * 2 ** (cents / 1200);
  const samples = renderTimeline(instrument, playNotes(instrument, played, settings), { sampleRate, referenceHertz });
  const random = seededRandom(7);
  return samples.map((sample) => sample + hiss * (2 * random() - 1));
}

const judged = (instrument: Instrument, notes: readonly NoteId[], playing: Playing = {}) =>
  judgeTake(instrument, notes, decodeTake(instrument, recorded(instrument, notes, playing), rate).stretches);

describe('a take decoded', () => {
  it('has the notes that were played, when they were played', () => {
    const notes: NoteId[] = ['low-g', 'low-a', 'b', 'c', 'd', 'e', 'f', 'high-g', 'high-a'];
    const { stretches } = decodeTake(practiceChanter, recorded(practiceChanter, notes), rate);
    const long = stretches.filter(({ start, end }) => end - start > 60);
    expect(long.map(({ note }) => note)).toEqual(notes);
    long.slice(1).forEach(({ start }, index) => expect(Math.abs(start - ((index + 1) * 60_000) / 90)).toBeLessThan(10));
  });

  it.each([-40, -20, 25, 50])('finds the tuning of a chanter that is %i cents off', (cents) => {
    const { tuning, stretches } = decodeTake(practiceChanter, recorded(practiceChanter, notesOf('c', 'e'), { cents }), rate);
    expect(Math.abs(tuning - cents)).toBeLessThanOrEqual(5);
    expect(new Set(stretches.filter(({ start, end }) => end - start > 60).map(({ note }) => note))).toEqual(new Set(['c', 'e']));
  });

  it('finds the tuning of a long take on the beat, in which whatever is looked at evenly is a grace note', () => {
    const played = Array.from({ length: 30 }, (_, index) => ({ note: ['low-a', 'e', 'b'][index % 3], graceNotes: ['high-g'], beats: 1, index, isTied: false }));
    const settings = { tempo: 60, beatsInBar: 3, countInBeats: 0, isClickOn: false, firstBeat: 0, graceNoteMs: 42 };
    const samples = renderTimeline(practiceChanter, playNotes(practiceChanter, played, settings), { sampleRate: rate });
    const lead = (ms: number): Float32Array => samples.slice(Math.round((ms / 1000) * rate));
    for (const ms of [0, 4, 24]) expect(Math.abs(decodeTake(practiceChanter, lead(ms), rate).tuning)).toBeLessThanOrEqual(5);
  });

  it.each([
    ['pipe-chanter', ['low-g', 'high-g', 'low-g', 'low-a', 'high-a', 'low-a']],
    ['whistle-d', ['d5', 'd6', 'e5', 'e6', 'd5']],
  ] as const)('keeps octaves of the %s apart where the first partial is the weakest and the even ones lead', (id, notes) => {
    const instrument = instrumentById(id);
    const strengths = [0.1, 0.7, 0.45, 1, 0.6, 0.6, 0.3, 0.3];
    let phase = 0;
    const samples = notes.flatMap((note) =>
      Array.from({ length: rate / 2 }, () => {
        phase += (2 * Math.PI * soundingPitch(instrument, note)) / rate;
        return 0.1 * strengths.reduce((sum, strength, index) => sum + strength * Math.sin((index + 1) * phase + index), 0);
      }),
    );
    const { stretches } = decodeTake(instrument, Float32Array.from(samples), rate);
    expect(stretches.filter(({ start, end }) => end - start > 60).map(({ note }) => note)).toEqual(notes);
  });

  it('has all that was played in more than four minutes, also where it is read on from one piece to the next', () => {
    // Fewer samples a second are enough for it, and are read sooner.
    const sampleRate = 8000;
    const lines = [
      recorded(practiceChanter, notesOf('c', 'e', 45), { sampleRate }),
      recorded(practiceChanter, notesOf('b', 'f', 46), { tempo: 95, sampleRate }),
    ];
    const both = lines.map((line) => decodeTake(practiceChanter, line, sampleRate).stretches.length).reduce((sum, count) => sum + count, 0);
    const samples = new Float32Array(270 * sampleRate);
    let filled = 0;
    for (let count = 0; filled + lines[count % 2].length <= samples.length; count += 1) {
      samples.set(lines[count % 2], filled);
      filled += lines[count % 2].length;
    }
    const told: number[] = [];
    const { stretches } = decodeTake(practiceChanter, samples, sampleRate, (share) => told.push(share));
    expect(Math.abs(stretches.length / ((both * filled) / (lines[0].length + lines[1].length)) - 1)).toBeLessThan(0.03);
    stretches.slice(1).forEach(({ start, note }, index) => {
      expect(start).toBeCloseTo(stretches[index].end, 6);
      expect(note).not.toBe(stretches[index].note);
    });
    expect(stretches.filter(({ note, start, end }) => note !== null && end - start < 60)).toEqual([]);
    expect(told.length).toBeGreaterThan(3);
    expect(told.at(-1)).toBe(1);
  });

  it('is silence where nothing sounds', () => {
    expect(decodeTake(practiceChanter, new Float32Array(rate), rate).stretches.map(({ note }) => note)).toEqual([null]);
    expect(decodeTake(practiceChanter, new Float32Array(10), rate).stretches).toEqual([]);
  });
});

describe('a take judged', () => {
  it('says how many changes were clean, and what was in the worst', () => {
    const notes = notesOf('c', 'e');
    expect(judged(practiceChanter, notes).text).toBe('Eight of eight clean.');
    const { text, changes } = judged(practiceChanter, notes, { fault: { kind: 'land-early', ms: 22 } });
    expect(text).toMatch(/^None of eight clean\. Change \d: low G sounds for \d\d ms before [CE]\.$/);
    for (const { between, verdict } of changes) {
      expect(verdict).toBe('noise');
      expect(between.map(({ note }) => note)).toEqual(['low-g']);
      expect(Math.abs(between[0].ms - 22)).toBeLessThanOrEqual(5);
    }
  });

  // Half of the takes have the fault, half are clean; some chanters are out of tune, some rooms hiss.
  it('finds crossing noises of 12 ms and more in at least 95 of 100, with at most 5 of 100 false', () => {
    let [found, missed, wrong] = [0, 0, 0];
    const notes = practiceChanter.notes.map(({ id }) => id);
    const pairs = notes.flatMap((home) =>
      notes.filter((other) => troubleOf(practiceChanter, changeBetween(practiceChanter, home, other)).kind === 'pop').map((other) => [home, other] as const),
    );
    expect(pairs.length).toBeGreaterThan(5);
    pairs.slice(0, 14).forEach(([home, other], index) => {
      for (const ms of [0, 12 + 4 * (index % 8)]) {
        const playing = {
          tempo: 160,
          cents: (index % 5) * 10 - 20,
          hiss: index % 2 === 0 ? 0 : 0.003,
          ...(ms > 0 && { fault: { kind: 'land-early' as const, ms } }),
        };
        for (const { from, to, verdict } of judged(practiceChanter, notesOf(home, other, 4), playing).changes) {
          const isFaulty = ms > 0 && troubleOf(practiceChanter, changeBetween(practiceChanter, from, to)).kind === 'pop';
          if (isFaulty && verdict === 'noise') found += 1;
          else if (isFaulty) missed += 1;
          else if (ms === 0 && verdict === 'noise') wrong += 1;
        }
      }
    });
    expect(found).toBeGreaterThan(30);
    expect(found / (found + missed)).toBeGreaterThanOrEqual(0.95);
    expect(wrong / (found + missed)).toBeLessThanOrEqual(0.05);
  });

  it('reads other families too', () => {
    for (const [id, home, other] of [
      ['whistle-d', 'g5', 'a5'],
      ['recorder-soprano-baroque', 'a5', 'b5'],
      ['ocarina-12-c-split', 'c5', 'd5'],
    ] as const)
      expect([id, judged(instrumentById(id), notesOf(home, other)).text]).toEqual([id, 'Eight of eight clean.']);
  });

  it('counts only what is there: a take that stops early, a false start, and nothing of what was asked', () => {
    const asked = notesOf('c', 'e');
    const { stretches } = decodeTake(practiceChanter, recorded(practiceChanter, ['c', 'd', 'c', 'e', 'c']), rate);
    const take = judgeTake(practiceChanter, asked, stretches);
    expect(take.changes.length).toBeGreaterThanOrEqual(2);
    expect(judgeTake(practiceChanter, asked, decodeTake(practiceChanter, recorded(practiceChanter, ['b', 'b']), rate).stretches).text).toBe(
      'No change that was asked for is in this take.',
    );
    expect(changeText(practiceChanter, take.changes[0])).toMatch(/clean|before/);
  });

  it('passes over a note that nobody asked for, and gives up none that was', () => {
    const long = (note: NoteId, index: number) => ({ note, start: index * 500, end: index * 500 + 500, confidence: 0.9 });
    const take = judgeTake(practiceChanter, notesOf('c', 'e', 400), (['c', 'e', 'b', 'c', 'e', 'f', 'c', 'e'] as NoteId[]).map(long));
    expect(take.missing).toBe(0);
    expect(take.changes.map(({ verdict }) => verdict)).toEqual(['clean', 'unsure', 'clean', 'unsure', 'clean']);
  });

  it('claims nothing where nothing is certain', () => {
    const between = [{ note: 'd', ms: 14, confidence: 0.1 }];
    const heard = [
      { note: 'c', start: 0, end: 500, confidence: 0.9 },
      { note: 'd', start: 500, end: 514, confidence: 0.1 },
      { note: 'e', start: 514, end: 1000, confidence: 0.9 },
    ];
    expect(judgeTake(practiceChanter, ['c', 'e'], heard).changes).toMatchObject([{ between, verdict: 'unsure' }]);
  });
});

describe('what is not certain', () => {
  const change = (number: number, verdict: HeardChange['verdict'], ms = 0): HeardChange => ({
    ...{ number, from: 'b', to: 'e', at: 1000 * number, verdict },
    between: ms === 0 ? [] : [{ note: 'low-a', ms, confidence: 1 }],
  });
  const changes = [change(1, 'clean'), change(2, 'noise', 14), change(3, 'unsure', 11), change(4, 'noise', 22)];

  it('counts as clean until a teacher says otherwise, and stands after what is certain', () => {
    expect(takeText(practiceChanter, changes)).toBe('Two of four clean. Change 4: low A sounds for 22 ms before E.');
    expect(worstFirst(changes).map(({ number }) => number)).toEqual([4, 2, 3]);
  });

  it('is counted as it was decided, a fault that is none too', () => {
    expect(takeText(practiceChanter, changes, new Map([[3, 'faulty' as const]]))).toMatch(/^One of four clean\. Change 4/);
    expect(worstFirst(changes, new Map([[3, 'faulty' as const]])).map(({ number }) => number)).toEqual([4, 2, 3]);
    const allClean = new Map([2, 3, 4].map((number) => [number, 'clean' as const]));
    expect(takeText(practiceChanter, changes, allClean)).toBe('Four of four clean.');
    expect(worstFirst(changes, allClean)).toEqual([]);
  });
});
