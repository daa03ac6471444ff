export { capital, count, listed, numberWord } from './words';
