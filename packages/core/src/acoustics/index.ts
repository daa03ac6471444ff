export { boreGeometrySchema, geometrySchema, vesselGeometrySchema, type BoreGeometry, type Geometry, type VesselGeometry } from './bore-geometry';
export { BoreModel, type Foot, type Resonance } from './bore-model';
export { chartedTarget, tuningFingerings } from './charted';
export { centsNear, fitGeometry, type FitSettings, type FitStep, type Measured } from './fit-geometry';
export { heardFrom, liesBelow, liesBetween, nearestNote, type Heard } from './heard';
export { patternsNear, type FoundPattern } from './pattern-finder';
export { PatternSound, type NamedPitch, type PatternAnswer } from './pattern-answer';
export { geometryOf, tablePitch, type TablePitch } from './pattern-sound';
export { boreModelFor, soundOf, type Sounding } from './sound-model';
