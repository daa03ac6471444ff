export * from './account';
export * from './archive';
export * from './arrangement';
export * from './archive-sign';
export * from './attempt';
export * from './audit';
export * from './fingering';
export * from './instrument';
export * from './job';
export * from './lesson';
export * from './model';
export * from './model-id';
export * from './movement';
export * from './page';
export * from './problem';
export * from './put-away';
export * from './review';
export * from './review-routes';
export * from './route';
export * from './session';
export * from './sheet';
export {
  hasMusic,
  musicKinds,
  sheetLimits,
  sheetLineInputSchema,
  type MusicItemInput,
  type MusicKind,
  type SheetLineInput,
  type WordsItemInput,
} from './sheet-item';
export * from './spoken-word';
export * from './student';
export * from './take';
export * from './text';
export * from './trial';
export * from './tune';
export * from './watch';
