import { noteOf, type FingerId, type Instrument } from '../fingering';
import type { Tune } from '../tune';
import { capital } from '../words';
import type { ScriptStep } from '../script';

type Does = 'lift' | 'lower';

/** "thumb, left index and middle lift" */
const clause = /([a-z ,]+?)\s+(lifts?|lands?)\b/g;

/**
 * What in a script does not agree with the fingers or the tune, in sentences: a finger that is said to lift and stays, one that is left out, a bar that is said to start on
 * another note. What it cannot read it leaves alone.
 * @param steps of the same chunk, as they are made from its fingers
 */
export function proofScript(instrument: Instrument, tune: Tune, steps: readonly ScriptStep[], text: string): readonly string[] {
  const paragraphs = text.split('\n');
  const ofChanges = steps.flatMap((step) => {
    const paragraph = paragraphs.find((each) => each.toLowerCase().startsWith(`${step.title.toLowerCase()}:`));
    return paragraph === undefined ? [] : proofChange(instrument, step, paragraph.slice(step.title.length + 1));
  });
  return [...ofChanges, ...proofBars(instrument, tune, text)];
}

function proofChange(instrument: Instrument, { title, change }: ScriptStep, text: string): readonly string[] {
  if (change === undefined) return [];
  const said = new Map<FingerId, Does>();
  // What is said of faults and of listening names fingers too; it stands behind the first of these words.
  const [told] = text.split(/\b(?:Land too soon|Fingers out of order|Listen)\b/);
  for (const [, names, verb] of told.toLowerCase().matchAll(clause))
    for (const finger of fingersIn(instrument, names)) said.set(finger, verb.startsWith('lift') ? 'lift' : 'lower');
  if (said.size === 0) return [];
  const words: Readonly<Record<Does, string>> = { lift: 'lifts', lower: 'lands' };
  const name = (finger: FingerId): string => instrument.fingers.find(({ id }) => id === finger)?.spoken ?? finger;
  const moves = new Map(change.movers.map(({ finger, direction }) => [finger, direction]));
  const wrong = [...said].flatMap(([finger, does]): string[] => {
    const really = moves.get(finger);
    if (really === does) return [];
    return [`${title}: the script says that ${name(finger)} ${words[does]}; it ${really === undefined ? 'stays' : words[really]}.`];
  });
  const missing = [...moves].flatMap(([finger, does]) => (said.has(finger) ? [] : [`${title}: the script leaves out that ${name(finger)} ${words[does]}.`]));
  return [...wrong, ...missing].map(capital);
}

/** Fingers in a list of names; a hand that is said once holds for those after it. */
function fingersIn(instrument: Instrument, names: string): readonly FingerId[] {
  const ids = new Map(instrument.fingers.map(({ id, spoken }) => [spoken, id]));
  let hand = '';
  return names.split(/,\s*|\s+and\s+/).flatMap((part) => {
    const name = part.trim().replace(/^(?:then|both hands|the)\s+/, '');
    hand = /^(left|right)\b/.exec(name)?.[1] ?? hand;
    return ids.get(name) ?? ids.get(`${hand} ${name}`) ?? [];
  });
}

/** "bar 3 starts on E" */
const claim = /\bbar (\d{1,4}) (?:starts|begins) on (?:a |an )?((?:low |high |third )?[A-G](?: sharp| flat| natural)?)\b/gi;

function proofBars(instrument: Instrument, tune: Tune, text: string): readonly string[] {
  return [...text.matchAll(claim)].flatMap(([, number, named]): string[] => {
    const bar = tune.bars.find((each) => each.number === Number(number) && each.end > each.first && each.offset < 1e-6);
    const written = bar === undefined ? undefined : tune.notes[bar.first].written;
    if (written?.kind !== 'note') return [];
    const really = noteOf(instrument, written.note).schoolName;
    const isSame = really.toLowerCase() === named.toLowerCase();
    return isSame ? [] : [`Bar ${number} starts on ${really}, not on ${named}.`];
  });
}
