import type { KillablePostgres } from './kill-run';

export interface OwnPostgres extends KillablePostgres {
  end(): void;
}

export function ownPostgres(): Promise<OwnPostgres>;
