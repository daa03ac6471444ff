import type { NamedPitch, PatternAnswer } from '@zelpit/core/acoustics';
import { comfortHint, moversBetween } from '@zelpit/core/change';
import { noteOf, type Fingering, type Instrument, type Pattern } from '@zelpit/core/fingering';
import { listed } from '@zelpit/core/words';
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
  if (answer.kind === 'silent') return ['These fingers make no sound.'];
  if (answer.kind === 'unknown') return ['Zelpit does not know this instrument’s measurements, so only fingerings from its chart have a pitch.'];
  const { sounding, overblown, isSteady, spread, loudness } = answer;
  const steadiness = isSteady || overblown !== undefined ? [] : ['Unsteady: the tone may jump.'];
  const spreadText = spread === undefined || spread < 10 ? [] : [`It varies by about ${spread} cents from one instrument to another.`];
  return [
    `Sounds ${pitchText(instrument, sounding)}.`,
    ...(overblown === undefined ? [] : [`Blown harder: ${pitchText(instrument, overblown)}.`]),
    ...steadiness,
    ...spreadText,
    ...(loudness === undefined
      ? []
      : [
          `Loudness ${decibelsText(loudness)} compared with the reference note (from what players report). A difference of 1 dB is hardly heard; 6 dB is clearly louder.`,
        ]),
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
