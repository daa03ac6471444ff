export { capital, count, listed } from './words';
