export * from './problem';
export * from './put-away';
export * from './session';
export * from './sheet';
export * from './student';
export * from './tune';
