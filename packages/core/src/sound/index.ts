export { faultPatterns, worstFault, type FaultKind } from './fault-steps';
export { playNotes, type PlayedNote, type PlaySettings } from './play-tune';
export { levelCap, renderTimeline, type RenderSettings } from './render';
export type { Click, StepRole, Timeline, TimelineStep } from './timeline';
export { droneHertz } from './drone';
export { studentTimeline } from './play-student';
export { waveFile } from './wave-file';
export { heldTone } from './held-tone';
export { changeTimeline, type ChangePlay } from './play-change';
