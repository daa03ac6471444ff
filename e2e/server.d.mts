import type { ChildProcess } from 'node:child_process';

export interface RunningServer {
  readonly address: string;
  readonly databaseUrl: string;
  readonly child: ChildProcess;
  /** Exit code, once it ended. */
  readonly ended: Promise<number | null>;
  stop(): Promise<void>;
}

export interface ServerSettings {
  /** A database that is there already; a fresh one where absent. */
  readonly databaseUrl?: string;
  /** The same as the role that a server works as; that of the test cluster where absent. */
  readonly rowsUrl?: string;
  readonly sessionSecret?: string;
  readonly env?: Record<string, string>;
}

export function freshDatabase(): Promise<string>;
export function startServer(settings?: ServerSettings): Promise<RunningServer>;
/** True where nothing listens on the loopback port. */
export function isFree(port: number): Promise<boolean>;
