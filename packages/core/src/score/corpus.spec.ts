import { corpus, scales, type Fragment } from './corpus.spec-support';
import { playingOrder, readAbc, semitoneOf, writeAbc, type Score, type ScoreEvent } from '.';

const names = ['C', 'C#', 'D', 'D#', 'E', 'F', 'F#', 'G', 'G#', 'A', 'A#', 'B'];
const nameOf = (semitone: number): string => `${names[((semitone % 12) + 12) % 12]}${Math.floor(semitone / 12) - 1}`;
const textOf = (text: string): string =>
  /^K:/m.test(text)
    ? `X:1\nT:t\n${/^M:/m.test(text) || !/^(P|V|%%|U|m|E|Q|L|T):?/.test(text) ? '' : 'M:4/4\n'}${text}\n`
    : `X:1\nT:t\nM:4/4\nL:1/8\nK:C\n${text}\n`;

interface Sounding {
  readonly semitone: number;
  length: number;
}

/** What the first voice sounds, in the notation of the corpus. */
function heardOf(score: Score): string {
  const [voice] = score.voices;
  const bars: { text: string; notes: Sounding[] }[][] = [];
  let before: Sounding[] = [];
  for (const index of playingOrder(voice.bars, score.partOrder)) {
    const bar = voice.bars[index];
    const sounds: { text: string; notes: Sounding[] }[] = [];
    for (const event of voice.events.slice(bar.first, bar.end)) {
      const notes = begin(event, before, voice.soundsAt);
      before = notes;
      const begun = notes.filter(({ length }) => length === event.duration);
      if (event.pitches.length === 0) sounds.push({ text: `z${lengthText(event.duration)}`, notes: [] });
      else if (begun.length > 0)
        sounds.push({ text: event.graceNotes.length === 0 ? '' : `{${event.graceNotes.map((grace) => nameOf(semitoneOf(grace))).join(' ')}}`, notes: begun });
    }
    bars.push(sounds);
  }
  return bars
    .map((sounds) => sounds.map(({ text, notes }) => text + chordText(notes)).join(' '))
    .filter((text) => text !== '')
    .join(' | ');
}

/** The notes that sound with an event; a tied one goes on as it was. */
function begin(event: ScoreEvent, before: readonly Sounding[], soundsAt: number): Sounding[] {
  return event.pitches.map((pitch) => {
    const semitone = semitoneOf(pitch) + soundsAt;
    const tied = pitch.isTiedFromPrevious ? before.find((each) => each.semitone === semitone) : undefined;
    if (tied === undefined) return { semitone, length: event.duration };
    tied.length += event.duration;
    return tied;
  });
}

function chordText(notes: readonly Sounding[]): string {
  const isOne = notes.every(({ length }) => length === notes[0].length);
  if (isOne) return notes.length === 0 ? '' : `${notes.map(({ semitone }) => nameOf(semitone)).join('+')}${lengthText(notes[0].length)}`;
  return notes.map(({ semitone, length }) => `${nameOf(semitone)}${lengthText(length)}`).join('+');
}

function lengthText(duration: number): string {
  const eighths = Math.round(duration * 8 * 1000) / 1000;
  return eighths === 1 ? '' : `*${String(eighths).replace(/^0/, '')}`;
}

const all: readonly Fragment[] = [...corpus, ...scales];

describe('the corpus', () => {
  it('has at least 300 fragments, each once', () => {
    expect(all.length).toBeGreaterThanOrEqual(300);
    expect(new Set(all.map(([, text]) => text)).size).toBe(all.length);
  });

  it.each(all)('%s', (_, text, heard) => {
    const { score, faults } = readAbc(textOf(text));
    expect(faults).toEqual([]);
    expect(heardOf(score)).toBe(heard);
  });

  it.each(all)('%s: the same after it was written and read again', (_, text, heard) => {
    const written = writeAbc(readAbc(textOf(text)).score);
    const { score, faults } = readAbc(written);
    expect(faults).toEqual([]);
    expect(heardOf(score)).toBe(heard);
  });
});
