import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Files whose content lies in a store beside the database, and those that have to be deleted there. */
export class ObjectStoreFiles1766016000000 implements MigrationInterface {
  readonly name = 'ObjectStoreFiles1766016000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE blob ADD COLUMN is_beside boolean NOT NULL DEFAULT false');
    await runner.query(`CREATE TABLE blob_gone (
      -- Names no studio's row: it outlives a studio that is deleted.
      studio_id uuid NOT NULL,
      id uuid NOT NULL,
      -- Deleted from the store from then on, unless a file of this name is there.
      since timestamptz NOT NULL,
      PRIMARY KEY (studio_id, id)
    )`);
    await runner.query('CREATE INDEX blob_gone_since ON blob_gone (since)');
    await runner.query('ALTER TABLE blob_gone ENABLE ROW LEVEL SECURITY');
    await runner.query('CREATE POLICY own_studio ON blob_gone USING (studio_id = current_studio())');
    // However a file goes, with a take, a student or a studio: what lies beside it goes too, once that is certain.
    await runner.query(`CREATE FUNCTION note_blob_gone() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER SET search_path = pg_catalog, public AS $$
      BEGIN
        -- A backup that is being written may still read it.
        INSERT INTO blob_gone (studio_id, id, since) VALUES (OLD.studio_id, OLD.id, now() + interval '5 minutes')
        ON CONFLICT (studio_id, id) DO UPDATE SET since = excluded.since;
        RETURN NULL;
      END $$`);
    await runner.query('CREATE TRIGGER blob_gone AFTER DELETE ON blob FOR EACH ROW WHEN (OLD.is_beside) EXECUTE FUNCTION note_blob_gone()');
    await runner.query(`CREATE FUNCTION studios_with_gone_files() RETURNS SETOF uuid LANGUAGE sql SECURITY DEFINER SET search_path = pg_catalog, public AS
      $$ SELECT DISTINCT studio_id FROM blob_gone WHERE since <= now() $$`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP FUNCTION studios_with_gone_files()');
    await runner.query('DROP TRIGGER blob_gone ON blob');
    await runner.query('DROP FUNCTION note_blob_gone()');
    await runner.query('DROP TABLE blob_gone');
    await runner.query('ALTER TABLE blob DROP COLUMN is_beside');
  }
}
