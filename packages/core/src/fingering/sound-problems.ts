import type { BoreGeometry } from './bore-geometry';
import type { Instrument } from './instrument';

/** What contradicts itself in the geometry of an instrument, or between it and the holes. */
export function soundProblems({ sound, holes }: Instrument): readonly string[] {
  if (sound === undefined) return [];
  const { geometry } = sound;
  const named = geometry.holes.map(({ hole }) => hole);
  const order = holes.map(({ id }) => id);
  const isOther = named.length !== order.length || named.some((hole, index) => hole !== order[index]);
  return [
    ...(isOther ? [`the geometry has the holes ${named.join(' ')}, the instrument ${order.join(' ')}`] : []),
    ...(geometry.excitation === 'vessel' ? [] : boreProblems(geometry)),
  ];
}

function boreProblems({ bore, holes, outerDiameterMillimetres }: BoreGeometry): readonly string[] {
  const start = bore[0].positionMillimetres;
  const end = bore[bore.length - 1].positionMillimetres;
  const folds = bore.flatMap(({ positionMillimetres: at }, index) =>
    index > 0 && at <= bore[index - 1].positionMillimetres
      ? [`the bore folds back: point ${index + 1} lies at ${at} mm, the one before it at ${bore[index - 1].positionMillimetres} mm`]
      : [],
  );
  const outside = holes.filter(({ positionMillimetres: at }) => at <= start || at >= end).map(({ hole }) => `hole ${hole} lies outside the bore`);
  const wide = holes
    .filter(({ diameterMillimetres }) => diameterMillimetres > outerDiameterMillimetres)
    .map(({ hole }) => `hole ${hole} is wider than the tube`);
  const thick = bore.filter(({ diameterMillimetres }) => diameterMillimetres > outerDiameterMillimetres).length > 0 ? ['the bore is wider than the tube'] : [];
  return [...(start === 0 ? [] : ['the bore begins elsewhere than at 0 mm']), ...folds, ...outside, ...wide, ...thick];
}
