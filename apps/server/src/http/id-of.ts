import { idSchema } from '@zelpit/contract';
import type { Request } from 'express';
import { notFound } from './problem';

/** The id in an address; one that is no id names nothing that is here. */
export function idOf(request: Request, thing: string): string {
  const parsed = idSchema.safeParse(request.params['id']);
  if (!parsed.success) throw notFound(thing);
  return parsed.data;
}
