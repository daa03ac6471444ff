import type { Finger, Instrument } from '../fingering';

/** One finger's line on the wood. */
export interface Lane {
  readonly finger: Finger;
  /** Height of the wood, downwards from the top of the lanes. */
  readonly y: number;
}

export interface LaneLayout {
  readonly lanes: readonly Lane[];
  /** Distance from one wood to the next within a hand. */
  readonly pitch: number;
  /** Thickness of a ribbon: half the pitch. */
  readonly thickness: number;
  readonly height: number;
}

const gapShare = 0.36;

/** Lanes from the face down, with a gap after the thumb and between the hands. */
export function laneLayout(instrument: Instrument, pitch: number): LaneLayout {
  const thickness = pitch / 2;
  let y = thickness * 2;
  const lanes = instrument.fingers.map((finger, index): Lane => {
    const above = instrument.fingers[index - 1];
    if (above !== undefined) y += pitch * (above.thumb || above.hand !== finger.hand ? 1 + gapShare : 1);
    return { finger, y };
  });
  return { lanes, pitch, thickness, height: y + 2 };
}
