import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What stands on a sheet is of one kind or another: a line, a piece of a tune, words alone. */
export class SheetItems1765065600000 implements MigrationInterface {
  readonly name = 'SheetItems1765065600000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE sheet_line ADD COLUMN kind text NOT NULL DEFAULT 'line', ADD COLUMN excerpt jsonb, ADD COLUMN words text`);
    await runner.query('ALTER TABLE sheet_line ALTER COLUMN home DROP NOT NULL, ALTER COLUMN other DROP NOT NULL');
    await runner.query(`ALTER TABLE sheet_line ADD CONSTRAINT sheet_line_has_what_its_kind_needs CHECK (
      CASE kind WHEN 'words' THEN words IS NOT NULL AND home IS NULL AND other IS NULL ELSE words IS NULL AND home IS NOT NULL AND other IS NOT NULL END)`);
  }

  /** What older versions do not know goes. */
  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DELETE FROM sheet_line WHERE kind IN ('chunk', 'part', 'tune', 'words')`);
    await runner.query('ALTER TABLE sheet_line DROP CONSTRAINT sheet_line_has_what_its_kind_needs, DROP COLUMN kind, DROP COLUMN excerpt, DROP COLUMN words');
    await runner.query('ALTER TABLE sheet_line ALTER COLUMN home SET NOT NULL, ALTER COLUMN other SET NOT NULL');
  }
}
