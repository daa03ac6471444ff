import type { Request } from 'express';
import type { BlobRepository, KeptBlob } from './blob.repository';

interface Sent {
  /** In bytes. */
  readonly most: number;
  /** The same pieces, where they are what is expected. */
  readonly checked?: (coming: AsyncIterable<Uint8Array>) => AsyncIterable<Uint8Array>;
}

/** Keeps the file that a request brings. It is read by then: a write that comes again is known by its sum. Errors: those of `BlobRepository.keep`, and of the check */
export async function keepSent(blobs: BlobRepository, studioId: string, request: Request, { most, checked = (coming) => coming }: Sent): Promise<KeptBlob> {
  const blob = await blobs.keep(studioId, checked(request), most);
  request.body = { sum: blob.sum };
  return blob;
}
