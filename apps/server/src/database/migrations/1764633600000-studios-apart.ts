import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Tables of a studio's things: their rows are seen only where their studio is named. */
const ofStudios = ['membership', 'student', 'tune', 'sheet', 'sheet_line', 'model', 'instrument', 'fingering', 'trial', 'movement'] as const;
const besideThings = ['one_time_link', 'mail', 'audit_entry', 'kept_answer'] as const;
const [firstYear, lastYear] = [2025, 2036];

/**
 * Studios that cannot touch each other: `studio_id` leads every key of a studio's things, PostgreSQL shows their rows only to a transaction that named the
 * studio, and what stands outside of studios (accounts, sessions, tokens of links, the directory of studios) is reached through functions only. An account
 * is a person; what it may do in a studio is its membership there. Results of trials lie in one partition for each year.
 */
export class StudiosApart1764633600000 implements MigrationInterface {
  readonly name = 'StudiosApart1764633600000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(accounts);
    await runner.query(keys);
    await runner.query(trials());
    await runner.query(indexes);
    await runner.query(rowSecurity());
    await runner.query(functions);
  }

  async down(): Promise<void> {
    throw new Error('Keys that lead with the studio cannot be taken back: put back a backup of before.');
  }
}

const accounts = `
  CREATE TABLE account (
    id uuid PRIMARY KEY,
    name text NOT NULL,
    email text NOT NULL UNIQUE,
    password_hash text NOT NULL,
    created_at timestamptz NOT NULL DEFAULT now()
  );
  INSERT INTO account (id, name, email, password_hash, created_at) SELECT id, name, email, password_hash, created_at FROM teacher;
  CREATE TABLE membership (
    studio_id uuid NOT NULL REFERENCES studio(id) ON DELETE CASCADE,
    account_id uuid NOT NULL REFERENCES account(id) ON DELETE CASCADE,
    role text NOT NULL CHECK (role IN ('owner', 'teacher')),
    created_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (studio_id, account_id)
  );
  INSERT INTO membership (studio_id, account_id, role, created_at) SELECT studio_id, id, role, created_at FROM teacher;
  CREATE INDEX membership_by_account ON membership (account_id);
  -- Whoever is signed in stays so: a session names its studio now.
  UPDATE session SET sess = jsonb_set(sess::jsonb, '{studioId}', to_jsonb(t.studio_id)) FROM teacher t WHERE sess->>'teacherId' = t.id::text;
  UPDATE session SET sess = jsonb_set(sess::jsonb, '{studioId}', to_jsonb(st.studio_id)) FROM student st WHERE sess->>'studentId' = st.id::text;
  ALTER TABLE session ALTER expire TYPE timestamptz USING expire AT TIME ZONE 'UTC';
`;

const keys = `
  ALTER TABLE one_time_link DROP CONSTRAINT one_time_link_teacher_id_fkey, DROP CONSTRAINT one_time_link_student_id_fkey;
  ALTER TABLE audit_entry DROP CONSTRAINT audit_entry_teacher_id_fkey;
  ALTER TABLE instrument DROP CONSTRAINT instrument_teacher_id_fkey, DROP CONSTRAINT instrument_student_id_fkey;
  ALTER TABLE sheet DROP CONSTRAINT sheet_student_id_fkey, DROP CONSTRAINT sheet_tune_id_fkey;
  ALTER TABLE sheet_line DROP CONSTRAINT sheet_line_sheet_id_fkey, DROP CONSTRAINT sheet_line_code_key, DROP CONSTRAINT sheet_line_pkey;
  ALTER TABLE trial DROP CONSTRAINT trial_student_id_fkey;
  DROP TABLE teacher;

  ALTER TABLE sheet_line ADD studio_id uuid;
  UPDATE sheet_line l SET studio_id = s.studio_id FROM sheet s WHERE s.id = l.sheet_id;
  ALTER TABLE sheet_line ALTER studio_id SET NOT NULL;

  ALTER TABLE student DROP CONSTRAINT student_pkey, ADD PRIMARY KEY (studio_id, id);
  ALTER TABLE tune DROP CONSTRAINT tune_pkey, ADD PRIMARY KEY (studio_id, id);
  ALTER TABLE sheet DROP CONSTRAINT sheet_pkey, ADD PRIMARY KEY (studio_id, id);
  ALTER TABLE model DROP CONSTRAINT model_pkey, ADD PRIMARY KEY (studio_id, id);
  ALTER TABLE instrument DROP CONSTRAINT instrument_pkey, ADD PRIMARY KEY (studio_id, id);
  ALTER TABLE fingering DROP CONSTRAINT fingering_pkey, ADD PRIMARY KEY (studio_id, id);
  ALTER TABLE movement DROP CONSTRAINT movement_pkey, ADD PRIMARY KEY (studio_id, id);
  ALTER TABLE one_time_link DROP CONSTRAINT one_time_link_pkey, ADD PRIMARY KEY (studio_id, id);
  ALTER TABLE mail DROP CONSTRAINT mail_pkey, ADD PRIMARY KEY (studio_id, id);
  ALTER TABLE audit_entry DROP CONSTRAINT audit_entry_pkey, ADD PRIMARY KEY (studio_id, id);
  ALTER TABLE kept_answer DROP CONSTRAINT kept_answer_pkey, ADD PRIMARY KEY (studio_id, asked_by, key);
  ALTER TABLE sheet_line ADD PRIMARY KEY (studio_id, id), ADD UNIQUE (studio_id, code), ADD FOREIGN KEY (studio_id) REFERENCES studio(id) ON DELETE CASCADE;

  ALTER TABLE sheet
    ADD FOREIGN KEY (studio_id, student_id) REFERENCES student (studio_id, id) ON DELETE CASCADE,
    ADD FOREIGN KEY (studio_id, tune_id) REFERENCES tune (studio_id, id) ON DELETE SET NULL (tune_id);
  ALTER TABLE sheet_line ADD FOREIGN KEY (studio_id, sheet_id) REFERENCES sheet (studio_id, id) ON DELETE CASCADE;
  ALTER TABLE instrument
    ADD FOREIGN KEY (studio_id, student_id) REFERENCES student (studio_id, id) ON DELETE CASCADE,
    ADD FOREIGN KEY (studio_id, teacher_id) REFERENCES membership (studio_id, account_id) ON DELETE SET NULL (teacher_id);
  ALTER TABLE one_time_link
    ADD FOREIGN KEY (studio_id, student_id) REFERENCES student (studio_id, id) ON DELETE CASCADE,
    ADD FOREIGN KEY (studio_id, teacher_id) REFERENCES membership (studio_id, account_id) ON DELETE CASCADE;
  ALTER TABLE audit_entry ADD FOREIGN KEY (studio_id, teacher_id) REFERENCES membership (studio_id, account_id) ON DELETE SET NULL (teacher_id);
`;

const trials = (): string => `
  ALTER TABLE trial RENAME TO trial_before;
  CREATE TABLE trial (
    studio_id uuid NOT NULL REFERENCES studio(id) ON DELETE CASCADE,
    id uuid NOT NULL,
    student_id uuid,
    model text NOT NULL,
    kind text NOT NULL CHECK (kind IN ('fingers', 'ear', 'fault-hunt')),
    result jsonb NOT NULL,
    created_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (studio_id, id, created_at),
    FOREIGN KEY (studio_id, student_id) REFERENCES student (studio_id, id) ON DELETE CASCADE
  ) PARTITION BY RANGE (created_at);
  ${Array.from({ length: lastYear - firstYear + 1 }, (_, index) => firstYear + index)
    .map((year) => `CREATE TABLE trial_${year} PARTITION OF trial FOR VALUES FROM ('${year}-01-01Z') TO ('${year + 1}-01-01Z');`)
    .join('\n  ')}
  CREATE TABLE trial_other PARTITION OF trial DEFAULT;
  INSERT INTO trial (studio_id, id, student_id, model, kind, result, created_at)
    SELECT studio_id, id, student_id, model, kind, result, created_at FROM trial_before;
  DROP TABLE trial_before;
`;

/** For each list in the order in which it is read, and for what goes with a student, a tune or a model. */
const indexes = `
  DROP INDEX student_by_studio, sheet_by_studio, sheet_line_by_sheet, instrument_by_student, audit_entry_by_studio, audit_entry_by_thing,
    kept_answer_by_time, one_time_link_by_studio;
  CREATE INDEX student_by_alias ON student (studio_id, alias, id);
  CREATE INDEX sheet_by_change ON sheet (studio_id, updated_at DESC, id DESC);
  CREATE INDEX sheet_by_student ON sheet (studio_id, student_id, updated_at DESC, id DESC);
  CREATE INDEX sheet_by_tune ON sheet (studio_id, tune_id);
  CREATE INDEX sheet_line_by_sheet ON sheet_line (studio_id, sheet_id, position);
  CREATE INDEX instrument_by_student ON instrument (studio_id, student_id);
  CREATE INDEX fingering_by_key ON fingering (studio_id, (model || ' ' || note || ' ' || pattern_key), id);
  CREATE INDEX movement_by_name ON movement (studio_id, movement, id);
  CREATE INDEX trial_by_time ON trial (studio_id, created_at DESC, id DESC);
  CREATE INDEX trial_by_student ON trial (studio_id, student_id, created_at DESC, id DESC);
  CREATE INDEX audit_entry_by_time ON audit_entry (studio_id, last_at DESC, id DESC);
  CREATE INDEX audit_entry_by_thing ON audit_entry (studio_id, thing_id, last_at DESC);
  CREATE INDEX kept_answer_by_time ON kept_answer (studio_id, created_at);
  CREATE INDEX one_time_link_by_purpose ON one_time_link (studio_id, purpose);
  CREATE INDEX one_time_link_by_teacher ON one_time_link (teacher_id) WHERE teacher_id IS NOT NULL;
  CREATE INDEX session_by_teacher ON session ((sess->>'teacherId'));
  CREATE INDEX session_by_student ON session ((sess->>'studentId'));
  CREATE INDEX student_away ON student (studio_id, deleted_at) WHERE deleted_at IS NOT NULL;
  CREATE INDEX tune_away ON tune (studio_id, deleted_at) WHERE deleted_at IS NOT NULL;
  CREATE INDEX sheet_away ON sheet (studio_id, deleted_at) WHERE deleted_at IS NOT NULL;
  CREATE INDEX instrument_away ON instrument (studio_id, deleted_at) WHERE deleted_at IS NOT NULL;
  CREATE INDEX model_away ON model (studio_id, deleted_at) WHERE deleted_at IS NOT NULL;
  CREATE INDEX sheet_line_away ON sheet_line (studio_id, removed_at) WHERE removed_at IS NOT NULL;
`;

const rowSecurity = (): string => `
  CREATE FUNCTION current_studio() RETURNS uuid LANGUAGE sql STABLE PARALLEL SAFE AS
    $$ SELECT nullif(current_setting('zelpit.studio', true), '')::uuid $$;
  ALTER TABLE studio ENABLE ROW LEVEL SECURITY;
  CREATE POLICY own_studio ON studio USING (id = current_studio());
  ${[...ofStudios, ...besideThings]
    .map(
      (table) => `ALTER TABLE ${table} ENABLE ROW LEVEL SECURITY;
  CREATE POLICY own_studio ON ${table} USING (studio_id = current_studio());`,
    )
    .join('\n  ')}
`;

/** Each runs with the rights of who owns the tables, and gives only what belongs to the secret or the id that it is given. */
const functions = `
  CREATE FUNCTION account_by_email(p_email text) RETURNS SETOF account LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public AS
    $$ SELECT * FROM account WHERE email = p_email $$;
  CREATE FUNCTION account_by_id(p_account uuid) RETURNS SETOF account LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public AS
    $$ SELECT * FROM account WHERE id = p_account $$;
  CREATE FUNCTION account_add(p_account uuid, p_name text, p_email text, p_hash text) RETURNS void LANGUAGE sql SECURITY DEFINER SET search_path = public AS
    $$ INSERT INTO account (id, name, email, password_hash) VALUES (p_account, p_name, p_email, p_hash) $$;
  CREATE FUNCTION account_set_password(p_account uuid, p_hash text) RETURNS void LANGUAGE sql SECURITY DEFINER SET search_path = public AS
    $$ UPDATE account SET password_hash = p_hash WHERE id = p_account $$;
  CREATE FUNCTION account_drop_if_homeless(p_account uuid) RETURNS void LANGUAGE sql SECURITY DEFINER SET search_path = public AS
    $$ DELETE FROM account WHERE id = p_account AND NOT EXISTS (SELECT 1 FROM membership WHERE account_id = p_account) $$;
  CREATE FUNCTION studios_of(p_account uuid) RETURNS TABLE (id uuid, name text, is_demo boolean, role text)
    LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public AS
    $$ SELECT s.id, s.name, s.is_demo, m.role FROM membership m JOIN studio s ON s.id = m.studio_id WHERE m.account_id = p_account
       ORDER BY m.created_at, s.id $$;
  CREATE FUNCTION member_of(p_studio uuid, p_account uuid) RETURNS TABLE (name text, role text, studio text)
    LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public AS
    $$ SELECT a.name, m.role, s.name FROM membership m JOIN account a ON a.id = m.account_id JOIN studio s ON s.id = m.studio_id
       WHERE m.studio_id = p_studio AND m.account_id = p_account $$;
  CREATE FUNCTION student_of(p_studio uuid, p_student uuid) RETURNS TABLE (name text, studio text)
    LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public AS
    $$ SELECT st.alias, s.name FROM student st JOIN studio s ON s.id = st.studio_id
       WHERE st.studio_id = p_studio AND st.id = p_student AND st.deleted_at IS NULL $$;
  CREATE FUNCTION members() RETURNS TABLE (id uuid, name text, email text, role text) LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public AS
    $$ SELECT a.id, a.name, a.email, m.role FROM membership m JOIN account a ON a.id = m.account_id WHERE m.studio_id = current_studio() $$;

  CREATE FUNCTION has_any_studio() RETURNS boolean LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public AS
    $$ SELECT EXISTS (SELECT 1 FROM studio) $$;
  CREATE FUNCTION has_demo_studio() RETURNS boolean LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public AS
    $$ SELECT EXISTS (SELECT 1 FROM studio WHERE is_demo) $$;
  CREATE FUNCTION studio_add(p_studio uuid, p_name text, p_is_demo boolean) RETURNS void LANGUAGE sql SECURITY DEFINER SET search_path = public AS
    $$ INSERT INTO studio (id, name, is_demo) VALUES (p_studio, p_name, p_is_demo) $$;
  CREATE FUNCTION all_studios() RETURNS SETOF uuid LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public AS
    $$ SELECT id FROM studio $$;
  CREATE FUNCTION drop_demo_studio() RETURNS void LANGUAGE sql SECURITY DEFINER SET search_path = public AS
    $$ DELETE FROM account a WHERE EXISTS (SELECT 1 FROM membership m JOIN studio s ON s.id = m.studio_id WHERE m.account_id = a.id AND s.is_demo)
         AND NOT EXISTS (SELECT 1 FROM membership m JOIN studio s ON s.id = m.studio_id WHERE m.account_id = a.id AND NOT s.is_demo);
       DELETE FROM studio WHERE is_demo $$;

  CREATE FUNCTION link_by_token(p_hash text) RETURNS SETOF one_time_link LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public AS
    $$ SELECT * FROM one_time_link WHERE token_hash = p_hash AND used_at IS NULL AND expires_at > now() $$;
  CREATE FUNCTION link_use(p_hash text) RETURNS SETOF one_time_link LANGUAGE sql SECURITY DEFINER SET search_path = public AS
    $$ UPDATE one_time_link SET used_at = now() WHERE token_hash = p_hash AND used_at IS NULL AND expires_at > now() RETURNING * $$;
  CREATE FUNCTION resets_end(p_account uuid) RETURNS void LANGUAGE sql SECURITY DEFINER SET search_path = public AS
    $$ DELETE FROM one_time_link WHERE teacher_id = p_account AND purpose = 'reset' $$;
  CREATE FUNCTION outbox(p_at timestamptz, p_id uuid, p_limit int) RETURNS SETOF mail LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public AS
    $$ SELECT * FROM mail WHERE p_at IS NULL OR (created_at, id) < (p_at, p_id) ORDER BY created_at DESC, id DESC LIMIT p_limit $$;

  -- A session with who it is of now, if they still belong to its studio.
  CREATE FUNCTION session_get(p_sid text) RETURNS TABLE (sess json, name text, role text, studio text)
    LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public AS
    $$ SELECT e.sess, coalesce(a.name, st.alias), CASE WHEN a.id IS NOT NULL THEN m.role WHEN st.id IS NOT NULL THEN 'student' END, s.name
       FROM session e
       LEFT JOIN membership m ON m.studio_id = (e.sess->>'studioId')::uuid AND m.account_id = (e.sess->>'teacherId')::uuid
       LEFT JOIN account a ON a.id = m.account_id
       LEFT JOIN student st ON st.studio_id = (e.sess->>'studioId')::uuid AND st.id = (e.sess->>'studentId')::uuid AND st.deleted_at IS NULL
       LEFT JOIN studio s ON s.id = (e.sess->>'studioId')::uuid
       WHERE e.sid = p_sid AND e.expire > now() $$;
  CREATE FUNCTION session_put(p_sid text, p_sess json, p_expire timestamptz) RETURNS void LANGUAGE sql SECURITY DEFINER SET search_path = public AS
    $$ INSERT INTO session (sid, sess, expire) VALUES (p_sid, p_sess, p_expire)
       ON CONFLICT (sid) DO UPDATE SET sess = excluded.sess, expire = excluded.expire $$;
  CREATE FUNCTION session_touch(p_sid text, p_expire timestamptz) RETURNS void LANGUAGE sql SECURITY DEFINER SET search_path = public AS
    $$ UPDATE session SET expire = p_expire WHERE sid = p_sid $$;
  CREATE FUNCTION session_end(p_sid text) RETURNS void LANGUAGE sql SECURITY DEFINER SET search_path = public AS
    $$ DELETE FROM session WHERE sid = p_sid $$;
  CREATE FUNCTION sessions_end(p_account uuid, p_studio uuid, p_except text) RETURNS void LANGUAGE sql SECURITY DEFINER SET search_path = public AS
    $$ DELETE FROM session WHERE sess->>'teacherId' = p_account::text AND sid <> p_except AND (p_studio IS NULL OR sess->>'studioId' = p_studio::text) $$;
  CREATE FUNCTION sessions_end_of_student(p_student uuid) RETURNS void LANGUAGE sql SECURITY DEFINER SET search_path = public AS
    $$ DELETE FROM session WHERE sess->>'studentId' = p_student::text AND sess->>'studioId' = current_studio()::text $$;
  CREATE FUNCTION sessions_clear() RETURNS void LANGUAGE sql SECURITY DEFINER SET search_path = public AS
    $$ DELETE FROM session WHERE expire < now() $$;`;
