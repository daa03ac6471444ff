import pg from 'pg';

/** Statements that are known by a name, of all connections together: a text that is written anew for every length of a list would never end. */
const mostNamed = 300;
const longestNamed = 5000;

const names = new Map<string, string>();

function nameFor(text: string): string | undefined {
  const known = names.get(text);
  if (known !== undefined || names.size >= mostNamed || text.length > longestNamed) return known;
  const name = `zelpit_${names.size}`;
  names.set(text, name);
  return name;
}

/** What PostgreSQL answers where a kept plan no longer fits its tables, and where a name is not known to it. */
const lostPlan = new Set(['0A000', '26000']);

interface Wire {
  on(event: 'errorMessage', listener: (message: { readonly code: string }) => void): void;
}

/**
 * A connection on which PostgreSQL keeps the plans of our statements: finding one takes longer than most of them run. Through a transaction pooler, where the next
 * statement may reach another server process, each is planned anew; that there is one is told by the process that answers not being the one that greeted us.
 */
export class PlanKeepingClient extends pg.Client {
  private keepsPlans = false;

  override connect(): Promise<this>;
  override connect(done: (error: Error | null) => void): void;
  override connect(done?: (error: Error | null) => void): Promise<this> | void {
    const connected = super.connect().then(() => this.lookWhoAnswers());
    if (done === undefined) return connected.then(() => this);
    connected.then(() => done(null), done);
  }

  // The types of pg spell out eight ways to call it; this one passes on what it was given.
  override query(...args: unknown[]): never {
    const [text, values, ...rest] = args;
    const name = this.keepsPlans && typeof text === 'string' && Array.isArray(values) && values.length > 0 ? nameFor(text) : undefined;
    const passedOn = name === undefined ? args : [{ name, text, values: values as unknown[] }, ...rest];
    return (super.query as (...passed: unknown[]) => never).apply(this, passedOn);
  }

  private async lookWhoAnswers(): Promise<void> {
    const { connection, processID } = this as unknown as { readonly connection: Wire; readonly processID: number };
    const { rows } = await (super.query('SELECT pg_backend_pid() AS pid') as Promise<pg.QueryResult<{ pid: number }>>);
    this.keepsPlans = rows[0].pid === processID;
    connection.on('errorMessage', ({ code }) => {
      if (lostPlan.has(code)) this.keepsPlans = false;
    });
  }
}
