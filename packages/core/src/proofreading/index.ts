export { proofreadMovement, type MovementProof } from './proof-movement';
export { proofScript } from './proof-script';
