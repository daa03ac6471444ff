import { seededRandom } from '../timing';
import { earAnswersText, takeQuestions } from '.';

describe('an ear test on a take', () => {
  const clean = Array.from({ length: 20 }, (_, index) => `clean ${index}`);
  const faulty = Array.from({ length: 4 }, (_, index) => `faulty ${index}`);

  it('asks for as many clean places as others, each once, and in another order each time', () => {
    const questions = takeQuestions(clean, faulty, seededRandom(1));
    expect(questions).toHaveLength(8);
    expect(new Set(questions).size).toBe(8);
    expect(questions.filter((each) => each.startsWith('clean'))).toHaveLength(4);
    expect(takeQuestions(clean, faulty, seededRandom(2))).not.toEqual(questions);
    expect(takeQuestions(clean, clean, seededRandom(1))).toHaveLength(12);
  });

  it('puts a fault first as often as not', () => {
    const first = Array.from({ length: 200 }, (_, seed) => takeQuestions(clean, faulty, seededRandom(seed + 1))[0]);
    const share = first.filter((each) => each.startsWith('faulty')).length / first.length;
    expect(share).toBeGreaterThan(0.38);
    expect(share).toBeLessThan(0.62);
  });

  it('asks nothing where there is nothing to tell apart', () => {
    expect(takeQuestions(clean, faulty.slice(0, 1), seededRandom(1))).toEqual([]);
    expect(takeQuestions([], faulty, seededRandom(1))).toEqual([]);
  });

  it('says how many were right, and which way the others were wrong', () => {
    const answer = (isFaulty: boolean, heardAsFaulty: boolean) => ({ isFaulty, heardAsFaulty });
    expect(earAnswersText([answer(true, true), answer(false, false)])).toBe('Two of two right.');
    expect(earAnswersText([answer(true, false), answer(true, false), answer(false, true), answer(true, true)])).toBe(
      'One of four right. Two faults were let pass and one clean place was called faulty.',
    );
    expect(earAnswersText([answer(true, false), answer(false, false)])).toBe('One of two right. One fault was let pass.');
  });
});
