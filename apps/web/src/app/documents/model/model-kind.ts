import type { OwnModel } from '@zelpit/contract';
import { instrumentProblems, type Instrument } from '@zelpit/core/fingering';
import { count } from '@zelpit/core/words';
import { map, of, type Observable } from 'rxjs';
import type { InstrumentShelf } from '../../studio/shelf/instrument-shelf.service';
import { changedIn, type Comparison, type Piece } from '../../kernel/saving/pieces';
import type { DocumentKind, SaveResult } from '../../kernel/saving/document-kind';

export interface ModelDraft {
  readonly instrument: Instrument;
}

/** A value as text that does not hang on the order of its fields: the database keeps them in an order of its own. */
function text(value: unknown): string {
  return JSON.stringify(value, (_, part: unknown) =>
    part !== null && typeof part === 'object' && !Array.isArray(part)
      ? Object.fromEntries(Object.entries(part).sort(([one], [other]) => one.localeCompare(other)))
      : part,
  );
}

/** How a model of the studio is fetched, saved and compared. What does not hold together stays in this browser. */
export function modelKind(shelf: InstrumentShelf): DocumentKind<ModelDraft, OwnModel> {
  return {
    kind: 'model',
    load: (id) => shelf.fetchModel(id),
    save: (id, { instrument }, version, key): Observable<SaveResult<OwnModel>> => {
      if (instrumentProblems(instrument).length > 0) return of({ kind: 'refused', message: 'The instrument still has mistakes.' });
      return shelf.saveModel(id, version, instrument, { key, triesAgain: false }).pipe(map((stored) => ({ kind: 'saved', stored })));
    },
    draftOf: ({ instrument }) => ({ instrument }),
    versionOf: ({ version }) => version,
    nameOf: ({ instrument }) => instrument.name,
    savedAt: ({ changed }) => changed,
    isSame: (one, other) => text(one.instrument) === text(other.instrument),
  };
}

type Part = 'name' | 'reference' | 'fingers' | 'holes' | 'notes' | 'fingerings' | 'sound' | 'breath' | 'checks';

const partNames: Readonly<Record<Part, string>> = {
  name: 'Name',
  reference: 'Pitch',
  fingers: 'Fingers',
  holes: 'Holes',
  notes: 'Notes and tuning',
  fingerings: 'Fingerings',
  sound: 'Geometry',
  breath: 'Breath',
  checks: 'Setting up',
};
const parts = Object.keys(partNames) as Part[];

/** Two versions of a model, part by part. */
export function compareModels(base: ModelDraft, mine: ModelDraft, theirs: ModelDraft): Comparison<ModelDraft> {
  const pieces = parts.map((key): Piece => ({
    key,
    name: partNames[key],
    mine: partText(mine.instrument, key),
    theirs: partText(theirs.instrument, key),
    changed: changedIn(text(base.instrument[key]), text(mine.instrument[key]), text(theirs.instrument[key])),
  }));
  return {
    pieces,
    join: (choices) => {
      const taken = parts.filter((key) => choices.get(key) === 'theirs').map((key) => [key, theirs.instrument[key]] as const);
      return { instrument: { ...mine.instrument, ...Object.fromEntries(taken) } };
    },
  };
}

function partText(instrument: Instrument, key: Part): string {
  const value = instrument[key];
  if (typeof value === 'string') return value;
  if (Array.isArray(value)) return `${count(value.length, 'entry', 'entries')}: ${text(value).slice(0, 200)}`;
  return text(value ?? 'none').slice(0, 200);
}
