import type { ScoreBar, ScoreNotice } from './score';

export type UnnumberedBar = Omit<ScoreBar, 'number' | 'offset'>;

export interface NumberedBars {
  readonly bars: readonly ScoreBar[];
  readonly notices: readonly ScoreNotice[];
}

const tolerance = 1e-6;

/** True where a stretch of music can go on with its second half after this bar's line. */
const isPlaceToCut = (bar: UnnumberedBar): boolean => bar.closesRepeat > 0 || bar.line === 'double' || bar.line === 'end' || bar.line === 'begin';

/**
 * Numbers bars as they are counted aloud: a short first bar is the lead-in, 0; a bar cut in two by a repeat sign or a double bar counts once, its second half going on
 * in the beats where the first stopped. Bars that do not have the length of their meter are named, never moved.
 */
export function numberBars(written: readonly UnnumberedBar[]): NumberedBars {
  const bars: ScoreBar[] = [];
  const notices: ScoreNotice[] = [];
  const short: { readonly index: number; readonly filled: number }[] = [];
  let number = 0;
  let filled = 0;
  let leadIn = 0;
  written.forEach((bar, index) => {
    const { meter, length } = bar;
    const isFree = meter.bar === 0;
    const isLeadIn = index === 0 && written.length > 1 && !isFree && length < meter.bar - tolerance;
    const isSecondHalf = index > 0 && filled > tolerance && filled + length <= meter.bar + tolerance;
    if (!isSecondHalf && !isLeadIn) {
      number += 1;
      filled = 0;
    }
    const offset = isLeadIn ? meter.bar - length : filled;
    if (isLeadIn) leadIn = length;
    bars.push({ ...bar, number, offset });
    const end = offset + length;
    const isShort = !isLeadIn && !isFree && end < meter.bar - tolerance;
    const next = written.at(index + 1);
    const goesOn = isShort && next !== undefined && isPlaceToCut(bar) && end + next.length <= next.meter.bar + tolerance;
    filled = goesOn ? end : 0;
    if (isFree || isLeadIn || goesOn) return;
    if (end > meter.bar + tolerance) notices.push(lengthNotice(bars[index], end));
    else if (isShort) short.push({ index, filled: end });
  });
  const leads = leadsOf(bars, leadIn);
  bars.forEach((bar, index) => {
    const closes = bar.closesRepeat > 0 || index === bars.length - 1;
    const isFull = bar.meter.bar > 0 && Math.abs(bar.offset + bar.length - bar.meter.bar) < tolerance;
    const lead = closes && isFull ? leads[index] : 0;
    if (bar.number > 0 && lead > tolerance && lead < bar.meter.bar - tolerance) notices.push(leadInNotice(bar, lead));
  });
  for (const { index, filled: length } of short) {
    const bar = bars[index];
    const isLast = index === written.length - 1;
    // The last bar of a part and the lead-in to it make a bar together.
    const isCompleted = (isLast || isPlaceToCut(bar)) && Math.abs(length + leads[index] - bar.meter.bar) < tolerance;
    if (!isCompleted) notices.push(lengthNotice(bar, length));
  }
  return { bars, notices: notices.sort((one, other) => one.bar - other.bar) };
}

/** For each bar the length of what leads into the stretch that it closes: the start of the repeat, or of the tune. */
function leadsOf(bars: readonly ScoreBar[], leadIn: number): readonly number[] {
  let lead = leadIn;
  return bars.map((bar, index) => {
    const here = lead;
    if (bar.opensRepeat && index > 0) lead = bar.length < bar.meter.bar - tolerance ? bar.length : 0;
    return here;
  });
}

function lengthNotice(bar: ScoreBar, length: number): ScoreNotice {
  const unit = bar.meter.beat;
  return { kind: 'length', text: `${beatsText(length / unit)} instead of ${beatsText(bar.meter.bar / unit)}`, bar: bar.number, beat: 1 };
}

function leadInNotice(bar: ScoreBar, lead: number): ScoreNotice {
  return { kind: 'length', text: `a full bar, though a lead-in of ${beatsText(lead / bar.meter.beat)} comes before the first`, bar: bar.number, beat: 1 };
}

const fractions: readonly (readonly [number, string])[] = [
  [0.25, '¼'],
  [1 / 3, '⅓'],
  [0.5, '½'],
  [2 / 3, '⅔'],
  [0.75, '¾'],
];

/**
 * Beats as they are said.
 * @example beatsText(3.5) // '3½ beats'
 */
export function beatsText(beats: number): string {
  const whole = Math.floor(beats + tolerance);
  const rest = beats - whole;
  const fraction = rest < 0.02 ? '' : fractions.find(([value]) => Math.abs(value - rest) < 0.02)?.[1];
  if (fraction === undefined) return `${beats.toFixed(2)} beats`;
  const text = whole === 0 && fraction !== '' ? fraction : `${whole}${fraction}`;
  return `${text} ${beats <= 1 + tolerance ? 'beat' : 'beats'}`;
}
