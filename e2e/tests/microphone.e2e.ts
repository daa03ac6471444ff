import { chromium, type Browser, type Page } from '@playwright/test';
import { playNotes, practiceChanter, renderTimeline, waveFile } from '@zelpit/core';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { recording } from './as-player';
import { choose, expect, posted, signIn, test } from './as-teacher';

// What a microphone hears comes in real time: a machine that stands still for a second loses that second, and the take is tried anew.
test.describe.configure({ retries: 3 });

/** A browser whose microphone hears a file. */
async function hearing(file: string): Promise<Browser> {
  const { executablePath, args = [] } = (test.info().project.use as { launchOptions: { executablePath: string; args?: string[] } }).launchOptions;
  const fake = ['--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream', `--use-file-for-fake-audio-capture=${file}%noloop`];
  return chromium.launch({ executablePath, args: [...args, ...fake] });
}

async function studentCalled(page: Page, alias: string): Promise<string> {
  const { items } = (await (await page.request.get(`/api/students?find=${alias}`)).json()) as { items: { id: string }[] };
  return items[0].id;
}

test('a take is recorded by the microphone only where it was agreed to, and is judged', async ({ server }) => {
  const folder = mkdtempSync(join(tmpdir(), 'zelpit-take-'));
  const file = join(folder, 'played.wav');
  writeFileSync(file, recording(24));
  const browser = await hearing(file);
  try {
    const page = await browser.newPage({ baseURL: server.address });
    await signIn(page, '/changes/take');
    // Wren’s guardian has not agreed.
    await choose(page, 'Student', 'Wren');
    await expect(page.getByText('Wren’s guardian has not agreed yet. Ask on paper, and note it with the student.')).toBeVisible();
    await expect(page.getByRole('button', { name: /^Record/ })).toBeDisabled();
    await page.keyboard.press('r');
    await expect(page.getByText(/^Recording, /)).toHaveCount(0);
    await choose(page, 'Student', 'Pim');
    await choose(page, 'From', 'C');
    await choose(page, 'To', 'E');
    await page.getByRole('button', { name: /^Record/ }).click();
    await expect(page.getByText(/^Recording, 0:0[1-9]$/)).toBeVisible();
    await expect(page.getByText('loud enough')).toBeVisible();
    // While it is played, the last change is named.
    await expect(page.locator('.live-change')).toHaveText(/^\s*low G sounds for \d\d ms before [CE]\s*$/);
    await expect(page.getByText('Recording, 0:08')).toBeVisible();
    await page.getByRole('button', { name: /^Stop/ }).click();
    await expect(page.getByRole('status', { name: 'What was heard' })).toHaveText(
      /^\s*None of (seven|eight) clean\.\s+Change \d: low G sounds for \d\d ms before [CE]\.\s*$/,
    );
    await expect(page.getByRole('img', { name: /^The take as a ribbon of pitch/ })).toBeVisible();
  } finally {
    await browser.close();
    rmSync(folder, { recursive: true, force: true });
  }
});

test('a ladder that listens climbs by itself, and ends at the first slip', async ({ server }) => {
  const folder = mkdtempSync(join(tmpdir(), 'zelpit-ladder-'));
  const file = join(folder, 'climb.wav');
  // The first rung clean, at its tempo; while the second is played, a noise before each note.
  const rung = (tempo: number, ms: number): readonly number[] => {
    const notes = Array.from({ length: 16 }, (_, index) => ({ note: index % 2 === 0 ? 'd' : 'f', graceNotes: [], beats: 1, index, isTied: false }));
    const settings = { tempo, beatsInBar: 4, countInBeats: 0, isClickOn: false, firstBeat: 0, graceNoteMs: 40 };
    const timeline = playNotes(practiceChanter, notes, { ...settings, ...(ms > 0 && { fault: { kind: 'worst' as const, ms } }) });
    return [...renderTimeline(practiceChanter, timeline, { sampleRate: 44_100 })];
  };
  const silence = (seconds: number): readonly number[] => new Array<number>(Math.round(44_100 * seconds)).fill(0);
  writeFileSync(file, waveFile(Float32Array.from([...silence(2.4), ...rung(180, 0), ...silence(5), ...rung(186, 26), ...rung(186, 26)]), 44_100));
  const browser = await hearing(file);
  try {
    const page = await browser.newPage({ baseURL: server.address });
    await signIn(page, '/today');
    const climb = async (alias: string): Promise<void> => {
      const line = { kind: 'line', home: 'd', other: 'f', repetitions: 1, tempo: 300, speeds: null, point: '', exercise: null };
      const studentId = await studentCalled(page, alias);
      const sheet = { studentId, tuneId: null, instrument: 'practice-chanter', title: 'Up the stair', note: '', lines: [line] };
      const made = (await posted(page, '/api/sheets', sheet)) as { lines: { code: string }[] };
      await page.goto(`/c/${made.lines[0].code}`);
      await page.getByRole('button', { name: 'Ladder that listens' }).click();
    };
    // Wren’s guardian has not agreed: the microphone stays shut.
    await climb('Wren');
    await expect(page.getByRole('alert')).toHaveText('Wren’s guardian has not agreed yet. Ask on paper, and note it with the student.');
    await climb('Pim');
    await expect(page.getByText(/^\s*I listen: .*Only the click sounds; headphones on, turned low\. Nothing is kept\.\s*$/)).toBeVisible();
    const rungs = page.getByRole('list', { name: 'Tempo ladder' }).getByRole('listitem');
    await expect(rungs.filter({ hasText: '180' })).toHaveClass(/is-clean/, { timeout: 40_000 });
    const advice = page.locator('.runner-advice');
    await expect(advice).toHaveText(/^\s*Clean at 180, slipped at 186\. .*Bar \d: low [AG] sounds for \d\d ms before [DF]\.\s*$/, { timeout: 40_000 });
    await expect(page.getByText(/^\s*I listen/)).toHaveCount(0);
    const [kept] = (
      (await (await page.request.get('/api/attempts?limit=1')).json()) as { items: { tempo: number; note: string; ladder: { rungs: object[] } }[] }
    ).items;
    expect(kept.ladder.rungs).toEqual([
      { tempo: 180, rating: 'clean' },
      { tempo: 186, rating: 'slip' },
    ]);
    expect(kept.note).toMatch(/^Bar \d: /);
  } finally {
    await browser.close();
    rmSync(folder, { recursive: true, force: true });
  }
});

test('held notes are named while they sound, with how far they are off, how steady, and whether the octave is true', async ({ server }) => {
  const folder = mkdtempSync(join(tmpdir(), 'zelpit-held-'));
  const file = join(folder, 'held.wav');
  const held = (note: string, cents: number): readonly number[] => {
    const settings = { tempo: 60, beatsInBar: 4, countInBeats: 0, isClickOn: false, firstBeat: 0, graceNoteMs: 40 };
    const timeline = playNotes(practiceChanter, [{ note, graceNotes: [], beats: 4, index: 0, isTied: false }], settings);
    const referenceHertz = practiceChanter.reference.hertz * 2 ** (cents / 1200);
    return [...renderTimeline(practiceChanter, timeline, { sampleRate: 44_100, referenceHertz })];
  };
  const silence = new Array<number>(22_050).fill(0);
  writeFileSync(file, waveFile(Float32Array.from([...silence, ...held('low-a', 0), ...held('high-a', 22), ...silence]), 44_100));
  const browser = await hearing(file);
  try {
    const page = await browser.newPage({ baseURL: server.address });
    await signIn(page, '/changes/held');
    await choose(page, 'Student', 'Pim');
    await page.keyboard.press(' ');
    const note = page.locator('.held-note');
    await expect(note).toHaveText(/^\s*low A, (in tune|[34] cents (sharp|flat))\s*$/);
    await expect(note).toHaveText(/^\s*high A, (19|2\d) cents sharp\s*$/);
    await expect(page.getByText('Nothing is recorded: it is listened to and forgotten.')).toBeVisible();
    await expect(note).toHaveText('Play a note.');
    await page.keyboard.press(' ');
    await expect(page.getByRole('main').getByRole('status')).toHaveText(
      /^Blowing: low A within \d cents?, high A within \d cents?\. Octaves: Low A to high A: (19|2\d) cents wide\.$/,
    );
    await expect(page.getByText('Loud, high notes tire the ears:')).toBeVisible();
  } finally {
    await browser.close();
    rmSync(folder, { recursive: true, force: true });
  }
});

test('a student records alone, where a guardian agreed', async ({ page, browser }) => {
  await signIn(page, '/students');
  const tabletOf = async (alias: string): Promise<Page> => {
    await page.getByRole('button', { name: `Links for ${alias}` }).click();
    const link = await page.locator('.link-address').innerText();
    const tablet = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
    await tablet.goto(link);
    await tablet.getByRole('button', { name: 'Open the sheets' }).click();
    await tablet.getByRole('link', { name: 'Record a take' }).click();
    return tablet;
  };
  const pim = await tabletOf('Pim');
  await expect(pim.getByText('R. Vell agreed on 4 September.')).toBeVisible();
  await expect(pim.getByRole('button', { name: /^Record/ })).toBeEnabled();
  await page.reload();
  const wren = await tabletOf('Wren');
  await expect(wren.getByText(/^\s*Nobody has agreed yet that you are recorded/)).toBeVisible();
  await expect(wren.getByRole('button', { name: /^Record/ })).toBeDisabled();
});

test('a microphone that may not be used is said with what helps', async ({ page, context }) => {
  await context.clearPermissions();
  await signIn(page, '/changes/take');
  await choose(page, 'Student', 'Pim');
  for (const [name, text] of [
    ['NotAllowedError', /may not use the microphone\. Allow it/],
    ['NotFoundError', /No microphone was found/],
    ['NotReadableError', /Another program holds the microphone/],
    ['OverconstrainedError', /could not be used/],
  ] as const) {
    await page.evaluate((fault) => {
      navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('', fault));
    }, name);
    await page.getByRole('button', { name: /^Record/ }).click();
    await expect(page.getByRole('alert')).toHaveText(text);
  }
});

/** Sets a lesson and begins it: the weekly one may have been held by another test of this studio. */
async function lessonWith(page: Page, alias: string): Promise<string> {
  const on = await page.evaluate(() => new Date().toLocaleDateString('sv'));
  const lesson = { studentId: await studentCalled(page, alias), on, time: '23:05', minutes: 30, repeats: 'once', until: null, note: '' };
  const { id } = (await posted(page, '/api/lessons', lesson)) as { id: string };
  await posted(page, `/api/lessons/${id}/begin`, { on }, 200);
  return id;
}

test('a word is spoken in the lesson, and heard while its review is written', async ({ server }) => {
  const folder = mkdtempSync(join(tmpdir(), 'zelpit-word-'));
  const file = join(folder, 'said.wav');
  writeFileSync(file, recording(40));
  const browser = await hearing(file);
  try {
    const page = await browser.newPage({ baseURL: server.address });
    await signIn(page, '/today');
    await page.goto(`/lessons/${await lessonWith(page, 'Pim')}`);
    const now = page.getByRole('region', { name: 'Now' });
    const title = (await now.getByRole('heading', { level: 2 }).first().innerText()).trim();
    const said = now.getByRole('list', { name: 'Said aloud' });
    // What is thrown away is kept nowhere.
    await page.keyboard.press('v');
    await expect(page.getByText(new RegExp(`^Speaking, 0:0\\d: ${title}$`))).toBeVisible();
    await expect(page.getByText(/^R\. Vell agreed on 4 September\. It is kept for 30 days on the studio’s server/)).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page.getByText(/^Speaking, /)).toHaveCount(0);
    await page.getByRole('button', { name: 'Say it' }).click();
    await expect(page.getByText(/^Speaking, 0:0[2-9]: /)).toBeVisible();
    await page.getByRole('button', { name: 'Keep it' }).click();
    await expect(said.getByRole('listitem')).toHaveCount(1);
    await expect(said.getByRole('listitem')).toHaveText(/^\s*▶ [2-9] s\s+Delete\s*$/);
    await page.getByRole('button', { name: 'End and review' }).click();
    await expect(page).toHaveURL(/reviews\/[^/]+$/);
    const aloud = page.getByRole('region', { name: 'Said in the lesson' });
    await expect(aloud.getByRole('listitem')).toContainText(title);
    await aloud.getByRole('button', { name: `Hear what was said about ${title}, 1` }).click();
    await expect(aloud.getByRole('button', { name: `Stop what was said about ${title}, 1` })).toBeVisible();
    await aloud.getByRole('button', { name: `Delete what was said about ${title}, 1` }).click();
    await expect(aloud).toHaveCount(0);
  } finally {
    await browser.close();
    rmSync(folder, { recursive: true, force: true });
  }
});
