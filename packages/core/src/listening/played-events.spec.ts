import fc from 'fast-check';
import { changeBetween } from '../change';
import { ZelpitFault } from '../fault';
import { chartedFingering, instruments, practiceChanter, soundingPitch, type NoteId } from '../fingering';
import {
  keysOfMidi,
  judgeAsked,
  noteText,
  notesOfKeys,
  pieceText,
  readFingerStream,
  stretchesOfTimeline,
  timelineOfFingers,
  timelineOfKeys,
  timingOfFingers,
  type AskedNote,
  type HoleEvent,
} from '.';
import { fingersResult, fitText } from '../playing';

const asked = (note: NoteId, bar = 1): AskedNote => ({ note, graceNotes: [], beats: 1, isTied: false, bar });

/** Fingers that go from note to note, each finger so many ms late. */
function moved(notes: readonly NoteId[], late: Readonly<Record<number, number>> = {}): HoleEvent[] {
  let now = practiceChanter.holes.map(() => 1);
  const events = notes.flatMap((note, index) => {
    const { pattern } = chartedFingering(practiceChanter, note);
    const before = now;
    now = [...pattern];
    return pattern.flatMap((coverage, hole): HoleEvent[] =>
      coverage === before[hole] ? [] : [{ at: 500 + index * 600 + (index === 0 ? 0 : (late[hole + 1] ?? 0)), hole: hole + 1, covers: coverage === 1 }],
    );
  });
  return events.sort((one, other) => one.at - other.at);
}

const faultOf = (work: () => unknown): ZelpitFault => {
  try {
    work();
  } catch (error) {
    if (error instanceof ZelpitFault) return error;
    throw error;
  }
  throw new Error('Nothing went wrong.');
};

describe('finger events', () => {
  it('are read from JSON and from CSV alike, in the order of their times', () => {
    const events = [
      { at: 0, breath: true },
      { at: 20.5, hole: 8, covers: false },
      { at: 40, hole: 1, covers: true },
    ];
    const json = JSON.stringify({ format: 'zelpit-fingers', version: 1, events: [...events].reverse() });
    expect(readFingerStream(json)).toEqual({ events });
    expect(readFingerStream('ms,hole,covers\n40,1,1\r\n20.5;8;0\n\n0\tbreath\t1\n')).toEqual({ events });
  });

  it('come back from a file as they were', () => {
    const event = fc.oneof(
      fc.record({ at: fc.double({ min: 0, max: 1e6, noNaN: true }), hole: fc.integer({ min: 1, max: 9 }), covers: fc.boolean() }),
      fc.record({ at: fc.double({ min: 0, max: 1e6, noNaN: true }), breath: fc.boolean() }),
    );
    fc.assert(
      fc.property(fc.array(event, { minLength: 1 }), (events) => {
        const { events: read } = readFingerStream(JSON.stringify({ format: 'zelpit-fingers', version: 1, events }));
        expect(read).toEqual([...events].sort((one, other) => one.at - other.at).map((each) => JSON.parse(JSON.stringify(each)) as unknown));
      }),
    );
  });

  it('that cannot be read are refused by their place', () => {
    const json = (events: unknown): string => JSON.stringify({ format: 'zelpit-fingers', version: 1, events });
    for (const [text, message] of [
      ['', 'There are no finger events in this file.'],
      ['ms,hole,covers\n', 'There are no finger events in this file.'],
      ['0,1,1\n12,2,2', 'Line 2, “12,2,2”, cannot be read: it needs a time in ms, a hole (or “breath”), and 1 or 0.'],
      ['soon,1,1', 'Line 1, “soon,1,1”, cannot be read: it needs a time in ms, a hole (or “breath”), and 1 or 0.'],
      ['-1,1,1', 'Line 1, “-1,1,1”, cannot be read: it needs a time in ms, a hole (or “breath”), and 1 or 0.'],
      ['\u0000\u0001PNG', 'Line 1, “\u0000\u0001PNG”, cannot be read: it needs a time in ms, a hole (or “breath”), and 1 or 0.'],
      ['{"format":', 'This file begins as JSON but cannot be read as such; perhaps it is cut off.'],
      ['{"events":[]}', 'This is no file of finger events: it says format “zelpit-fingers” and version 1.'],
      [
        json([{ at: 0, hole: 0, covers: true }]),
        'Event 1 of this file cannot be read: it needs a time in ms (at most 20 minutes), and a hole with what covers it or the breath.',
      ],
      [json('many'), 'A file has a list of events, at most 200000.'],
    ]) {
      const fault = faultOf(() => readFingerStream(text));
      expect([fault.code, fault.message]).toEqual(['unreadable-fingers', message]);
    }
    expect(faultOf(() => timelineOfFingers(practiceChanter, readFingerStream('0,12,1'))).message).toBe('Hole 12 was named; this instrument has 8.');
  });

  it('sound as the notes of their patterns, and nothing where nobody blows', () => {
    const stream = { events: [...moved(['b', 'e', 'b']), { at: 2500, breath: false }, { at: 2700, breath: true }] };
    const stretches = stretchesOfTimeline(practiceChanter, timelineOfFingers(practiceChanter, stream));
    expect(stretches.map(({ note, start, end }) => [note, start, end])).toEqual([
      [null, 0, 500],
      ['b', 500, 1100],
      ['e', 1100, 1700],
      ['b', 1700, 2500],
      [null, 2500, 2700],
      ['b', 2700, 3200],
    ]);
  });

  it('are judged to the millisecond: a right hand that lands early is low A before E', () => {
    // B to E: the left ring and the right hand land before the left middle finger lifts.
    const clean = ['b', 'e', 'b'].map((note) => asked(note as NoteId));
    const heard = (late: Readonly<Record<number, number>>): string => {
      const timeline = timelineOfFingers(practiceChanter, { events: moved(['b', 'e', 'b'], late) });
      const piece = judgeAsked(practiceChanter, clean, stretchesOfTimeline(practiceChanter, timeline));
      return `${pieceText(practiceChanter, piece)} ${piece.notes.map((note) => noteText(practiceChanter, note)).join('; ')}`;
    };
    expect(heard({})).toContain('One of one bar clean.');
    const lifts = moved(['b', 'e']).flatMap((event) => ('hole' in event && event.at > 1000 && !event.covers ? [[event.hole, 22]] : []));
    expect(heard(Object.fromEntries(lifts) as Record<number, number>)).toContain('low A sounds for 22 ms before E');
  });
});

describe('the timing of fingers that were taken', () => {
  const notes = Array.from({ length: 13 }, (_, index): NoteId => (index % 2 === 0 ? 'c' : 'e'));
  const changes = notes.slice(1).map((note, index) => changeBetween(practiceChanter, notes[index], note));

  it('tells which finger comes late, from the moment at which the first note stood', () => {
    const ring = practiceChanter.holes.findIndex(({ finger }) => finger === 'L3') + 1;
    const { played, fitted } = timingOfFingers(practiceChanter, changes, moved(notes, { [ring]: 18 }));
    expect(played).toHaveLength(12);
    const bias = new Map(fitted?.fingers.map(({ finger, bias: { value } }) => [finger, value]));
    expect(bias.get('L3')).toBeGreaterThan(8);
    for (const [finger, value] of bias) if (finger !== 'L3') expect([finger, value < 2]).toEqual([finger, true]);
    const result = fingersResult({ from: 'c', to: 'e' }, played, fitted);
    expect(result.verdicts.clean + result.verdicts.low + result.verdicts.run + result.verdicts['over-open']).toBe(12);
    expect(result.timing?.biasOf['L3']).toBeGreaterThan(8);
    expect(fitText(fitted)).toMatch(/^From 12 changes: your fingers vary by \d+ ms; lifts come \d+ ms (before|after) landings\.$/);
  });

  it('is not told from few changes, nor from fingers that never reach the first note', () => {
    expect(timingOfFingers(practiceChanter, changes, moved(notes.slice(0, 5))).fitted).toBeUndefined();
    expect(timingOfFingers(practiceChanter, changes, moved(['b', 'd', 'f', 'b', 'd'])).played).toEqual([]);
    expect(timingOfFingers(practiceChanter, [], moved(notes))).toEqual({ played: [], fitted: undefined });
    expect(fitText(undefined)).toBe('Play 8 changes of two or more fingers, and your own timing appears here.');
    expect(fingersResult({ from: 'c', to: 'e' }, [], undefined)).toMatchObject({ timing: null, fingers: [], meanMs: 0 });
  });
});

describe('keys of a MIDI instrument', () => {
  it('are notes of the instrument as they are written, an octave away, or as they sound', () => {
    const low = practiceChanter.notes.map(({ writtenSemitone }) => writtenSemitone);
    const names = practiceChanter.notes.map(({ id }) => id);
    for (const shift of [0, 12, -12, 24])
      expect([
        ...notesOfKeys(
          practiceChanter,
          low.map((key) => key + shift),
        ).values(),
      ]).toEqual(names);
    for (const instrument of instruments.filter(({ family }) => family !== 'ocarina')) {
      const keys = instrument.notes.map(({ id }) => Math.round(69 + 12 * Math.log2(soundingPitch(instrument, id) / 440)));
      // Two notes that a piano does not tell apart are one key.
      if (new Set(keys).size < keys.length) continue;
      expect([instrument.id, [...notesOfKeys(instrument, keys).values()]]).toEqual([instrument.id, instrument.notes.map(({ id }) => id)]);
    }
    // Two notes alone stay what they are written.
    expect([...notesOfKeys(practiceChanter, [71, 76]).values()]).toEqual(['b', 'e']);
  });

  it('sound until the next one begins', () => {
    const keys = [
      { start: 0, end: 700, key: 71 },
      { start: 600, end: 1200, key: 76 },
    ];
    expect(stretchesOfTimeline(practiceChanter, timelineOfKeys(practiceChanter, keys)).map(({ note, start, end }) => [note, start, end])).toEqual([
      ['b', 0, 600],
      ['e', 600, 1200],
    ]);
  });

  it('come from the fullest line of a file, through its changes of tempo, drums left aside', () => {
    const note = (type: string, deltaTime: number, noteNumber: number, channel = 0, velocity = 80) => ({ type, deltaTime, noteNumber, channel, velocity });
    const tracks = [
      [
        { type: 'setTempo', deltaTime: 0, microsecondsPerBeat: 500_000 },
        { type: 'setTempo', deltaTime: 200, microsecondsPerBeat: 1_000_000 },
      ],
      [note('noteOn', 0, 71), note('noteOff', 100, 71), note('noteOn', 0, 76), note('noteOn', 200, 76, 0, 0)],
      Array.from({ length: 9 }, () => [note('noteOn', 0, 36, 9), note('noteOff', 10, 36, 9)]).flat(),
    ];
    expect(keysOfMidi({ header: { ticksPerBeat: 100 }, tracks })).toEqual([
      { start: 0, end: 500, key: 71 },
      { start: 500, end: 2000, key: 76 },
    ]);
    expect(faultOf(() => keysOfMidi({ header: {}, tracks: [[]] })).code).toBe('not-a-score');
  });
});
