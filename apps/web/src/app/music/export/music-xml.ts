import { tuneAtRow, type Excerpt } from '@zelpit/core/excerpt';
import type { Instrument, NoteId } from '@zelpit/core/fingering';
import { lineTitle, noteHeads, notesOfLine, quarter, signsOfLine, type NoteHead, type PacedLine } from '@zelpit/core/line';
import { writeMusicXml } from '@zelpit/core/music-files';
import { XMLBuilder } from 'fast-xml-parser';
import { nameOf } from '../../studio/shelf/instrument-shelf.service';
import { writtenPitch } from './written-pitch';

const barTwelfths = 4 * quarter;
const typeOf: Readonly<Record<number, readonly [type: string, dots: number]>> = {
  48: ['whole', 0],
  36: ['half', 1],
  24: ['half', 0],
  18: ['quarter', 1],
  12: ['quarter', 0],
  9: ['eighth', 1],
  6: ['eighth', 0],
  3: ['16th', 0],
  8: ['quarter', 0],
  4: ['eighth', 0],
  2: ['16th', 0],
};

/**
 * Lines as one MusicXML 4 score: each line begins on a new system, under its name; triplets, ties, slurs and grace notes are written. A piece of a tune stands in its
 * own meter and key, as the tune itself is written.
 */
export function musicXml(instrument: Instrument, title: string, lines: readonly PacedLine[]): string {
  const builder = new XMLBuilder({
    ignoreAttributes: false,
    attributeNamePrefix: '@',
    format: true,
    suppressEmptyNode: true,
    suppressBooleanAttributes: false,
  });
  const built = (measure: object): string => String(builder.build({ measure }));
  let number = 0;
  // Nothing holds yet, and after a piece of a tune nothing of before holds any more.
  let key: number | undefined;
  const measures = lines.flatMap((line, place) => {
    const opening = { isFirst: place === 0, words: lineTitle(instrument, line), tempo: line.tempo };
    if (line.excerpt != null) {
      key = undefined;
      const piece = measuresOfPiece(instrument, line.excerpt, number, opening, (direction) => String(builder.build({ direction })));
      number += piece.length;
      return piece;
    }
    return barsOf(tiedHeads(noteHeads(notesOfLine(instrument, line)))).map((heads, index, bars) => {
      number += 1;
      const opens = index === 0;
      const fifths = signsOfLine(instrument, line) ?? pipesSigns;
      const before = key;
      key = fifths;
      return built({
        '@number': number,
        ...(opens && !opening.isFirst && { print: { '@new-system': 'yes' } }),
        ...(before === undefined && { attributes: attributesOf(fifths) }),
        ...(before !== undefined && before !== fifths && { attributes: { key: { fifths } } }),
        ...(opens && { direction: directions(opening.words, line.tempo) }),
        note: heads.flatMap((head) => notesOf(instrument, head)),
        ...(index === bars.length - 1 && { barline: { '@location': 'right', 'bar-style': 'light-heavy' } }),
      });
    });
  });
  const score = {
    '?xml': { '@version': '1.0', '@encoding': 'UTF-8', '@standalone': 'no' },
    'score-partwise': {
      '@version': '4.0',
      work: { 'work-title': title },
      'part-list': { 'score-part': { '@id': 'P1', 'part-name': nameOf(instrument) } },
      part: { '@id': 'P1', measure: measuresHere },
    },
  };
  return String(builder.build(score)).replace(`<measure>${measuresHere}</measure>`, () => measures.join(''));
}

/** Where the measures go, which are built one by one. */
const measuresHere = 'measures';

/** How a line of a score begins. */
interface Opening {
  readonly isFirst: boolean;
  readonly words: string;
  readonly tempo: number | null;
}

/** The measures of a piece, numbered on from `before`, as the writer of tunes has them. */
function measuresOfPiece(
  instrument: Instrument,
  excerpt: Excerpt,
  before: number,
  { isFirst, words, tempo }: Opening,
  written: (direction: readonly object[]) => string,
): readonly string[] {
  const { score, voice } = tuneAtRow(instrument, excerpt);
  const own = writeMusicXml({ ...score, voices: [voice] }).match(/<measure [^>]*>[\s\S]*?<\/measure>/g) ?? [];
  return own.map((measure, index) => {
    const [, attributes, rest] = /^<measure ([^>]*)>([\s\S]*)$/.exec(measure) ?? ['', '', ''];
    const numbered = `<measure ${attributes.replace(/number="[^"]*"/, `number="${before + index + 1}"`)}>`;
    if (index > 0) return `${numbered}${rest}`;
    const fresh = isFirst ? '' : '<print new-system="yes"/>';
    const text = written(directions(words, tempo));
    return `${numbered}${fresh}${rest.replace('</attributes>', () => `</attributes>${text}`)}`;
  });
}

/** Signs of the pipes' own key. */
const pipesSigns = 2;

/** A note head that may go on from the one before. */
interface TiedHead extends NoteHead {
  readonly closesTie: boolean;
}

const tiedHeads = (heads: readonly NoteHead[]): readonly TiedHead[] =>
  heads.map((head, index) => ({
    ...head,
    isTied: head.isTied && heads[index + 1]?.note === head.note,
    closesTie: heads[index - 1]?.isTied === true && heads[index - 1].note === head.note,
  }));

function barsOf(heads: readonly TiedHead[]): readonly (readonly TiedHead[])[] {
  const bars: TiedHead[][] = [];
  for (const head of heads) (bars[Math.floor(head.start / barTwelfths)] ??= []).push(head);
  return bars;
}

const attributesOf = (fifths: number): object => ({
  divisions: quarter,
  key: { fifths },
  time: { beats: 4, 'beat-type': 4 },
  clef: { sign: 'G', line: 2 },
});

function directions(words: string, tempo: number | null): readonly object[] {
  const text = { '@placement': 'above', 'direction-type': { words } };
  if (tempo === null) return [text];
  return [text, { '@placement': 'above', 'direction-type': { metronome: { 'beat-unit': 'quarter', 'per-minute': tempo } }, sound: { '@tempo': tempo } }];
}

/** What closes stands before what opens. */
const tieTypes = ({ isTied, closesTie }: TiedHead): readonly object[] => [
  ...(closesTie ? [{ '@type': 'stop' }] : []),
  ...(isTied ? [{ '@type': 'start' }] : []),
];

function pitchOf(instrument: Instrument, note: NoteId): object {
  const { step, alter, octave } = writtenPitch(instrument, note);
  return { step, ...(alter !== 0 && { alter }), octave };
}

/** A head with the grace notes before it, its elements in the order that the format asks for. */
function notesOf(instrument: Instrument, head: TiedHead): readonly object[] {
  const graces = head.graceNotes.map((note) => ({ grace: {}, pitch: pitchOf(instrument, note), type: '32nd', stem: 'up' }));
  const [type, dots] = typeOf[head.twelfths] ?? ['quarter', 0];
  const places = head.start % barTwelfths;
  const inGroup = Math.round((places % (3 * head.twelfths)) / head.twelfths);
  const notations = {
    ...((head.isTied || head.closesTie) && { tied: tieTypes(head) }),
    ...((head.opensSlur || head.closesSlur) && { slur: { '@type': head.opensSlur ? 'start' : 'stop', '@number': 1 } }),
    ...(head.isTriplet && inGroup !== 1 && { tuplet: { '@type': inGroup === 0 ? 'start' : 'stop' } }),
  };
  return [
    ...graces,
    {
      pitch: pitchOf(instrument, head.note),
      duration: head.twelfths,
      ...((head.isTied || head.closesTie) && { tie: tieTypes(head) }),
      type,
      ...(dots > 0 && { dot: {} }),
      ...(head.isTriplet && { 'time-modification': { 'actual-notes': 3, 'normal-notes': 2 } }),
      ...(Object.keys(notations).length > 0 && { notations }),
    },
  ];
}
