export { mostLines, proofread, proofText, type Proof, type ProofLine } from './proofread';
export { notesMeant, readNote } from './note-words';
export { proofExamples, type ProofExample } from './proof-examples';
