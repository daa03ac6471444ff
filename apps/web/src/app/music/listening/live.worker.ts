/// <reference lib="webworker" />
import { LiveEar, type HeardChange } from '@zelpit/core/listening';
import type { LiveAnswer, LiveRequest } from './live-messages';

/** Faster than this, every second sample is enough. */
const fastest = 30_000;
/** The last change is looked for at every third piece: about seven times a second. */
const piecesToLook = 3;

let ear: LiveEar | undefined;
let begun: Extract<LiveRequest, { kind: 'begin' }> | undefined;
let pieces = 0;
let change: HeardChange | undefined;

addEventListener('message', ({ data }: MessageEvent<LiveRequest>) => {
  if (data.kind === 'begin') {
    const isHalved = data.sampleRate > fastest;
    ear = new LiveEar(data.instrument, isHalved ? data.sampleRate / 2 : data.sampleRate);
    [begun, pieces, change] = [data, 0, undefined];
    return;
  }
  if (ear === undefined || begun === undefined) return;
  ear.hear(begun.sampleRate > fastest ? halved(data.samples) : data.samples);
  pieces += 1;
  if (begun.pair !== undefined && pieces % piecesToLook === 0) change = ear.lastChange(begun.pair) ?? change;
  const answer: LiveAnswer = { pitch: ear.pitch(), change };
  postMessage(answer);
});

/** Two samples as one. */
const halved = (samples: Float32Array): Float32Array =>
  Float32Array.from({ length: Math.floor(samples.length / 2) }, (_, index) => (samples[2 * index] + samples[2 * index + 1]) / 2);
