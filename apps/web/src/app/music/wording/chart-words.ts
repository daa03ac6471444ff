import {
  comfortHint,
  holeSign,
  listed,
  moversBetween,
  noteOf,
  type Fingering,
  type Instrument,
  type NamedPitch,
  type Pattern,
  type PatternAnswer,
} from '@zelpit/core';
import { capital } from '../../kernel/words/words';

/** "12 cents sharp", "in tune". */
export function centsText(cents: number): string {
  const whole = Math.round(cents);
  if (Math.abs(whole) < 3) return 'in tune';
  return `${Math.abs(whole)} cents ${whole > 0 ? 'sharp' : 'flat'}`;
}

export const pitchText = (instrument: Instrument, { hertz, note, cents }: NamedPitch): string =>
  `${noteOf(instrument, note).schoolName}, ${centsText(cents)} (${hertz.toFixed(1)} Hz)`;

export const sentence = (words: string): string => `${capital(words)}.`;

function decibelsText(decibels: number): string {
  const half = Math.round(decibels * 2) / 2;
  return half > 0 ? `+${half} dB` : `${String(half).replace('-', '−')} dB`;
}

/** What a tried pattern gives, as sentences. */
export function answerText(instrument: Instrument, answer: PatternAnswer): readonly string[] {
  if (answer.kind === 'silent') return ['Nothing sounds.'];
  if (answer.kind === 'unknown') return ['No geometry is known for this instrument, so only the fingers of its chart have a pitch.'];
  const { sounding, overblown, isSteady, spread, loudness } = answer;
  const steadiness = isSteady || overblown !== undefined ? [] : ['It is unsteady: the tone may jump.'];
  const spreadText = spread === undefined || spread < 10 ? [] : [`From instrument to instrument this differs by about ${spread} cents.`];
  return [
    `Sounds ${pitchText(instrument, sounding)}.`,
    ...(overblown === undefined ? [] : [`Blown harder: ${pitchText(instrument, overblown)}.`]),
    ...steadiness,
    ...spreadText,
    ...(loudness === undefined ? [] : [`Loudness ${decibelsText(loudness)} against the reference note, calibrated from what players report.`]),
  ];
}

/** How many fingers lift and land from one pattern to the next. */
export function movesBetween(instrument: Instrument, before: Pattern, after: Pattern): { readonly lifts: number; readonly lands: number } {
  const movers = moversBetween(instrument, before, after);
  const lifts = movers.filter((mover) => mover.direction === 'lift').length;
  return { lifts, lands: movers.length - lifts };
}

/** "From C: the thumb lifts, L ring lands." and what to know about holding the instrument. */
export function fromText(instrument: Instrument, before: Fingering, after: Fingering): readonly string[] {
  const movers = moversBetween(instrument, before.pattern, after.pattern);
  const name = noteOf(instrument, before.note).schoolName;
  if (movers.length === 0) return [`The same fingers as ${name}.`];
  const labels = (direction: 'lift' | 'lower'): string[] =>
    movers
      .filter((mover) => mover.direction === direction)
      .map(({ finger }) => instrument.fingers.find((each) => each.id === finger)?.label ?? finger)
      .map((label) => (label === 'thumb' ? 'the thumb' : label));
  const text = (names: readonly string[], one: string, many: string): string[] =>
    names.length === 0 ? [] : [`${listed(names)} ${names.length === 1 ? one : many}`];
  const moves = [...text(labels('lift'), 'lifts', 'lift'), ...text(labels('lower'), 'lands', 'land')].join(', ');
  const hint = comfortHint(instrument, before.pattern, after.pattern);
  return [`From ${name}: ${moves}.`, ...(hint === undefined ? [] : [hint])];
}

/** Holes as they are recited: numbers where the instrument has them, else signs. */
export function recited(instrument: Instrument, pattern: Pattern): string {
  if (instrument.family === 'recorder') {
    const sign = (hole: number): string => {
      if (pattern[hole] >= 1) return String(hole);
      if (pattern[hole] <= 0) return '';
      return hole === 0 ? 'ø' : `${hole}h`;
    };
    const parts = [[0], [1, 2, 3], [4, 5, 6, 7]].map((part) => part.map(sign).join(''));
    return parts.filter((part) => part !== '').join(' ');
  }
  // A gap where another hand, or the thumb, begins.
  const partOf = (hole: number): string => {
    const finger = instrument.fingers.find(({ id }) => id === instrument.holes[hole].finger);
    return finger?.thumb === true ? 'thumb' : (finger?.hand ?? '');
  };
  return pattern.map((coverage, hole) => `${hole > 0 && partOf(hole) !== partOf(hole - 1) ? ' ' : ''}${holeSign(coverage)}`).join('');
}
