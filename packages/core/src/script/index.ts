export { changeSentences, scriptOf, scriptText, type ScriptStep } from './script';
