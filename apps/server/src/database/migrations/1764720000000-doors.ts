import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Tries that are counted over all servers: wrong passwords and askings, by account and by address. After so many free ones each further try must wait, twice
 * as long each time, never longer than its kind may; a kind is forgotten after a while without tries. And a student's tablet that can be signed out alone.
 */
export class Doors1764720000000 implements MigrationInterface {
  readonly name = 'Doors1764720000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE tries (
        key text PRIMARY KEY,
        count int NOT NULL,
        last_at timestamptz NOT NULL,
        waits_until timestamptz NOT NULL
      );
      CREATE INDEX tries_by_time ON tries (last_at);

      CREATE FUNCTION tries_pause(p_count int, p_free int, p_first int, p_longest int) RETURNS interval LANGUAGE sql IMMUTABLE AS
        $$ SELECT make_interval(secs => CASE WHEN p_count < p_free THEN 0 ELSE least(p_longest, p_first * power(2, least(p_count - p_free, 20))) END) $$;

      -- Seconds that must be waited; 0 for a try that is let through and counted.
      CREATE FUNCTION tries_take(p_key text, p_free int, p_first int, p_longest int, p_forget int) RETURNS int
        LANGUAGE plpgsql SECURITY DEFINER SET search_path = public AS $$
        DECLARE moment timestamptz := clock_timestamp();
        BEGIN
          INSERT INTO tries AS t (key, count, last_at, waits_until) VALUES (p_key, 1, moment, moment + tries_pause(1, p_free, p_first, p_longest))
          ON CONFLICT (key) DO UPDATE SET
            count = CASE WHEN t.last_at < moment - make_interval(secs => p_forget) THEN 1 ELSE t.count + 1 END,
            last_at = moment,
            waits_until = moment + tries_pause(CASE WHEN t.last_at < moment - make_interval(secs => p_forget) THEN 1 ELSE t.count + 1 END, p_free, p_first, p_longest)
          -- Of many at once each waits for the row; it is the clock of then that counts.
          WHERE t.waits_until <= clock_timestamp();
          IF FOUND THEN RETURN 0; END IF;
          RETURN (SELECT greatest(1, ceil(extract(epoch FROM waits_until - clock_timestamp())))::int FROM tries WHERE key = p_key);
        END $$;
      CREATE FUNCTION tries_forget(p_key text) RETURNS void LANGUAGE sql SECURITY DEFINER SET search_path = public AS
        $$ DELETE FROM tries WHERE key = p_key $$;
      -- A try that turned out right does not count against the address that it came from.
      CREATE FUNCTION tries_give_back(p_key text) RETURNS void LANGUAGE sql SECURITY DEFINER SET search_path = public AS
        $$ UPDATE tries SET count = greatest(0, count - 1), waits_until = last_at WHERE key = p_key $$;
      -- Where a student of the studio in hand is signed in, and signing one of these places out.
      CREATE FUNCTION tablets_of(p_student uuid) RETURNS TABLE (tablet text, since text) LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public AS
        $$ SELECT sess->>'tablet', sess->>'since' FROM session WHERE sess->>'studentId' = p_student::text AND sess->>'studioId' = current_studio()::text
             AND sess->>'tablet' IS NOT NULL AND expire > now() ORDER BY sess->>'since' DESC $$;
      CREATE FUNCTION tablet_end(p_tablet uuid) RETURNS uuid LANGUAGE sql SECURITY DEFINER SET search_path = public AS
        $$ DELETE FROM session WHERE sess->>'tablet' = p_tablet::text AND sess->>'studioId' = current_studio()::text RETURNING (sess->>'studentId')::uuid $$;
      CREATE INDEX session_by_tablet ON session ((sess->>'tablet'));
      CREATE FUNCTION tries_clear() RETURNS void LANGUAGE sql SECURITY DEFINER SET search_path = public AS
        $$ DELETE FROM tries WHERE last_at < now() - interval '2 days' $$;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(
      'DROP INDEX session_by_tablet; DROP TABLE tries; DROP FUNCTION tablets_of, tablet_end, tries_take, tries_forget, tries_give_back, tries_clear, tries_pause',
    );
  }
}
