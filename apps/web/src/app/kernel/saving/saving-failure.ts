import { ApiFault, messageOf } from '../api/api.service';
import type { Failure } from './saving';

/** What an error means for whoever saves. What is not the fault of the document is tried again. */
export function failureOf(error: unknown): Failure {
  const message = messageOf(error);
  if (!(error instanceof ApiFault)) return { kind: 'refused', message };
  if (error.isAway || error.status === 429 || error.status >= 500) return { kind: 'away', message };
  if (error.status === 401) return { kind: 'signed-out', message };
  if (error.status === 404) return { kind: 'missing', message };
  return { kind: error.code === 'changed-elsewhere' ? 'conflict' : 'refused', message };
}
