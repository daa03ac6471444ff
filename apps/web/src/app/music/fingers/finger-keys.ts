import type { FingerId } from '@zelpit/core/fingering';

/** Keys that stand for fingers, by their place on the keyboard, so that the layout of letters does not matter. */
const keys: Readonly<Record<string, readonly [code: string, cap: string]>> = {
  T: ['Space', 'Space'],
  RT: ['KeyN', 'N'],
  L1: ['KeyF', 'F'],
  L2: ['KeyD', 'D'],
  L3: ['KeyS', 'S'],
  L4: ['KeyA', 'A'],
  R1: ['KeyJ', 'J'],
  R2: ['KeyK', 'K'],
  R3: ['KeyL', 'L'],
  R4: ['Semicolon', ';'],
};

export const capOf = (finger: FingerId): string => keys[finger]?.[1] ?? '';

export function fingerOfCode(code: string): FingerId | undefined {
  return Object.keys(keys).find((finger) => keys[finger][0] === code);
}
