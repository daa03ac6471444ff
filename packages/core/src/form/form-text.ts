import { ZelpitFault } from '../fault';
import { count } from '../words';
import type { Form, PartLength } from './form';

/**
 * Reads a form as a teacher writes it: letters with the number of their bars.
 * @param measures how many bars the tune has as it is played
 * @returns undefined for an empty text: the form that is found
 * @throws ZelpitFault `unreadable-form` with a sentence that says what does not add up
 * @example readForm('A8 B8 B8', 24)
 */
export function readForm(text: string, measures: number): readonly PartLength[] | undefined {
  const trimmed = text.trim();
  if (trimmed === '') return undefined;
  const parts = trimmed.split(/[\s,]+/).map((each): PartLength => {
    const found = /^([A-Za-z])(\d{1,5})$/.exec(each);
    if (found === null || Number(found[2]) === 0)
      throw new ZelpitFault('unreadable-form', `“${each.slice(0, 20)}” is no part. Write a letter and its number of bars, for example A8 B8 B8.`, {
        part: each,
      });
    return { letter: found[1].toUpperCase(), bars: Number(found[2]) };
  });
  const sum = parts.reduce((all, { bars }) => all + bars, 0);
  if (sum !== measures)
    throw new ZelpitFault('unreadable-form', `These parts have ${count(sum, 'bar')} together; the tune has ${measures} as it is played, repeats counted.`, {
      sum,
      measures,
    });
  return parts;
}

/** A form as a teacher writes it: "A8 A8 B8 B8". */
export const formText = ({ parts }: Pick<Form, 'parts'>): string => parts.map(({ letter, first, end }) => `${letter}${end - first}`).join(' ');
