export { mostLines, proofread, proofSaid, type Proof, type ProofLine } from './proofread';
export { notesMeant, readNote } from './note-words';
