import type * as S3 from '@aws-sdk/client-s3';
import type * as Uploads from '@aws-sdk/lib-storage';
import { Readable } from 'node:stream';
import { HttpProblem } from '../http/problem';

/** Where files lie beside the database: a store that speaks S3. */
export interface ObjectStoreSettings {
  /** Of the store, as "https://store.example". */
  readonly address: string;
  readonly region: string;
  /** It has to be there already. */
  readonly bucket: string;
  readonly key: string;
  readonly secret: string;
}

/** What a fault of the store is to whoever asked; its cause stays beside it, for the log. */
function filesAway(error: unknown): HttpProblem {
  if (error instanceof HttpProblem) return error;
  const problem = new HttpProblem(
    'files-away',
    'The store that keeps recordings and backups does not answer as it should. Nothing was changed. Try again in a moment.',
  );
  problem.cause = error;
  return problem;
}

/** Most objects that one request deletes. */
const mostAtOnce = 1000;
const [connectMs, answerMs] = [3000, 20_000];

interface Packages {
  readonly s3: typeof S3;
  readonly uploads: typeof Uploads;
}

/** Files in a bucket, each under its studio: `studio/file`. Errors of all of it: `HttpProblem` `files-away`. */
export class ObjectStore {
  private constructor(
    private readonly client: S3.S3Client,
    private readonly bucket: string,
    private readonly packages: Packages,
  ) {}

  /** Brings its packages along: who sets no store waits for none of them. */
  static async open({ address, region, bucket, key, secret }: ObjectStoreSettings): Promise<ObjectStore> {
    const packages = { s3: await import('@aws-sdk/client-s3'), uploads: await import('@aws-sdk/lib-storage') };
    const client = new packages.s3.S3Client({
      endpoint: address,
      region,
      credentials: { accessKeyId: key, secretAccessKey: secret },
      forcePathStyle: true,
      // Stores that are not the first of their kind keep what streams come with them as content.
      requestChecksumCalculation: 'WHEN_REQUIRED',
      responseChecksumValidation: 'WHEN_REQUIRED',
      requestHandler: { connectionTimeout: connectMs, requestTimeout: answerMs },
      maxAttempts: 2,
    });
    return new ObjectStore(client, bucket, packages);
  }

  /** Whether the bucket is there and lets this server in. */
  async check(): Promise<void> {
    await this.asked(this.client.send(new this.packages.s3.HeadBucketCommand({ Bucket: this.bucket })));
  }

  /** Keeps what comes as it comes, in parts of 5 MB; what fails leaves nothing. */
  async keep(name: string, coming: AsyncIterable<Buffer>): Promise<void> {
    // A stream of a fault of our own must not be told as one of the store.
    let own: unknown;
    const body = Readable.from(
      (async function* () {
        try {
          yield* coming;
        } catch (error) {
          own = error;
          throw error;
        }
      })(),
      { objectMode: false },
    );
    try {
      await new this.packages.uploads.Upload({ client: this.client, params: { Bucket: this.bucket, Key: name, Body: body }, queueSize: 1 }).done();
    } catch (error) {
      throw own ?? filesAway(error);
    }
  }

  async *read(name: string): AsyncGenerator<Buffer> {
    const { Body } = await this.asked(this.client.send(new this.packages.s3.GetObjectCommand({ Bucket: this.bucket, Key: name })));
    try {
      for await (const piece of Body as Readable) yield piece as Buffer;
    } catch (error) {
      throw filesAway(error);
    }
  }

  /** What is not there is gone already. */
  async remove(names: readonly string[]): Promise<void> {
    for (let start = 0; start < names.length; start += mostAtOnce) {
      const Objects = names.slice(start, start + mostAtOnce).map((Key) => ({ Key }));
      const { Errors } = await this.asked(
        this.client.send(new this.packages.s3.DeleteObjectsCommand({ Bucket: this.bucket, Delete: { Objects, Quiet: true } })),
      );
      if (Errors !== undefined && Errors.length > 0) throw filesAway(new Error(Errors[0].Message));
    }
  }

  close(): void {
    this.client.destroy();
  }

  private asked<T>(answer: Promise<T>): Promise<T> {
    return answer.catch((error: unknown) => {
      throw filesAway(error);
    });
  }
}
