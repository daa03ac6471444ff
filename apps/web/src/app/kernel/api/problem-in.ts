import { problemSchema, type Problem } from '@zelpit/contract';

/** The problem in the body of an answer that was no success; undefined where it holds none, as behind a proxy. */
export function problemIn(body: unknown): Problem | undefined {
  const problem = problemSchema.safeParse(typeof body === 'string' ? parsed(body) : body);
  return problem.success ? problem.data : undefined;
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
