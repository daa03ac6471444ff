import { codeSigns } from '@zelpit/contract';
import type { DataSource } from 'typeorm';

/** How many a studio has of each. */
export interface StudioSize {
  readonly students: number;
  readonly tunes: number;
  readonly sheets: number;
  readonly trials: number;
  readonly takes?: number;
}

export const largeStudio: StudioSize = { students: 10_000, tunes: 5_000, sheets: 20_000, trials: 20_000, takes: 5_000 };

/** Fills an empty studio by the database itself: its codes are counted up. */
export async function fillStudio(
  dataSource: Pick<DataSource, 'query'>,
  studioId: string,
  { students, tunes, sheets, trials, takes = 0 }: StudioSize = largeStudio,
): Promise<void> {
  const ear = JSON.stringify({ kind: 'ear', from: 'c', to: 'e', thresholdMs: 21.4, lowMs: 18, highMs: 25, right: 31, asked: 40 });
  // Four signs, one after the other, as a number of this many digits.
  const code = [1, 2, 3, 4].map((place) => `substr('${codeSigns}', ((n / ${codeSigns.length ** (place - 1)}) % ${codeSigns.length})::int + 1, 1)`).join(' || ');
  await dataSource.query(`
    INSERT INTO student (studio_id, id, alias, deleted_at)
      SELECT '${studioId}', gen_random_uuid(), 'Student ' || lpad(n::text, 5, '0'), CASE WHEN n % 50 = 0 THEN now() END FROM generate_series(1, ${students}) n;
    INSERT INTO tune (studio_id, id, title, rhythm, meter, music_key, bars, outside, instrument, abc)
      SELECT '${studioId}', gen_random_uuid(), 'Tune ' || lpad(n::text, 5, '0'), 'reel', '4/4', 'HP', 8, 0, 'practice-chanter', E'X:1\\nT:Tune ' || lpad(n::text, 5, '0') || E'\\nM:4/4\\nL:1/4\\nK:HP\\nA c e a|\\n' FROM generate_series(1, ${tunes}) n;
    INSERT INTO sheet (studio_id, id, student_id, instrument, title, note, version, updated_at)
      SELECT '${studioId}', gen_random_uuid(), s.id, 'practice-chanter', 'Sheet ' || n, '', 1, now() - n * interval '1 minute'
      FROM generate_series(1, ${sheets}) n JOIN (SELECT id, row_number() OVER () AS place FROM student WHERE studio_id = '${studioId}') s ON s.place = n % ${students} + 1;
    INSERT INTO sheet_line (studio_id, id, sheet_id, position, code, home, other, repetitions, point)
      SELECT '${studioId}', gen_random_uuid(), id, p, ${code}, 'c', 'e', 8, '' FROM
        (SELECT s.id, p, row_number() OVER () AS n FROM sheet s, generate_series(0, 1) p WHERE s.studio_id = '${studioId}') each;
    INSERT INTO instrument (studio_id, id, student_id, name, model, hands, tuning, schools, known_notes, note, version)
      SELECT '${studioId}', gen_random_uuid(), id, 'Of ' || alias, 'practice-chanter', 'left-on-top', '{"kind":"chart"}', '{}', '[]', '', 1 FROM student WHERE studio_id = '${studioId}';
    INSERT INTO trial (studio_id, id, student_id, model, kind, result, created_at)
      SELECT '${studioId}', gen_random_uuid(), s.id, 'practice-chanter', 'ear', '${ear}', now() - n * interval '1 hour'
      FROM generate_series(1, ${trials}) n JOIN (SELECT id, row_number() OVER () AS place FROM student WHERE studio_id = '${studioId}') s ON s.place = n % ${students} + 1;
    INSERT INTO attempt (studio_id, id, student_id, title, kind, model, tempo, count, rating, seconds, device, note, by, at)
      SELECT '${studioId}', gen_random_uuid(), s.id, 'Line ' || n % 40, 'line', 'practice-chanter', 48 + n % 60, 8, 'clean', 60, 'tablet', '', 'student', now() - n * interval '10 minutes'
      FROM generate_series(1, ${trials}) n JOIN (SELECT id, row_number() OVER () AS place FROM student WHERE studio_id = '${studioId}') s ON s.place = n % ${students} + 1;
    WITH sound AS (INSERT INTO blob (studio_id, id, bytes) SELECT '${studioId}', gen_random_uuid(), 0 FROM generate_series(1, ${takes}) RETURNING id)
    INSERT INTO take (studio_id, id, student_id, blob_id, title, asked, model, seconds, places, faulty, text, by, at)
      SELECT '${studioId}', gen_random_uuid(), s.id, sound.id, 'C to E', '{"kind":"changes","from":"c","to":"e"}', 'practice-chanter', 20, 8, 1, '', 'student', now() - n * interval '10 minutes'
      FROM (SELECT id, row_number() OVER () AS n FROM sound) sound JOIN (SELECT id, row_number() OVER () AS place FROM student WHERE studio_id = '${studioId}') s ON s.place = n % ${students} + 1;
    INSERT INTO audit_entry (studio_id, id, who, did, kind, thing_id, thing, last_at)
      SELECT '${studioId}', gen_random_uuid(), 'Ada', 'changed', 'sheet', id, title, updated_at FROM sheet WHERE studio_id = '${studioId}';`);
  await dataSource.query('ANALYZE');
}
