import {
  chartedFingering,
  instrumentById,
  playNotes,
  practiceChanter,
  readTune,
  renderTimeline,
  simulatedTimeline,
  waveFile,
  type PlayedNote,
} from '@zelpit/core';
import { writeMidi } from 'midi-file';
import type { Page } from '@playwright/test';
import { recording } from './as-player';
import { choose, expect, openTune, signIn, test } from './as-teacher';

test('a recording is listened to: what was clean, what cut in for how long, with its sound; it goes into the logbook', async ({ page }) => {
  await signIn(page, '/changes/take');
  await choose(page, 'Student', 'Pim');
  await choose(page, 'From', 'C');
  await choose(page, 'To', 'E');
  const heard = page.getByRole('status', { name: 'What was heard' });
  const open = (name: string, buffer: Buffer) =>
    page.getByLabel('Open a recording').or(page.getByLabel('Open another')).setInputFiles({ name, mimeType: 'audio/wav', buffer });
  await open('clean.wav', recording(0));
  await expect(heard).toHaveText('Eight of eight clean.');
  await expect(page.getByText(/^Blowing: C within \d+ cents?, E within \d+ cents?\.$/)).toBeVisible();
  await open('crossed.wav', recording(22));
  await expect(heard).toHaveText(/^\s*None of eight clean\.\s+Change \d: low G sounds for (1[89]|2\d) ms before [CE]\.\s*$/);
  const changes = page.getByRole('region', { name: 'Worst first' }).getByRole('listitem');
  await expect(changes).toHaveCount(8);
  await page.keyboard.press(' ');
  await page.keyboard.press('ArrowDown');
  await expect(changes.nth(1).getByRole('button', { name: /^Change/ })).toHaveAttribute('aria-pressed', 'true');
  // A person hears it otherwise: one of them was clean.
  await page.keyboard.press('1');
  await expect(heard).toHaveText(/^\s*One of eight clean\./);
  await page.keyboard.press('3');
  await expect(heard).toHaveText(/^\s*None of eight clean\./);
  for (const key of ['s', 'c']) {
    await page.keyboard.press(key);
    await expect(page.getByRole('button', { name: /^Stop/ })).toBeVisible();
  }
  await page.getByRole('button', { name: 'Into the logbook' }).click();
  await expect(page.getByText('The take stands in the logbook of Pim.')).toBeVisible();
  const kept = await page.evaluate(
    async () => ((await (await fetch('/api/attempts?limit=1')).json()) as { items: { title: string; rating: string; note: string; by: string }[] }).items[0],
  );
  expect(kept).toMatchObject({ title: 'C to E', rating: 'not-yet', by: 'teacher' });
  expect(kept.note).toMatch(/^A take: None of eight/);
  await page.keyboard.press('n');
  await expect(page.getByText(/^It is on Pim’s sheet “/)).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: /^Onto Pim’s sheet/ })).toBeEnabled();
  await page.getByRole('button', { name: 'Delete this take' }).click();
  await expect(heard).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(heard).toHaveText(/^\s*None of eight clean\./);
  await open('quiet.wav', Buffer.from(waveFile(new Float32Array(44_100), 44_100)));
  await expect(page.getByRole('alert')).toHaveText('Only the room was heard. Come nearer to the microphone, or turn it up.');
  await open('no sound.wav', Buffer.from('this is no sound'));
  await expect(page.getByRole('alert')).toHaveText(
    '“no sound.wav” could not be read as sound. WAV, FLAC, Ogg and MP3 are read, and MIDI or finger events (JSON, CSV).',
  );
  await open('empty.wav', Buffer.alloc(0));
  await expect(page.getByRole('alert')).toContainText('“empty.wav” could not be read as sound');
});

/**
 * Some bars of a tune as they are written, once through.
 * @param changed what is played otherwise than it is written, by the place of the note; null for a note that is left out
 */
function pieceRecording(abc: string, bars: number | readonly number[], changed: Readonly<Record<number, Partial<PlayedNote> | null>>): Buffer {
  const { notes, bars: all, playedBars, meter } = readTune(practiceChanter, abc);
  const played = (typeof bars === 'number' ? playedBars.slice(0, bars) : bars).flatMap((bar) => notes.slice(all[bar].first, all[bar].end));
  const sounding = played.flatMap(({ written, graceNotes, duration, index, isTiedFromPrevious: isTied }, place): PlayedNote[] => {
    const note = written.kind === 'note' ? written.note : null;
    const other = changed[place];
    return other === null ? [] : [{ note, graceNotes, beats: duration / meter.beat, index, isTied, ...other }];
  });
  const settings = { tempo: 60, beatsInBar: meter.beats, countInBeats: 0, isClickOn: false, firstBeat: 0, graceNoteMs: 42 };
  return Buffer.from(waveFile(renderTimeline(practiceChanter, playNotes(practiceChanter, sounding, settings), { sampleRate: 44_100 }), 44_100));
}

test('a take of a tune is judged note by note and grace note by grace note, wherever it begins', async ({ page }) => {
  await signIn(page);
  await openTune(page, 'Evening over Skellow Tarn');
  await choose(page, 'Student', 'Pim');
  const { abc } = await page.evaluate(async (id) => (await (await fetch(`/api/tunes/${id}`)).json()) as { abc: string }, page.url().split('/').at(-1));
  await page.keyboard.press('i');
  await expect(page).toHaveURL(/\/take$/);
  await expect(page.getByText('Record Evening over Skellow Tarn, or open a recording.')).toBeVisible();
  // Said before the first try, checked after it.
  const foretold = page.getByText(/^Bars \d+ and \d+ will break first\.$/);
  await expect(foretold).toBeVisible();
  const watched = Number(/\d+/.exec(await foretold.innerText())?.[0]);
  const heard = page.getByRole('status', { name: 'What was heard' });
  const open = (name: string, buffer: Buffer) =>
    page.getByLabel('Open a recording').or(page.getByLabel('Open another')).setInputFiles({ name, mimeType: 'audio/wav', buffer });
  await open('clean.wav', pieceRecording(abc, 4, {}));
  await expect(heard).toHaveText('Four of four bars clean.');
  // In bar 2 a grace note, in bar 3 a note is left out.
  await open('faulty.wav', pieceRecording(abc, 4, { 6: { graceNotes: [] }, 12: null }));
  await expect(heard).toHaveText(/^\s*Two of four bars clean\.\s+Bar 3: C was not heard\.\s*$/);
  const places = page.getByRole('region', { name: 'Worst first' }).getByRole('listitem');
  await expect(places).toHaveCount(2);
  await expect(places.nth(1)).toContainText('no high G grace note before F');
  await expect(page.getByText(/^\s*About 60 beats a minute; nine of ten notes within \d+ ms of the pulse\./)).toBeVisible();
  // A person hears it otherwise.
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('1');
  await expect(heard).toHaveText(/^\s*Three of four bars clean\./);
  for (const key of [' ', 's', 'c']) {
    await page.keyboard.press(key);
    await expect(page.getByRole('button', { name: /^Stop/ })).toBeVisible();
  }
  await page.keyboard.press('n');
  await expect(page.getByText(/^It is on Pim’s sheet “/)).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: /^Onto Pim’s sheet/ })).toBeEnabled();
  await page.getByRole('button', { name: 'Into the logbook' }).click();
  await expect(page.getByText('The take stands in the logbook of Pim.')).toBeVisible();
  // From the first of the bars that were to break on: it did not, and that is told from now on.
  await open('from there.wav', pieceRecording(abc, [watched - 1, watched], {}));
  await expect(heard).toHaveText(/Two of two bars clean\.\s*$/);
  await page.getByRole('button', { name: 'Into the logbook' }).click();
  await expect(page.getByText(/^Foretold bars that broke at the first try so far: 0 of 1; other bars: 0 of \d+\.$/)).toBeVisible();
  await open('a scale.wav', recording(0));
  await expect(heard).not.toHaveText(/Three of four/);
  await page.getByRole('button', { name: 'Delete this take' }).click();
  await expect(heard).toHaveCount(0);
  await page.goto('/tunes/7d1f2a6e-4b8f-4c53-9d2e-0a3b7f5d9e10/take');
  await expect(page.getByRole('alert')).toBeVisible();
});

test('a take of what stands on a sheet is judged bar by bar, by its code, on the student’s own tablet too', async ({ page, browser }) => {
  await signIn(page);
  const { code, home, other } = await page.evaluate(async () => {
    const read = async (path: string): Promise<unknown> => (await fetch(`/api/${path}`)).json();
    const { items: students } = (await read('students?find=Pim')) as { items: { id: string }[] };
    const { items: sheets } = (await read(`sheets?student=${students[0].id}`)) as { items: { id: string; instrument: string }[] };
    for (const { id, instrument } of sheets) {
      const { lines, review, sentAt } = (await read(`sheets/${id}`)) as {
        review: object | null;
        sentAt: string | null;
        lines: { kind: string; code: string; home: string; other: string; exercise: unknown; excerpt?: unknown }[];
      };
      // A review that another test began and did not send is no student's yet.
      if (review !== null && sentAt === null) continue;
      const found = lines.find((line) => line.kind === 'line' && line.exercise == null && line.excerpt == null);
      if (found !== undefined && instrument === 'practice-chanter') return found;
    }
    throw new Error('Pim has no line of a change.');
  });
  const line = (left: number, tempo = 100): Buffer => {
    const notes = Array.from({ length: 16 }, (_, index): PlayedNote => ({
      ...{ note: index % 2 === 0 ? home : other, graceNotes: [], beats: 1, index, isTied: false },
    })).filter((_, index) => index !== left);
    const settings = { tempo, beatsInBar: 4, countInBeats: 0, isClickOn: false, firstBeat: 0, graceNoteMs: 40 };
    return Buffer.from(waveFile(renderTimeline(practiceChanter, playNotes(practiceChanter, notes, settings), { sampleRate: 44_100 }), 44_100));
  };
  const open = async (on: Page): Promise<void> => {
    await on.goto(`/c/${code}`);
    await on.getByRole('link', { name: 'Listen to a take' }).click();
    await expect(on).toHaveURL(new RegExp(`/c/${code}/take$`));
    await on.getByLabel('Open a recording').setInputFiles({ name: 'line.wav', mimeType: 'audio/wav', buffer: line(-1) });
    await expect(on.getByRole('status', { name: 'What was heard' })).toHaveText('Four of four bars clean.');
  };
  await open(page);
  await page.getByRole('button', { name: 'Into the logbook' }).click();
  await expect(page.getByText('The take stands in the logbook of Pim.')).toBeVisible();
  const kept = await page.evaluate(async () => ((await (await fetch('/api/attempts?limit=1')).json()) as { items: { itemId: string | null }[] }).items[0]);
  expect(kept.itemId).not.toBeNull();
  // To a click early and late are faults, too.
  const heard = page.getByRole('status', { name: 'What was heard' });
  const played = (tempo: number) => page.getByLabel('Open another').setInputFiles({ name: 'line.wav', mimeType: 'audio/wav', buffer: line(-1, tempo) });
  await page.keyboard.press('t');
  const click = page.getByRole('group', { name: 'Click' });
  await click.getByRole('button', { name: 'Faster' }).click();
  const tempo = Number(await click.locator('.figure').innerText());
  await played(tempo);
  await expect(page.getByText(new RegExp(`^\\s*To a click at ${tempo}; nine of ten notes within \\d+ ms of it\\.`))).toBeVisible();
  await expect(heard).toHaveText('Four of four bars clean.');
  await played(tempo * 0.8);
  await expect(heard).toHaveText(/ comes \d+ ms (early|late)\.\s*$/);
  await page.goto('/c/ZZZZ/take');
  await expect(page.getByRole('alert')).toBeVisible();
  await page.goto('/students');
  await page.getByRole('button', { name: 'Links for Pim' }).click();
  const tablet = await (await browser.newContext({ viewport: { width: 768, height: 1024 } })).newPage();
  await tablet.goto(await page.locator('.link-address').innerText());
  await tablet.getByRole('button', { name: 'Open the sheets' }).click();
  await expect(tablet).toHaveURL(/\/mine$/);
  await open(tablet);
  await expect(tablet.getByRole('button', { name: /^Onto Pim/ })).toHaveCount(0);
});

test('a take is kept for a while, has remarks, is compared with the one before, and is deleted with its sound', async ({ page, browser }) => {
  await signIn(page, '/changes/take?from=c&to=e');
  await choose(page, 'Student', 'Pim');
  const heard = page.getByRole('status', { name: 'What was heard' });
  const file = (ms: number) => ({ name: `${ms}.wav`, mimeType: 'audio/wav', buffer: recording(ms) });
  await page.getByLabel('Open a recording').setInputFiles(file(22));
  await expect(heard).toHaveText(/^\s*None of eight clean\./);
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('The take is kept for 90 days, on this studio’s server only.')).toBeVisible();
  await page.getByLabel(/^\s*Say something of Change \d/).fill('Listen to the low G here.');
  await page.getByRole('button', { name: 'Add it' }).click();
  await expect(page.getByText('Listen to the low G here.')).toBeVisible();
  await page.getByLabel('Open another').setInputFiles(file(0));
  await expect(heard).toHaveText('Eight of eight clean.');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await page.getByRole('link', { name: 'Kept takes' }).click();
  const group = page.getByRole('region', { name: 'C to E' });
  await expect(group.getByRole('listitem')).toHaveCount(2);
  await expect(group.getByText('0 of 8 clean at first, 8 of 8 in the last.')).toBeVisible();
  await group
    .getByRole('button', { name: /^How long the take/ })
    .first()
    .click();
  await page.getByRole('menuitem', { name: 'until it is deleted' }).click();
  await expect(group.getByText('kept until it is deleted')).toBeVisible();
  // It is opened with its sound and its remarks, and listened to again.
  await group.getByRole('link', { name: /None of eight clean/ }).click();
  await expect(heard).toHaveText(/^\s*None of eight clean\./);
  await expect(page.getByText('Listen to the low G here.')).toBeVisible();
  await page.getByRole('button', { name: /^Remove the remark/ }).click();
  await expect(page.getByText('None yet.')).toBeVisible();
  await page.goto('/takes');
  await page
    .getByRole('button', { name: /^Delete the take of/ })
    .first()
    .click();
  await page
    .getByRole('button', { name: /^Delete the take of/ })
    .first()
    .click();
  await expect(page.getByText('The take was deleted for good, with its sound.')).toBeVisible();
  // The student sees and hears the other one.
  await page.goto('/students');
  await page.getByRole('button', { name: 'Links for Pim' }).click();
  const tablet = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await tablet.goto(await page.locator('.link-address').innerText());
  await tablet.getByRole('button', { name: 'Open the sheets' }).click();
  await tablet.getByRole('link', { name: 'My takes' }).click();
  await tablet.getByRole('link', { name: /None of eight clean/ }).click();
  await expect(tablet.getByRole('status', { name: 'What was heard' })).toHaveText(/^\s*None of eight clean\./);
  await page.goto('/takes');
  await page.getByRole('button', { name: 'Delete all of Pim’s' }).click();
  await page.getByRole('button', { name: 'Delete it for good' }).click();
  await expect(page.getByText('No take is kept yet.')).toBeVisible();
  await tablet.reload();
  await expect(tablet.getByRole('alert')).toHaveText('This studio has no such take. It may have been put away.');
});

test('what a teacher recorded and shows is heard beside a student’s take of the same, on the student’s own tablet too', async ({ page, browser }) => {
  const pipes = instrumentById('pipe-chanter');
  const wav = (buffer: Buffer) => ({ name: 'take.wav', mimeType: 'audio/wav', buffer });
  await signIn(page, '/changes/take?from=c&to=e');
  await choose(page, 'Student', 'Tarn');
  await choose(page, 'Instrument', 'Pipe chanter for the hall');
  const heard = page.getByRole('status', { name: 'What was heard' });
  await page.getByLabel('Open a recording').setInputFiles(wav(recording(0, pipes, 478)));
  await expect(heard).toHaveText('Eight of eight clean.');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('Nobody but teachers hears it.', { exact: false })).toBeVisible();
  await page.getByRole('button', { name: 'Show it to students' }).click();
  await expect(page.getByText('Students hear it beside theirs.', { exact: false }).first()).toBeVisible();
  await expect(page.getByRole('button', { name: /^Hear it beside the teacher’s/ })).toHaveCount(0);
  const beside = async (on: Page): Promise<void> => {
    await on.getByLabel('Open a recording').setInputFiles(wav(recording(22, pipes)));
    await expect(on.getByRole('status', { name: 'What was heard' })).toHaveText(/^\s*None of eight clean\./);
    await on.getByRole('button', { name: /^Hear it beside the teacher’s/ }).click();
    await expect(on.getByRole('button', { name: /^Stop/ })).toBeVisible();
  };
  await page.goto('/changes/take?from=e&to=c');
  await choose(page, 'Instrument', 'Tarn’s pipe chanter');
  await beside(page);
  await page.goto('/students');
  await page.getByRole('button', { name: 'Links for Tarn' }).click();
  const tablet = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await tablet.goto(await page.locator('.link-address').innerText());
  await tablet.getByRole('button', { name: 'Open the sheets' }).click();
  await expect(tablet).toHaveURL(/\/mine$/);
  await tablet.goto('/changes/take?from=c&to=e');
  await beside(tablet);
  // A teacher's own stands below the student's, and is deleted like any other.
  await page.goto('/takes');
  const own = page.getByRole('region', { name: 'C to E, by a teacher' });
  await expect(own.getByText('students hear it beside theirs')).toBeVisible();
  await own.getByRole('button', { name: /^Delete the take of/ }).click();
  await own.getByRole('button', { name: /^Delete the take of/ }).click();
  await expect(own).toHaveCount(0);
});

test('how the fingers keep together is told from sound alone, and used where somebody says so', async ({ page }) => {
  const notes = Array.from({ length: 41 }, (_, index) => ({ note: index % 2 === 0 ? 'c' : 'e', graceNotes: [], beats: 1, isTied: false }));
  // The ring finger of the left hand comes late.
  const player = { seed: 11, timing: { sigma: 9, rho: 0.5, lead: 0, biasOf: { L3: 20 } }, tempo: 90, drift: 0, unevenness: 8, forgotten: 0 };
  const sound = renderTimeline(practiceChanter, simulatedTimeline(practiceChanter, notes, player), { sampleRate: 44_100 });
  await signIn(page, '/changes/take');
  await choose(page, 'Student', 'Pim');
  await choose(page, 'From', 'C');
  await choose(page, 'To', 'E');
  await page.getByLabel('Open a recording').setInputFiles({ name: 'late.wav', mimeType: 'audio/wav', buffer: Buffer.from(waveFile(sound, 44_100)) });
  await expect(page.getByText(/by their sound: the fingers vary by about \d+ ms\. Left ring( finger)? comes \d+ ms late, give or take \d/)).toBeVisible();
  await page.getByRole('button', { name: 'Use it for Pim' }).click();
  await expect(page.getByText('Saved. Changes, lines and tunes now use this timing for Pim.')).toBeVisible();
  const [kept] = await page.evaluate(
    async () =>
      (
        (await (await fetch('/api/trials?kind=fingers&taken=true&limit=1')).json()) as {
          items: { id: string; result: { timing: { biasOf: Record<string, number> } } }[];
        }
      ).items,
  );
  expect(kept.result.timing.biasOf['L3']).toBeGreaterThan(5);
  // Its own places are a test for the ear: named only once they were judged.
  await page.getByRole('button', { name: 'Test your ear on it' }).click();
  await expect(page.getByText('1 of 12: clean, or not?')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Worst first' })).toHaveCount(0);
  await page.keyboard.press('3');
  await expect(
    page.getByRole('list', { name: 'What you said' }).getByRole('button', { name: /^(Right|Wrong) Change \d+, .* you said not clean$/ }),
  ).toHaveCount(1);
  for (let place = 2; place <= 12; place += 1) {
    await expect(page.getByText(`${place} of 12: clean, or not?`)).toBeVisible();
    await page.keyboard.press('3');
  }
  await expect(page.getByText('Six of twelve right. Six clean places were called faulty.')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('region', { name: 'Worst first' })).toBeVisible();
  // What a computed learner does is nobody's timing.
  await page.getByRole('button', { name: 'Delete this take' }).click();
  await page.keyboard.press('a');
  await expect(page.getByText('Nobody played this: a computer did, as a learner might.', { exact: false })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Use it for/ })).toHaveCount(0);
  // Other tests know Pim as a learner.
  const { token } = (await (await page.request.get('/api/session')).json()) as { token: string };
  await page.request.delete(`/api/trials/${kept.id}`, { headers: { 'x-zelpit-token': token } });
});

/** Fingers that go from C to E and back, eight changes, as CSV; those that lift come so many ms late. */
function fingers(late: number): Buffer {
  let now: readonly number[] = practiceChanter.holes.map(() => 1);
  const events = Array.from({ length: 9 }, (_, index) => index).flatMap((index) => {
    const { pattern } = chartedFingering(practiceChanter, index % 2 === 0 ? 'c' : 'e');
    const before = now;
    now = pattern;
    return pattern.flatMap((coverage, hole) =>
      coverage === before[hole] ? [] : [[500 + index * 600 + (coverage === 0 && index > 0 ? late : 0), hole + 1, coverage] as const],
    );
  });
  return Buffer.from(['ms,hole,covers', ...events.map((event) => event.join(',')), '5900,breath,0'].join('\n'));
}

/** The same as keys. */
const keyOf = (index: number): number => practiceChanter.notes.find(({ id }) => id === (index % 2 === 0 ? 'c' : 'e'))?.writtenSemitone ?? 0;

test('what fingers did and what keys played is judged without a sound, from a file or from a MIDI instrument', async ({ page }) => {
  await page.addInitScript(() => {
    const input = { name: 'Stand-in chanter', state: 'connected', onmidimessage: null as ((message: object) => void) | null };
    const access = { inputs: new Map([['one', input]]), onstatechange: null as (() => void) | null };
    const standIn = { input, access, refuses: false };
    Object.assign(window, { standIn });
    const ask = () => (standIn.refuses ? Promise.reject(new Error('no')) : Promise.resolve(access));
    Object.defineProperty(navigator, 'requestMIDIAccess', { configurable: true, value: ask });
  });
  await signIn(page, '/changes/take?from=c&to=e');
  await choose(page, 'Student', 'Pim');
  const heard = page.getByRole('status', { name: 'What was heard' });
  const open = (name: string, mimeType: string, buffer: Buffer) =>
    page.getByLabel('Open a recording').or(page.getByLabel('Open another')).setInputFiles({ name, mimeType, buffer });
  // One that nobody played: heard like any other, and logged nowhere.
  await page.keyboard.press('a');
  await expect(heard).toHaveText(/^\s*\S+ of 15 clean\./);
  await expect(page.getByText('Nobody played this: a computer did, as a learner might. It goes into no logbook.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Into the logbook' })).toBeDisabled();
  await open('fingers.csv', 'text/csv', fingers(0));
  await expect(heard).toHaveText('Eight of eight clean.');
  await expect(page.getByText('No sound: how it was blown and tuned cannot be said. What you hear is computed.')).toBeVisible();
  await open('fingers.csv', 'text/csv', fingers(22));
  await expect(heard).toHaveText(/^\s*None of eight clean\.\s+Change \d: low G sounds for 22 ms before [CE]\.\s*$/);
  await page.keyboard.press(' ');
  await expect(page.getByRole('button', { name: /^Stop/ })).toBeVisible();
  // Every finger was seen: the player's own timing can be used from now on.
  await expect(page.getByText(/From 8 changes: your fingers vary by \d+ ms; lifts come 2\d ms after landings\./)).toBeVisible();
  await page.getByRole('button', { name: 'Use it for Pim' }).click();
  await expect(page.getByText('Saved. Changes, lines and tunes now use this timing for Pim.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'In use' })).toBeDisabled();
  const notes = Array.from({ length: 9 }, (_, index) => [
    { deltaTime: 0, type: 'noteOn' as const, channel: 0, noteNumber: keyOf(index) + 12, velocity: 80 },
    { deltaTime: 480, type: 'noteOff' as const, channel: 0, noteNumber: keyOf(index) + 12, velocity: 0 },
  ]).flat();
  const track = [...notes, { deltaTime: 0, type: 'endOfTrack' as const, meta: true as const }];
  const midi = Buffer.from(writeMidi({ header: { format: 0, numTracks: 1, ticksPerBeat: 480 }, tracks: [track] }));
  await open('keys.mid', 'audio/midi', midi);
  await expect(heard).toHaveText('Eight of eight clean.');
  for (const [name, content, message] of [
    ['wrong.csv', 'ms,hole,covers\n12,thumb,1', 'Line 2, “12,thumb,1”, cannot be read: it needs a time in ms, a hole (or “breath”), and 1 or 0.'],
    ['other.csv', '0,12,1', 'Hole 12 was named; this instrument has 8.'],
    ['cut.json', '{"format":"zelpit-fingers"', 'This file begins as JSON but cannot be read as such; perhaps it is cut off.'],
  ] as const) {
    await open(name, 'text/plain', Buffer.from(content));
    await expect(page.getByRole('alert')).toHaveText(message);
  }
  await open('cut.mid', 'audio/midi', midi.subarray(0, 60));
  await expect(page.getByRole('alert')).toHaveText(/^This MIDI file is cut off/);
  // An instrument that is plugged in; here its stand-in.
  await page.keyboard.press('m');
  await expect(page.getByText(/^\s*Stand-in chanter\s*: play\s*$/)).toBeVisible();
  await page.evaluate(
    (keys) => {
      const { input } = (window as unknown as { standIn: { input: { onmidimessage: (message: object) => void } } }).standIn;
      const now = performance.now() - 10_000;
      keys.forEach((key, index) => {
        input.onmidimessage({ data: new Uint8Array([0x90, key, 80]), timeStamp: now + index * 600 });
        input.onmidimessage({ data: new Uint8Array([0x80, key, 0]), timeStamp: now + index * 600 + 600 });
      });
    },
    Array.from({ length: 9 }, (_, index) => keyOf(index)),
  );
  await expect(page.getByText(/^\s*Stand-in chanter\s*: 9 notes or fingers\s*$/)).toBeVisible();
  await page.keyboard.press('r');
  await expect(heard).toHaveText('Eight of eight clean.');
  await page.getByRole('button', { name: 'Delete this take' }).click();
  await page.keyboard.press('m');
  await page.keyboard.press('r');
  await expect(page.getByRole('alert')).toHaveText('Nothing was played.');
  await page.evaluate(() => (window as unknown as { standIn: { access: { inputs: Map<string, object> } } }).standIn.access.inputs.clear());
  await page.keyboard.press('m');
  await expect(page.getByRole('alert')).toHaveText('No MIDI instrument was found. Plug one in, then try again.');
  await page.evaluate(() => Object.assign((window as unknown as { standIn: object }).standIn, { refuses: true }));
  await page.keyboard.press('m');
  await expect(page.getByRole('alert')).toHaveText(/^The browser may not use MIDI instruments\. Allow it/);
});

/** A rehearsal with a long pause: C and E by turns, and after nine minutes once more with a crossing noise. */
function friday(): Buffer {
  const rate = 22_050;
  const samples = new Float32Array(630 * rate);
  const settings = { tempo: 120, beatsInBar: 4, countInBeats: 0, isClickOn: false, firstBeat: 0, graceNoteMs: 40 };
  const notes = Array.from({ length: 48 }, (_, index) => ({ note: index % 2 === 0 ? 'c' : 'e', graceNotes: [], beats: 1, index, isTied: false }));
  const played = (more: object): Float32Array =>
    renderTimeline(practiceChanter, playNotes(practiceChanter, notes, { ...settings, ...more }), { sampleRate: rate });
  samples.set(played({}), rate);
  samples.set(played({ fault: { kind: 'worst', ms: 30 } }), 560 * rate);
  return Buffer.from(waveFile(samples, rate));
}

test('a file of more than ten minutes is listened to in parts, or whole by the server, which says where it was worst', async ({ page }) => {
  await signIn(page, '/changes/take');
  await choose(page, 'Student', 'Pim');
  await choose(page, 'From', 'C');
  await choose(page, 'To', 'E');
  await page.locator('#take-file').setInputFiles({ name: 'Friday.wav', mimeType: 'audio/wav', buffer: friday() });
  const long = page.getByRole('region', { name: 'A long file' });
  await expect(long).toContainText('Friday.wav is 10:30 long.');
  await long.getByLabel('10 minutes, from minute').fill('99');
  await long.getByRole('button', { name: 'Listen to these' }).click();
  await expect(long.getByRole('alert')).toHaveText('Say a minute from 0 to 10.');
  await long.getByRole('button', { name: 'Let the server listen to all of it' }).click();
  const heard = page.getByRole('region', { name: 'What was heard in Friday.wav' });
  await expect(heard).toContainText(/10:30: \d+ of \d+ as asked\./, { timeout: 60_000 });
  const worst = heard.getByRole('list', { name: 'Worst first in Friday.wav' }).getByRole('listitem').first();
  await expect(worst).toHaveText(/^\s*9:\d\d\s*low G sounds for \d\d ms before [CE]\s*$/);
  await worst.getByRole('button').click();
  await expect(page.getByRole('region', { name: 'Worst first' })).toContainText(/low G sounds for \d\d ms before [CE]/);
  await page.getByRole('button', { name: 'Delete this take' }).click();
  // A window that was closed meanwhile finds it again, and needs the file to hear it.
  await page.reload();
  await expect(heard).toContainText('Open the file again to hear these places.');
  await expect(worst.getByRole('button')).toBeDisabled();
  await heard.getByRole('button', { name: 'Take Friday.wav off this page' }).click();
  await expect(heard).toHaveCount(0);
});
