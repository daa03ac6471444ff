export { decodeTake, type DecodedTake, type HeardStretch } from './decode-take';
export { changeText, judgeTake, type BetweenNotes, type HeardChange, type JudgedTake } from './judge-take';
