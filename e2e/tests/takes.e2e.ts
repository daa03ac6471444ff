import { playNotes, practiceChanter, renderTimeline, waveFile } from '@zelpit/core';
import { choose, expect, signIn, test } from './as-teacher';

/** A recording of C to E and back, eight changes, with low G between for so long. */
function recording(ms: number): Buffer {
  const notes = Array.from({ length: 9 }, (_, index) => ({ note: index % 2 === 0 ? 'c' : 'e', graceNotes: [], beats: 1, index, isTied: false }));
  const settings = { tempo: 90, beatsInBar: 4, countInBeats: 0, isClickOn: false, firstBeat: 0, graceNoteMs: 40 };
  const timeline = playNotes(practiceChanter, notes, { ...settings, ...(ms > 0 && { fault: { kind: 'land-early' as const, ms } }) });
  return Buffer.from(waveFile(renderTimeline(practiceChanter, timeline, { sampleRate: 44_100 }), 44_100));
}

test('a recording is listened to: what was clean, what cut in for how long, with its sound; it goes into the logbook', async ({ page }) => {
  await signIn(page, '/changes/take');
  await choose(page, 'Student', 'Pim');
  await choose(page, 'From', 'C');
  await choose(page, 'To', 'E');
  const band = page.getByRole('region', { name: 'What was heard' });
  const open = (name: string, buffer: Buffer) =>
    page.getByLabel('Open a recording').or(page.getByLabel('Another recording')).setInputFiles({ name, mimeType: 'audio/wav', buffer });
  await open('clean.wav', recording(0));
  await expect(band.getByText('8 of 8 changes clean.')).toBeVisible();
  await open('crossed.wav', recording(22));
  await expect(band.getByText(/^\s*0 of 8 changes clean\. Change \d: low G sounds for (1[89]|2\d) ms before [CE]\.\s*$/)).toBeVisible();
  const changes = page.getByRole('list', { name: 'Changes as they were heard' }).getByRole('listitem');
  await expect(changes).toHaveCount(8);
  await page.keyboard.press(' ');
  await page.keyboard.press('ArrowDown');
  await expect(changes.nth(1).getByRole('button')).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('button', { name: 'Into the logbook' }).click();
  await expect(page.getByText('The take stands in the logbook of Pim.')).toBeVisible();
  const kept = await page.evaluate(
    async () => ((await (await fetch('/api/attempts?limit=1')).json()) as { items: { title: string; rating: string; note: string; by: string }[] }).items[0],
  );
  expect(kept).toMatchObject({ title: 'C to E', rating: 'not-yet', by: 'teacher' });
  expect(kept.note).toMatch(/^A take: 0 of 8/);
  await open('no sound.wav', Buffer.from('this is no sound'));
  await expect(page.getByRole('alert')).toHaveText('“no sound.wav” could not be read as sound. WAV, FLAC, Ogg and MP3 are read.');
  await open('empty.wav', Buffer.alloc(0));
  await expect(page.getByRole('alert')).toContainText('“empty.wav” could not be read as sound');
});
