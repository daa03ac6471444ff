export { hertz, cents, milliseconds, beatsPerMinute, centsBetween, type Hertz, type Cents, type Milliseconds, type BeatsPerMinute } from './units';
