import type { HttpErrorResponse } from '@angular/common/http';
import { problemSchema, type Problem } from '@zelpit/contract';

/** The problem in an answer that was no success; undefined where it holds none, as behind a proxy. */
export function problemOf({ error }: HttpErrorResponse): Problem | undefined {
  const problem = problemSchema.safeParse(typeof error === 'string' ? parsed(error) : error);
  return problem.success ? problem.data : undefined;
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
