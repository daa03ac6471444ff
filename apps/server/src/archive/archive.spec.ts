import { tokenHeader, type ArchiveTake, type OwnModel, type Page, type Session, type SheetDetail, type Student, type Take } from '@zelpit/contract';
import { practiceChanter } from '@zelpit/core';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { createHash } from 'node:crypto';
import { loadDemo } from '../demo/load-demo';
import { addStudio, startTestServer, visit, visitorOf, type TestServer, type Visitor } from '../testing/test-server';
import { archiveOf, readWhole, type ArchiveContent } from '../testing/archives';
import { bring, restore, take } from '../testing/archive-visits';
import { consent, newTake, soundOf, wave } from '../takes/take.matrix.spec-support';
import { newAttempt } from '../attempts/attempt.matrix.spec-support';
import { newLesson } from '../lessons/lesson.matrix.spec-support';

let server: TestServer;
let ada: Visitor;
let bea: Visitor;
async function start(): Promise<void> {
  server = await startTestServer();
  for (const name of ['ada', 'bea']) await addStudio(server.dataSource, `${name}@studio.example`);
  ada = await visit(server.app, 'ada@studio.example');
  bea = await visit(server.app, 'bea@studio.example');
}

const abc = 'X:1\nT:Łódź <b>Reel</b> 🎵\nM:4/4\nL:1/4\nK:HP\n{g}A c e a|\n';
const line = { home: 'c', other: 'e', repetitions: 8, tempo: 60, speeds: [60, 72], point: 'השהה' };

/** A studio with something of every kind, put away and not. */
async function fill(visitor: Visitor): Promise<void> {
  const consent = { guardian: 'H. Lunn', on: '2026-03-09', covers: 'Takes' };
  const { id } = (await visitor.post('/api/students', { alias: 'Pim', consent }).expect(201)).body as Student;
  const gone = (await visitor.post('/api/students', { alias: 'Gone' }).expect(201)).body as Student;
  const tunes = await visitor.agent.post('/api/tunes/import').set(tokenHeader, visitor.token).set('content-type', 'text/plain').send(abc).expect(201);
  const [{ id: tuneId }] = (tunes.body as { saved: { id: string }[] }).saved;
  const otherWay = { ...line, other: 'high-g', fingering: [{ note: 'high-g', pattern: [1, 0, 0, 0, 1, 1, 1, 0] }] };
  const sheet = { studentId: id, tuneId, instrument: 'practice-chanter', title: 'Week', note: 'Slowly', lines: [line, { ...line, other: 'd' }, otherWay] };
  await visitor.post('/api/sheets', sheet).expect(201);
  const model = { instrument: { ...practiceChanter, name: 'Tarn chanter' } };
  const made = (await visitor.post('/api/models', model).expect(201)).body as OwnModel;
  await visitor.post('/api/sheets', { ...sheet, studentId: gone.id, tuneId: null, instrument: made.id, title: 'Theirs', lines: [] }).expect(201);
  const fingering = { model: made.id, note: 'e', pattern: [1, 1, 1, 0, 1, 1, 0, 0], isFirst: false, isHidden: false, remark: 'soft', forNow: null };
  await visitor.post('/api/fingerings', fingering).expect(201);
  const held = { model: made.id, hands: 'right-on-top', tuning: { kind: 'ratios', ratios: { 'high-g': '16/9' } }, schools: { 'd-throw': 'heavy' } };
  for (const [studentId, name] of [
    [id, 'Pim’s chanter'],
    [null, 'Mine'],
    [gone.id, 'Gone’s chanter'],
  ] as const)
    await visitor.post('/api/instruments', { ...held, studentId, name, referenceHertz: 238, knownNotes: ['low-a', 'e'], note: '' }).expect(201);
  const ear = { kind: 'ear', from: 'c', to: 'e', thresholdMs: 21.4, lowMs: 18, highMs: 25, right: 31, asked: 40 };
  await visitor.post('/api/trials', { studentId: id, model: 'practice-chanter', result: ear }).expect(201);
  await visitor.post('/api/trials', { studentId: null, model: made.id, result: ear }).expect(201);
  for (const title of ['B to E', 'Bar 1']) {
    const { body: attempt } = await visitor.post('/api/attempts', newAttempt({ student: id, title })).expect(201);
    await visitor.post(`/api/attempts/${(attempt as { id: string }).id}/correction`, { rating: 'not-yet', note: 'D was late' }).expect(200);
  }
  const { body: weekly } = await visitor.post('/api/lessons', newLesson({ student: id })).expect(201);
  await visitor.post(`/api/lessons/${(weekly as { id: string }).id}/begin`, { on: '2026-12-08' }).expect(200);
  const own = { id: 'stair', names: ['stair'], parts: [{ part: 'opener' }, { part: 'grace', written: 'd' }], after: [], simpler: [] };
  await visitor.post('/api/movements', { movement: 'stair', definition: own }).expect(201);
  await visitor.post('/api/movements', { movement: 'grip', definition: null }).expect(201);
  const choices = { settings: { fromLowest: 'full' }, syllables: { c: { note: 'co', grace: '' } } };
  const { body: now } = await visitor.get('/api/movement-choices').expect(200);
  await visitor.put('/api/movement-choices', { ...choices, version: (now as { version: number }).version }).expect(200);
  await visitor.put(`/api/tunes/${tuneId}/pins`, { pins: [{ note: 'high-g', pattern: [1, 0, 0, 0, 1, 1, 1, 0] }], version: 1 }).expect(200);
  const arranged = { student: gone.id, arrangement: { semitones: 5, layers: { '0': 'bare' } }, version: 0 };
  await visitor.put(`/api/tunes/${tuneId}/arrangement`, arranged).expect(200);
  await visitor.remove(`/api/students/${gone.id}`).expect(204);
}

const contentOf = async (visitor: Visitor): Promise<ArchiveContent> => readWhole(await take(visitor));

/** The tables of a studio as text, to see that nothing was changed. */
const everything = async (): Promise<string> =>
  JSON.stringify(
    await Promise.all(
      ['student', 'tune', 'sheet', 'sheet_line', 'instrument', 'model', 'fingering'].map((table) =>
        server.dataSource.query(`SELECT * FROM ${table} ORDER BY id`),
      ),
    ),
  );

/** Changes parts of an archive and mends its checksums, as somebody would who means it. */
function forged(archive: Uint8Array, change: (parts: Record<string, unknown>) => void, mends = true): Uint8Array {
  const files = unzipSync(archive);
  const parts = Object.fromEntries(Object.entries(files).map(([name, bytes]) => [name, JSON.parse(strFromU8(bytes)) as unknown]));
  const before = new Map(Object.entries(parts).map(([name, content]) => [name, JSON.stringify(content)]));
  change(parts);
  /** What was left alone stays as it was written. */
  const bytesOf = (name: string): Uint8Array => (JSON.stringify(parts[name]) === before.get(name) ? files[name] : strToU8(JSON.stringify(parts[name])));
  const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');
  const manifest = parts['manifest.json'] as { files: Record<string, string>; checksum?: string } | undefined;
  if (mends && manifest !== undefined) {
    for (const name of Object.keys(manifest.files)) manifest.files[name] = sha256(bytesOf(name));
    const { checksum: _, ...head } = manifest;
    manifest.checksum = sha256(strToU8(JSON.stringify(head)));
  }
  return zipSync(Object.fromEntries(Object.keys(parts).map((name) => [name, bytesOf(name)])));
}

const foldedBore = {
  atHertz: 237.5,
  geometry: {
    excitation: 'reed',
    bore: [0, 380, 200].map((positionMillimetres) => ({ positionMillimetres, diameterMillimetres: 7 })),
    holes: practiceChanter.holes.map(({ id }, index) => ({
      ...{ hole: id, positionMillimetres: 100 + index, diameterMillimetres: 4, chimneyMillimetres: 4, halfRadiusFactor: 0.6 },
    })),
    outerDiameterMillimetres: 18,
    reedVolumeCubicMillimetres: 900,
  },
};

describe('the archive of a studio', () => {
  beforeEach(start);
  afterEach(() => server.close());

  it('comes back equal in another studio, its codes too: each studio has its own', async () => {
    await fill(ada);
    const before = await contentOf(ada);
    expect(await bring(bea, await take(ada))).toEqual({
      counts: { student: 2, tune: 1, sheet: 2, instrument: 3, model: 1, fingering: 1, trial: 2, movement: 2, arrangement: 1, attempt: 2, lesson: 2, take: 0 },
      newCodes: 0,
      putAway: 0,
    });
    const after = await contentOf(bea);
    const withoutIds = (content: ArchiveContent): unknown =>
      JSON.parse(JSON.stringify({ ...content, 'studio.json': null }), (key, value: unknown) => (key === 'id' ? '' : value));
    expect(withoutIds(after)).toEqual(withoutIds(before));
  });

  it('comes back equal with its codes where they are free', async () => {
    await fill(ada);
    const archive = await take(ada);
    const before = await readWhole(archive);
    await server.dataSource.query(
      'DELETE FROM sheet; DELETE FROM tune; DELETE FROM instrument; DELETE FROM model; DELETE FROM fingering; DELETE FROM trial; DELETE FROM student;',
    );
    expect(await bring(ada, archive)).toMatchObject({ newCodes: 0 });
    const withoutIds = (content: ArchiveContent): unknown => JSON.parse(JSON.stringify(content), (key, value: unknown) => (key === 'id' ? '' : value));
    expect(withoutIds(await contentOf(ada))).toEqual(withoutIds(before));
  });

  it('of the demo studio is read whole', async () => {
    await loadDemo(server.dataSource);
    const demo = await visit(server.app);
    const signedIn = await demo.post('/api/session', { email: 'maren@orrin-stair.example', password: 'clean and slow' }).expect(200);
    expect(signedIn.body).toMatchObject({ signedIn: { role: 'owner' } });
    const content = await contentOf(visitorOf(demo.agent, (signedIn.body as Session).token));
    expect(content['tunes.json']).toHaveLength(25);
  });

  it('puts away what is there where that is asked for, and refuses where nothing is said', async () => {
    await fill(ada);
    await fill(bea);
    const archive = await take(ada);
    const before = await everything();
    expect(await restore(bea, archive)).toMatchObject({ state: 'failed', problem: expect.stringContaining('Choose to put them away first') });
    expect(await everything()).toBe(before);
    expect(await bring(bea, archive, 'put-away')).toMatchObject({ putAway: 8 });
    const { items } = (await bea.get('/api/sheets')).body as Page<SheetDetail>;
    expect(items.map(({ title }) => title).sort()).toEqual(['Theirs', 'Week']);
    // What was put away keeps its codes for as long as it can come back.
    expect(await bring(ada, archive, 'put-away')).toMatchObject({ newCodes: 3 });
  });
});

describe('an archive', () => {
  let archive: Buffer;
  beforeAll(async () => {
    await start();
    await fill(ada);
    archive = await take(ada);
  });
  afterAll(() => server.close());

  it('that is truncated is refused, wherever it was cut, and nothing is changed', async () => {
    const before = await everything();
    for (const length of [0, 1, 30, Math.floor(archive.length / 2), archive.length - 30, archive.length - 1]) {
      expect((await restore(bea, archive.subarray(0, length))).problem).toContain('Nothing was changed.');
    }
    expect(await everything()).toBe(before);
  });

  it('in which one sign was changed anywhere is refused or says the same', async () => {
    const whole = await readWhole(archive);
    for (let at = 0; at < archive.length; at += 31) {
      const changed = Buffer.from(archive);
      changed[at] ^= 0x21;
      const read = await readWhole(changed).catch((error: unknown) => error);
      if (!(read instanceof Error)) expect(read).toEqual(whole);
    }
  }, 60_000);

  const edits: readonly [string, (parts: Record<string, unknown>) => void, boolean, string][] = [
    ['edited by hand', (parts) => Object.assign(parts, { 'studio.json': { name: 'Other' } }), false, 'its checksum does not match'],
    ['written by a newer Zelpit', (parts) => Object.assign(parts['manifest.json'] as object, { version: 9 }), true, 'This backup was made by a newer Zelpit'],
    [
      'with a movement that the chanter cannot play',
      (parts) =>
        ((parts['movements.json'] as { kept: { definition: { arrivals?: string[] } | null }[] }).kept.find(
          ({ definition }) => definition !== null,
        )!.definition!.arrivals = ['h']),
      true,
      'A movement in this backup is not valid',
    ],
    ['of another format', (parts) => Object.assign(parts['manifest.json'] as object, { format: 'photo album' }), true, 'not a Zelpit backup'],
    ['without a part', (parts) => delete parts['tunes.json'], false, '“tunes.json” is missing'],
    ['without a manifest', (parts) => delete parts['manifest.json'], false, 'it has no manifest'],
    ['with an unknown field', (parts) => Object.assign(parts['studio.json'] as object, { colour: 'red' }), true, 'something that Zelpit does not know'],
    [
      'with a sheet of nobody',
      (parts) => Object.assign((parts['sheets.json'] as object[])[0], { student: 's99' }),
      true,
      'a student who is not in this backup',
    ],
    [
      'with an instrument of no model',
      (parts) => Object.assign((parts['instruments.json'] as object[])[0], { model: 'm9' }),
      true,
      'a model that is not in this backup and not known here',
    ],
    [
      'with a bore that folds back',
      (parts) => Object.assign((parts['models.json'] as { instrument: object }[])[0].instrument, { sound: foldedBore }),
      true,
      'the bore folds back',
    ],
    ['with a tune twice', (parts) => (parts['tunes.json'] as object[]).push({ ...(parts['tunes.json'] as object[])[0] }), true, 'the same identifier'],
    ['with a tune that cannot be read', (parts) => Object.assign((parts['tunes.json'] as object[])[0], { abc: 'no tune' }), true, ''],
    [
      'with a line that cannot be played',
      (parts) => Object.assign((parts['sheets.json'] as { lines: object[] }[])[0].lines[0], { other: 'c' }),
      true,
      'cannot be played',
    ],
  ];
  it.each(edits)('%s is refused with a sentence, and nothing is changed', async (_, change, mends, text) => {
    const before = await everything();
    const { problem } = await restore(bea, forged(archive, change, mends));
    expect(problem).toContain(text);
    expect(problem).toContain('Nothing was changed.');
    expect(await everything()).toBe(before);
  });

  it('that unpacks to more than a studio can be is refused before it is unpacked', async () => {
    const bomb = Buffer.from(zipSync({ 'manifest.json': new Uint8Array(1000) }));
    // The size that the central directory gives for what is packed.
    bomb.writeUInt32LE(4_100_000_000, bomb.indexOf(Buffer.from([0x50, 0x4b, 0x01, 0x02])) + 24);
    expect((await restore(bea, bomb)).problem).toContain('This backup is too large');
  });
});

describe('takes', () => {
  beforeEach(start);
  afterEach(() => server.close());

  const students = async (visitor: Visitor): Promise<readonly string[]> => {
    const made: string[] = [];
    for (const alias of ['Pim', 'Wren']) made.push(((await visitor.post('/api/students', { alias }).expect(201)).body as Student).id);
    await consent(visitor, made[0], true);
    return made;
  };
  const kept = async (visitor: Visitor, student: string | null, more: object = {}): Promise<Take> => {
    const sound = await soundOf(visitor, student ?? undefined);
    return (await visitor.post('/api/takes', { ...newTake(student, sound), ...more }).expect(201)).body as Take;
  };
  type TakenOut = ArchiveContent & { readonly 'takes.json': ArchiveTake[] };

  it('stay on the server unless they are chosen', async () => {
    const [pim] = await students(ada);
    await kept(ada, pim);
    expect((await contentOf(ada))['takes.json']).toEqual([]);
    const { status } = await ada.post('/api/jobs/backup?takes=yes');
    expect(status).toBe(400);
  });

  it('come back with their sound and their remarks, but for those that nobody agrees to any more', async () => {
    const [pim, wren] = await students(ada);
    const saved = await ada.agent.post('/api/tunes/import').set(tokenHeader, ada.token).set('content-type', 'text/plain').send(abc).expect(201);
    const [{ id: tuneId }] = (saved.body as { saved: { id: string }[] }).saved;
    const one = await kept(ada, pim, { asked: { kind: 'tune', tuneId, what: 'all', click: 60 } });
    await ada.put(`/api/takes/${one.id}`, { remarks: [{ at: 400, text: 'Here.' }], keepDays: 0, version: 1 }).expect(200);
    await kept(ada, pim, { asked: { kind: 'line', code: 'A7BC' } });
    const own = await kept(ada, null);
    await ada.put(`/api/takes/${own.id}`, { remarks: [], isShown: true, version: 1 }).expect(200);
    await consent(ada, wren, true, 'Wren');
    await kept(ada, wren, { title: 'Not theirs to take' });
    await consent(ada, wren, false, 'Wren');
    const archive = await take(ada, '?takes=true');
    const { 'takes.json': written } = (await readWhole(archive)) as TakenOut;
    expect(written).toHaveLength(3);
    expect(written.every(({ sound }) => wave().equals(Buffer.from(sound, 'base64')))).toBe(true);
    expect((await bring(bea, archive)).counts['take']).toBe(3);
    const { items } = (await bea.get('/api/takes').expect(200)).body as Page<Take>;
    expect(items.map(({ title }) => title)).not.toContain('Not theirs to take');
    const [tune] = ((await bea.get('/api/tunes').expect(200)).body as Page<{ id: string }>).items;
    const back = items.find(({ asked }) => asked.kind === 'tune');
    expect(back).toMatchObject({ asked: { tuneId: tune.id, what: 'all', click: 60 }, remarks: [{ at: 400, text: 'Here.' }], keptUntil: null });
    expect(items.filter(({ isShown, studentId }) => isShown && studentId === null)).toHaveLength(1);
    const { headers } = await bea.get(`/api/takes/${back?.id}/sound`).expect(200);
    expect(headers['content-type']).toBe('audio/wav');
    // Written again it is the same.
    expect(((await readWhole(await take(bea, '?takes=true'))) as TakenOut)['takes.json'].map(({ sound }) => sound.length)).toEqual(
      written.map(({ sound }) => sound.length),
    );
  });

  it.each([
    ['of a student who is not in it', { student: 's9' }, 'belongs to a student who is not in it'],
    ['of a tune that is not in it', { asked: { kind: 'tune', tune: 't9', what: 'all' } }, 'is of a tune that is not in it'],
    ['of a student, shown to others', { isShown: true }, 'is shown to others'],
    ['that is no sound', { sound: Buffer.from('no sound at all').toString('base64') }, 'The sound of a take in this backup cannot be read'],
    ['that is no text of a sound', { sound: '%%%' }, ''],
    ['of a note that there is not', { asked: { kind: 'changes', from: 'b', to: 'z' } }, ''],
  ])('%s are refused with a sentence, and nothing is changed', async (_, edit, text) => {
    const [pim] = await students(ada);
    await kept(ada, pim);
    const broken = forged(await take(ada, '?takes=true'), (parts) => Object.assign((parts['takes.json'] as object[])[0], edit));
    const { problem } = await restore(bea, broken);
    expect(problem).toContain(text);
    expect(problem).toContain('Nothing was changed.');
    expect(((await bea.get('/api/students').expect(200)).body as Page<Student>).items).toEqual([]);
  });
});

const first = { 'studio.json': { name: 'Fell Row' }, 'students.json': [], 'tunes.json': [], 'sheets.json': [] };

describe('an archive of an earlier version', () => {
  it.each([1, 2, 3, 4])('%d is still read, without what came later', async (version) => {
    const second = { ...first, 'instruments.json': [], 'models.json': [], 'fingerings.json': [] };
    const fourth = { ...second, 'trials.json': [], 'movements.json': { choices: null, kept: [] } };
    const old = [first, second, { ...second, 'trials.json': [] }, fourth][version - 1];
    const sha256 = (content: unknown): string => createHash('sha256').update(JSON.stringify(content)).digest('hex');
    const files = Object.fromEntries(Object.entries(old).map(([name, content]) => [name, sha256(content)]));
    const head = { format: 'zelpit-studio', version, written: '2026-03-09T14:02:00.000Z', files };
    const parts = { 'manifest.json': { ...head, checksum: sha256(head) }, ...old };
    const archive = zipSync(Object.fromEntries(Object.entries(parts).map(([name, content]) => [name, strToU8(JSON.stringify(content))])));
    expect(await readWhole(archive)).toEqual(old);
  });
});

describe('writeArchive', () => {
  it('gives back what it was given', async () => {
    const movements = { choices: null, kept: [{ movement: 'grip', definition: null, by: 'Bea', on: '2026-03-09' }] };
    const read = await readWhole(await archiveOf('Fell Row', { 'movements.json': movements }));
    expect(read).toMatchObject({ 'studio.json': { name: 'Fell Row' }, 'students.json': [], 'movements.json': movements });
  });
});
