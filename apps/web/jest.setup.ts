import '@angular/localize/init';
import { setupZonelessTestEnv } from 'jest-preset-angular/setup-env/zoneless';

setupZonelessTestEnv();

// jsdom lacks it and the stand-in for IndexedDB needs it; blobs go through as they are.
const clone = (value: unknown): unknown => {
  if (typeof value !== 'object' || value === null || value instanceof Blob) return value;
  if (Array.isArray(value)) return value.map(clone);
  return Object.fromEntries(Object.entries(value).map(([key, each]) => [key, clone(each)]));
};
globalThis.structuredClone ??= clone as typeof structuredClone;
