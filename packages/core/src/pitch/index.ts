export { hertz, cents, milliseconds, centsBetween, centsOfRatio, type Hertz, type Cents, type Milliseconds } from './units';
