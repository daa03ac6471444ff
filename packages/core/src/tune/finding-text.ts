import type { ScoreNotice } from '../score';
import { capital } from '../words';

/**
 * A finding as it is said, with its bar.
 * @example findingText({ kind: 'length', bar: 5, beat: 1, text: '3 beats instead of 4 beats' }) // 'Bar 5: 3 beats instead of 4 beats'
 */
export function findingText({ kind, bar, text }: ScoreNotice): string {
  const place = bar > 0 ? `bar ${bar}: ` : '';
  return capital(`${place}${kind === 'passed-over' ? 'not used: ' : ''}${text}`);
}
