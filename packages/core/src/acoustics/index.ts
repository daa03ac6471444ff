export { heardFrom, liesBelow, liesBetween, type Heard } from './heard';
