/** With a capital letter at the start of a sentence or title. */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/**
 * A number with its thing.
 * @param many where "s" alone does not make the plural
 * @example count(1, 'line') // '1 line'
 * @example count(2, 'cross', 'crosses') // '2 crosses'
 */
export const count = (number: number, one: string, many = `${one}s`): string => `${number} ${number === 1 ? one : many}`;

/** "low A", "low A and B", "low A, B and C". */
export const listed = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words[words.length - 1]}`;

const small = ['none', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten', 'eleven', 'twelve'];

/**
 * A number as it is said: in a word up to twelve.
 * @example numberWord(7) // 'seven'
 * @example numberWord(24) // '24'
 */
export const numberWord = (number: number): string => small[number] ?? String(number);
