import type { DataSource } from 'typeorm';

/** How much a large studio has of each. */
export const largeStudio = { students: 10_000, tunes: 5_000, sheets: 20_000, trials: 20_000 } as const;

/** Fills a studio by the database itself, beside a second one of the same size whose rows nobody here may meet. */
export async function fillLargeStudio(dataSource: DataSource, studioId: string): Promise<void> {
  const { students, tunes, sheets, trials } = largeStudio;
  const sql = (studio: string): string => `
    INSERT INTO student (studio_id, id, alias, deleted_at)
      SELECT '${studio}', gen_random_uuid(), 'Student ' || lpad(n::text, 5, '0'), CASE WHEN n % 50 = 0 THEN now() END FROM generate_series(1, ${students}) n;
    INSERT INTO tune (studio_id, id, title, rhythm, meter, music_key, bars, outside, instrument, abc)
      SELECT '${studio}', gen_random_uuid(), 'Tune ' || lpad(n::text, 5, '0'), 'reel', '4/4', 'HP', 8, 0, 'practice-chanter', 'X:1' FROM generate_series(1, ${tunes}) n;
    INSERT INTO sheet (studio_id, id, student_id, instrument, title, note, version, updated_at)
      SELECT '${studio}', gen_random_uuid(), s.id, 'practice-chanter', 'Sheet ' || n, '', 1, now() - n * interval '1 minute'
      FROM generate_series(1, ${sheets}) n JOIN (SELECT id, row_number() OVER () AS place FROM student WHERE studio_id = '${studio}') s ON s.place = n % ${students} + 1;
    INSERT INTO sheet_line (studio_id, id, sheet_id, position, code, home, other, repetitions, point)
      SELECT '${studio}', gen_random_uuid(), s.id, p, upper(substr(md5(s.id::text || p), 1, 12)), 'c', 'e', 8, '' FROM sheet s, generate_series(0, 1) p WHERE s.studio_id = '${studio}';
    INSERT INTO instrument (studio_id, id, student_id, name, model, hands, tuning, schools, known_notes, note, version)
      SELECT '${studio}', gen_random_uuid(), id, 'Of ' || alias, 'practice-chanter', 'left-on-top', '{"kind":"chart"}', '{}', '[]', '', 1 FROM student WHERE studio_id = '${studio}';
    INSERT INTO trial (studio_id, id, student_id, model, kind, result, created_at)
      SELECT '${studio}', gen_random_uuid(), s.id, 'practice-chanter', 'ear', '{}', now() - n * interval '1 hour'
      FROM generate_series(1, ${trials}) n JOIN (SELECT id, row_number() OVER () AS place FROM student WHERE studio_id = '${studio}') s ON s.place = n % ${students} + 1;
    INSERT INTO audit_entry (studio_id, id, who, did, kind, thing_id, thing, last_at)
      SELECT '${studio}', gen_random_uuid(), 'Ada', 'changed', 'sheet', id, title, updated_at FROM sheet WHERE studio_id = '${studio}';`;
  const [{ id: other }] = await dataSource.query<{ id: string }[]>("INSERT INTO studio (id, name) VALUES (gen_random_uuid(), 'As large') RETURNING id");
  for (const studio of [studioId, other]) await dataSource.query(sql(studio));
  await dataSource.query('ANALYZE');
}
