import type { MigrationInterface, QueryRunner } from 'typeorm';

/** In which octave music for an instrument is written: as its chart has it, or an octave lower. */
export class WrittenOctave1764892800000 implements MigrationInterface {
  readonly name = 'WrittenOctave1764892800000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE instrument ADD COLUMN written text NOT NULL DEFAULT 'as-charted'`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE instrument DROP COLUMN written');
  }
}
