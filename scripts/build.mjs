import { ensureBuilt } from './lib/build.mjs';
import { endWith } from './lib/run.mjs';

ensureBuilt({ always: true }).catch(endWith);
