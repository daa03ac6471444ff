export * from './problem';
export * from './session';
export * from './sheet';
export * from './student';
export * from './tune';
