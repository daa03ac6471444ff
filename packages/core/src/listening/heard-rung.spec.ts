import { practiceChanter, type NoteId } from '../fingering';
import { playNotes, renderTimeline, type PlaySettings } from '../sound';
import { askedOfLine, decodeTake, heardRung, type AskedNote, type HeardRung, type HeardStretch } from '.';

const rate = 22_050;
const tempo = 90;
const click = { beatMs: 60_000 / tempo };

/** B to E and back, twice through on the ladder. */
const once = askedOfLine(practiceChanter, { home: 'b', other: 'e' });
const rung: readonly AskedNote[] = [...once, ...once];

/** The rung as somebody plays it, decoded; at another tempo, with a fault in every change, or only its first notes. */
function played({ at = tempo, fault, notes = rung.length }: { at?: number; fault?: PlaySettings['fault']; notes?: number } = {}): readonly HeardStretch[] {
  const settings = { tempo: at, beatsInBar: 4, countInBeats: 0, isClickOn: false, firstBeat: 0, graceNoteMs: 40, ...(fault && { fault }) };
  const line = rung.slice(0, notes).map(({ note, graceNotes, beats, isTied }, index) => ({ note, graceNotes, beats, isTied, index }));
  return decodeTake(practiceChanter, renderTimeline(practiceChanter, playNotes(practiceChanter, line, settings), { sampleRate: rate }), rate).stretches;
}

const heard = (stretches: readonly HeardStretch[], isOver: boolean): HeardRung => heardRung(practiceChanter, rung, stretches, { click, isOver });

describe('a rung that is listened to', () => {
  it('goes on while it is clean, and is clean when it is over', () => {
    const take = played();
    expect(heard(take.slice(0, 5), false)).toEqual({ rating: 'going', text: '' });
    expect(heard(take, true)).toEqual({ rating: 'clean', text: '' });
  });

  it('slips at a noise between two notes before it is over, and says where', () => {
    const take = played({ fault: { kind: 'worst', ms: 24 } });
    const found = heard(take.slice(0, 6), false);
    expect(found.rating).toBe('slip');
    expect(found.text).toMatch(/^Bar 1: low A sounds for \d+ ms before E\.$/);
  });

  it('slips where it does not keep to the click', () => {
    const found = heard(played({ at: tempo * 0.8 }), true);
    expect(found.rating).toBe('slip');
    expect(found.text).toMatch(/comes \d+ ms (early|late)\.$/);
  });

  it('says nothing of the last note while it may still sound', () => {
    const take = played();
    const other: HeardStretch = { note: 'd' as NoteId, start: take[3].start, end: take[3].start + 200, confidence: 0.9 };
    expect(heard([...take.slice(0, 3), other], false).rating).toBe('going');
  });

  it('judges nothing of what was hardly heard, or not at all', () => {
    expect(heard([], true)).toEqual({ rating: 'unheard', text: 'Too little was heard to judge it.' });
    expect(heard(played({ notes: 4 }), true).rating).toBe('unheard');
  });
});
