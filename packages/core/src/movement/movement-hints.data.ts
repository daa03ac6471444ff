import type { NoteId } from '../fingering';

/** What is said with a movement; `{note}` stands for its theme note. */
export interface MovementHint {
  /** Ids of the movements for which it is said. */
  readonly of: readonly string[];
  /** Theme notes for which it is said; any where nothing is said. */
  readonly on?: readonly NoteId[];
  readonly text: string;
}

const single = ['grace-note', 'thumb-grace-note', 'g-grace-note', 'f-grace-note', 'e-grace-note', 'd-grace-note', 'c-grace-note', 'b-grace-note'];
const doublings = ['doubling', 'doubling-strike'];
const taps = ['tap', 'strike', 'light-strike', 'doubling-strike', 'birl', 'opened-birl'];

/** What to listen for; the first that fits is said. Source: usual teaching. */
export const listenHints: readonly MovementHint[] = [
  { of: single, text: 'One short, solid grace note on the beat, and {note} full from then on.' },
  { of: ['doubling'], on: ['high-g', 'high-a'], text: 'One solid grace note, and {note} clear on both sides of it.' },
  { of: doublings, text: 'Two solid grace notes on {note}, equally long, with {note} between them.' },
  { of: ['half-doubling'], text: '{note} first, then one solid grace note on it.' },
  { of: ['light-throw'], text: 'A substantial low G, then D, C and D; no low A on the way.' },
  { of: ['heavy-throw'], text: 'Two low Gs, equally long, then C and D.' },
  { of: ['grip'], text: 'Two low Gs, equally long, with one crisp grace note between them.' },
  { of: ['taorluath'], text: 'Four even sounds: low G, the grace note, low G, the E grace note. No low A comes before the E.' },
  { of: ['crunluath'], text: 'A taorluath, then low A, the F grace note and low A, every one as long as the other.' },
  { of: ['birl', 'opened-birl'], text: 'Two equal taps to low G, with low A clear between them.' },
  { of: taps, text: 'A firm tap, neither a flick nor a note of its own, and {note} clear before and after it.' },
];

/** One physical hint; the first that fits is said. Source: usual teaching. */
export const physicalHintsOf: readonly MovementHint[] = [
  { of: taps, on: ['c'], text: 'For taps on C the right middle finger is held higher than the ring finger: both land together.' },
  { of: ['light-strike'], text: 'Only the right index finger closes; it bounces off by itself.' },
  { of: taps, on: ['d'], text: 'For the heavy tap on D the right index finger is held highest: all three land together.' },
  { of: taps, on: ['e'], text: 'For taps on E try the left little finger above the chanter, or below it: whichever leaves the ring finger free.' },
  { of: ['birl', 'opened-birl'], text: 'The right little finger moves from its own joint; the hand stays still and loose.' },
  { of: taps, text: 'The fingers fall by their own weight and spring back; they do not press.' },
  { of: ['taorluath', 'crunluath'], text: 'Right little and left ring leave the last low G together.' },
  { of: ['grip', 'heavy-throw', 'light-throw'], text: 'Close the chanter fully for each low G; the forearm stays soft.' },
  { of: ['doubling', 'half-doubling', 'doubling-strike'], text: 'The finger of each grace note lifts little and quickly; the others do not follow it.' },
  { of: ['thumb-grace-note'], text: 'The thumb rolls off its hole and back; it does not leave the wood.' },
  { of: single, text: 'One finger lifts, little and quickly; the others lie still.' },
];
