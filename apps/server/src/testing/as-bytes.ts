import type request from 'supertest';

/** The same request, whose answer's body is its bytes. */
export const asBytes = (asked: request.Test): request.Test =>
  asked.buffer(true).parse((response, done) => {
    const pieces: Buffer[] = [];
    response.on('data', (piece: Buffer) => pieces.push(piece));
    response.on('end', () => done(null, Buffer.concat(pieces)));
  });
