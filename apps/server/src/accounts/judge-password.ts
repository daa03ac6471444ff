import zxcvbn from 'zxcvbn';
import { HttpProblem } from '../http/problem';

/** From 0, the first that is guessed, to 4; 3 takes ten thousand million guesses. */
const leastScore = 3;
/** Judging takes longer the longer a password is: what stands further back only makes it better. */
const longestJudged = 72;

/**
 * @param own words that somebody who knows them would try: name, address, studio
 * @throws HttpProblem `password-too-easy` with what makes it easy
 */
export function assertHardToGuess(password: string, own: readonly string[]): void {
  const words = own.flatMap((each) => [each, ...each.split(/[@.\s-]+/)]).filter((each) => each.length > 2);
  const { score, feedback } = zxcvbn(password.slice(0, longestJudged), words);
  if (score >= leastScore) return;
  const why = feedback.warning === '' ? '' : ` ${feedback.warning}.`;
  throw new HttpProblem('password-too-easy', `This password is too easy to guess.${why} Four or five words that do not belong together make a good one.`, {
    fields: [{ path: 'password', message: 'This password is too easy to guess.' }],
  });
}
