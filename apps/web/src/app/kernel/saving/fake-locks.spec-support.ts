type Mode = 'shared' | 'exclusive';

/** The browser's locks, as far as they are used: each shared by many or held by one. */
class FakeLocks {
  private readonly holders: { readonly name: string; readonly mode: Mode }[] = [];
  private readonly waiting: (() => void)[] = [];

  async request(name: string, options: LockOptions, run: (lock: object | null) => unknown): Promise<unknown> {
    const { mode = 'exclusive', ifAvailable = false } = options;
    const isFree = (): boolean => {
      const own = this.holders.filter((holder) => holder.name === name);
      return own.length === 0 || (mode === 'shared' && own.every((holder) => holder.mode === 'shared'));
    };
    if (!isFree() && ifAvailable) return run(null);
    while (!isFree()) await new Promise<void>((next) => this.waiting.push(next));
    const holder = { name, mode };
    this.holders.push(holder);
    try {
      return await run({});
    } finally {
      this.holders.splice(this.holders.indexOf(holder), 1);
      for (const next of this.waiting.splice(0)) next();
    }
  }

  query(): Promise<{ readonly held: readonly { readonly name: string }[] }> {
    return Promise.resolve({ held: this.holders });
  }
}

/** Gives the browser of a test locks of its own; gives what takes them away again. */
export function withFakeLocks(): () => void {
  Object.defineProperty(navigator, 'locks', { value: new FakeLocks(), configurable: true });
  return () => Reflect.deleteProperty(navigator, 'locks');
}
