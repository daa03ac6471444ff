export { mostLines, proofread, proofSaid, type Proof, type ProofLine } from './proofread';
