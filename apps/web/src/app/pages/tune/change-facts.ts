import { changeName, heardPhrases, kindPhrase, leadOf, type Change } from '@zelpit/core/change';
import { fingerOf, type FingerId, type Instrument } from '@zelpit/core/fingering';
import { MovementReader, type MovementDefinition } from '@zelpit/core/movement';
import { placePhrase, type Place, type TuneChange } from '@zelpit/core/tune';
import { count } from '@zelpit/core/words';

/** What the band says of a change, in words. */
export interface ChangeFacts {
  readonly name: string;
  readonly kind: string;
  /** "7 times: bars 1 3 5" */
  readonly count: string;
  readonly places: readonly { readonly place: Place; readonly text: string }[];
  /** What is heard in each of the three ways of going wrong; empty where nothing can be. */
  readonly heard: readonly { readonly how: string; readonly text: string }[];
  /** "Up: L ring leads, R little. Down: R ring first, R middle." */
  readonly movers: string;
  /** "under G grace note", "part of throw {Gdc}, judged from E to low G"; empty for an open change. */
  readonly under: string;
}

/** @param own movements of the studio, by whose names groups are called too */
export function changeFacts(
  instrument: Instrument,
  { change, outcomes, occurrences, places, under, inside }: TuneChange,
  own: readonly MovementDefinition[] = [],
): ChangeFacts {
  const reader = new MovementReader(instrument, own);
  const judged = inside ?? change;
  const { lifts, lowers } = leadOf(judged);
  const bars = [...new Set(places.map((place) => place.bar))];
  const phrases = heardPhrases(instrument, judged, outcomes);
  const heard = [
    { how: 'lands early', text: phrases.loweringFirst },
    { how: 'lifts early', text: phrases.liftingFirst },
    { how: 'out of order', text: phrases.wrongOrder },
  ];
  return {
    name: changeName(instrument, change),
    kind: kindPhrase(judged),
    count: `${count(occurrences, 'time')}: ${barsPhrase(bars)}`,
    places: places.map((place) => ({ place, text: placePhrase(place.bar, place.beat) + (place.isAcrossRepeat ? ', at the repeat' : '') })),
    heard: heard.flatMap(({ how, text }) => (text === undefined ? [] : [{ how, text }])),
    movers: [
      { text: 'Lifting', ids: lifts },
      { text: 'Landing', ids: lowers },
    ]
      .filter(({ ids }) => ids.length > 0)
      .map(({ text, ids }) => `${text}: ${inOrder(instrument, ids)}.`)
      .join(' '),
    under: underText(instrument, withName(reader, change, under), under.startsWith('{'), inside),
  };
}

function underText(instrument: Instrument, name: string, isThrough: boolean, inside: Change | undefined): string {
  if (name === '' || !isThrough) return name === '' ? '' : `under ${name}`;
  return inside === undefined ? `part of ${name}` : `part of ${name}, judged from ${changeName(instrument, inside)}`;
}

/** Fingers in the order in which they go, the first marked where others follow it. */
function inOrder(instrument: Instrument, ids: readonly FingerId[]): string {
  const [first, ...rest] = ids.map((id) => fingerOf(instrument, id).label);
  return rest.length === 0 ? first : [`${first} first`, ...rest].join(', ');
}

const mostBarsText = 10;

function barsPhrase(bars: readonly number[]): string {
  const text = bars.slice(0, mostBarsText).map((bar) => (bar === 0 ? 'lead-in' : String(bar)));
  const word = bars.filter((bar) => bar > 0).length > 1 ? 'bars ' : 'bar ';
  const more = bars.length > mostBarsText ? ` and ${bars.length - mostBarsText} more` : '';
  return `${bars.length === 1 && bars[0] === 0 ? '' : word}${text.join(' ')}${more}`;
}

/** A written group with the name of its movement: "taorluath {GdGe}", or how it differs from the nearest one. */
function withName(reader: MovementReader, { from, to }: Change, phrase: string): string {
  const group = /^\{([A-Ga-g]+)\}$/.exec(phrase);
  if (group === null) return phrase;
  const letters = [...group[1]].flatMap((letter) => reader.instrument.notes.filter(({ abc }) => abc === letter).map(({ id }) => id));
  const found = reader.read(from, letters, to);
  if (found.kind === 'known')
    return [`${found.candidates[0].movement.names[0]} ${phrase}`, found.candidates[0].variant].filter((part) => part !== '').join(', ');
  return found.kind === 'unknown' ? `${phrase} (not a known movement; nearest is the ${found.nearest.movement.names[0]}: ${found.differs})` : phrase;
}
