import { soundingPitch, type Instrument, type NoteId } from '@zelpit/core/fingering';
import { beatsOfLine, lineTitle, notesOfLine, quarter, type PacedLine } from '@zelpit/core/line';
import { freeTempo } from '@zelpit/core/plan';
import { nameOf } from '../../studio/shelf/instrument-shelf.service';
import { Midi } from '@tonejs/midi';

/** Length of a grace note in s; it is taken from the note that follows. */
const graceSeconds = 0.05;
const velocity = 0.6;

/** The nearest key of a keyboard in equal temperament. */
const keyOf = (instrument: Instrument, note: NoteId): number => Math.round(69 + 12 * Math.log2(soundingPitch(instrument, note) / 440));

/** Lines as one MIDI file, a bar of rest between them. The instrument's own tuning is lost: MIDI has the keys of a keyboard. */
export function midiFile(instrument: Instrument, title: string, lines: readonly PacedLine[]): Uint8Array<ArrayBuffer> {
  const midi = new Midi();
  midi.header.name = title;
  const track = midi.addTrack();
  track.name = nameOf(instrument);
  let seconds = 0;
  for (const line of lines) {
    const tempo = line.tempo ?? freeTempo;
    const beat = 60 / tempo;
    const begin = midi.header.secondsToTicks(seconds);
    midi.header.tempos.push({ bpm: tempo, ticks: begin });
    midi.header.update();
    midi.header.meta.push({ type: 'marker', text: lineTitle(instrument, line), ticks: begin });
    let at = seconds;
    const notes = notesOfLine(instrument, line);
    notes.forEach(({ note, twelfths, graceNotes = [] }, index) => {
      const length = (twelfths / quarter) * beat;
      const graces = graceNotes.map((grace) => keyOf(instrument, grace));
      const each = graces.length === 0 ? 0 : Math.min(graceSeconds, (0.6 * length) / graces.length);
      graces.forEach((key, place) => track.addNote({ midi: key, time: at + place * each, duration: each, velocity }));
      const isTiedInto = notes[index - 1]?.isTied === true && notes[index - 1].note === note;
      if (!isTiedInto) {
        const rest = tiedLength(notes, index) * (beat / quarter);
        track.addNote({ midi: keyOf(instrument, note), time: at + graces.length * each, duration: Math.max(0.02, rest - graces.length * each), velocity });
      }
      at += length;
    });
    seconds += (beatsOfLine(line) + 4) * beat;
  }
  return Uint8Array.from(midi.toArray());
}

/** Length of a note with all that is tied to it, in twelfths. */
function tiedLength(notes: readonly { readonly note: NoteId; readonly twelfths: number; readonly isTied?: boolean }[], from: number): number {
  let sum = notes[from].twelfths;
  for (let index = from; notes[index].isTied === true && notes[index + 1]?.note === notes[from].note; index += 1) sum += notes[index + 1].twelfths;
  return sum;
}
