import type { ImportResult, RefusedTune } from '@zelpit/contract';
import type { AuditEvent } from '../audit/audit.repository';
import type { KeptTune, TuneReading } from './kept-tune';
import type { TuneRepository } from './tune.repository';

/** Writes what could be read of a book, and says what could not. Belongs into a transaction. */
export async function writeReadings(tunes: TuneRepository, studioId: string, readings: readonly TuneReading[]): Promise<ImportResult> {
  const good: KeptTune[] = [];
  const refused: RefusedTune[] = [];
  for (const reading of readings) {
    if (reading.kind === 'read') good.push(reading.tune);
    else refused.push({ ...reading.entry, faults: [...reading.entry.faults] });
  }
  const summaries = await tunes.addAll(studioId, good);
  return { saved: summaries.map((summary, index) => ({ ...summary, look: [...good[index].facts.findings] })), refused };
}

/** For the list of changes; undefined where nothing came in. */
export function auditOfTunes({ saved }: ImportResult): AuditEvent | undefined {
  if (saved.length === 0) return undefined;
  return { did: 'brought in', kind: 'tunes', name: saved.length === 1 ? saved[0].title : `${saved.length} tunes` };
}
