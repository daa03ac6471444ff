declare module 's3rver' {
  /** What our tests use of it. */
  export default class S3rver {
    constructor(options: {
      readonly address: string;
      readonly port: number;
      readonly silent: boolean;
      readonly directory: string;
      readonly configureBuckets: readonly { readonly name: string; readonly configs: readonly string[] }[];
    });
    run(): Promise<{ readonly port: number }>;
    close(): Promise<void>;
  }
}
