import { capital, listed, numberWord } from '../words';

/** So many clean places are asked for, and so many others, at most. */
const mostOfEach = 6;
/** With fewer of either there is nothing to tell apart. */
export const fewestOfEach = 2;

/** A place of a take that was listened to without knowing how it was. */
export interface EarAnswer {
  readonly isFaulty: boolean;
  readonly heardAsFaulty: boolean;
}

/**
 * The questions of an ear test on a take that was judged: as many clean places as others, in an order that tells nothing. Empty where there are too few of either.
 * @param random numbers from 0 to 1
 */
export function takeQuestions<T>(clean: readonly T[], faulty: readonly T[], random: () => number): readonly T[] {
  const count = Math.min(mostOfEach, clean.length, faulty.length);
  return count < fewestOfEach ? [] : shuffled([...shuffled(clean, random).slice(0, count), ...shuffled(faulty, random).slice(0, count)], random);
}

/** Every order is as likely as any other. Source: Fisher and Yates (1938). */
function shuffled<T>(all: readonly T[], random: () => number): readonly T[] {
  const mixed = [...all];
  for (let last = mixed.length - 1; last > 0; last -= 1) {
    const other = Math.floor(random() * (last + 1));
    [mixed[last], mixed[other]] = [mixed[other], mixed[last]];
  }
  return mixed;
}

/** "Nine of twelve right. Two faults were let pass, and one clean place was called faulty." */
export function earAnswersText(answers: readonly EarAnswer[]): string {
  const count = (is: (answer: EarAnswer) => boolean): number => answers.filter(is).length;
  const right = count(({ isFaulty, heardAsFaulty }) => isFaulty === heardAsFaulty);
  const passed = count(({ isFaulty, heardAsFaulty }) => isFaulty && !heardAsFaulty);
  const called = count(({ isFaulty, heardAsFaulty }) => !isFaulty && heardAsFaulty);
  const wrong = [
    ...(passed > 0 ? [`${numberWord(passed)} ${passed === 1 ? 'fault was' : 'faults were'} let pass`] : []),
    ...(called > 0 ? [`${numberWord(called)} clean ${called === 1 ? 'place was' : 'places were'} called faulty`] : []),
  ];
  const first = `${capital(numberWord(right))} of ${numberWord(answers.length)} right.`;
  return wrong.length === 0 ? first : `${first} ${capital(listed(wrong))}.`;
}
