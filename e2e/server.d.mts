export interface RunningServer {
  readonly address: string;
  readonly databaseUrl: string;
  stop(): Promise<void>;
}
export function startServer(): Promise<RunningServer>;
