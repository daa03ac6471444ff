import { readAbc } from '@zelpit/core';
import { writeMusicXml, midiOf, readMusicXml, xmlFromParser, xmlParserSettings } from '@zelpit/core/music-files';
import { XMLParser } from 'fast-xml-parser';
import { strFromU8, unzipSync } from 'fflate';
import { parseMidi, writeMidi } from 'midi-file';
import { readFileSync } from 'node:fs';
import type { Download, Page } from '@playwright/test';
import { expect, pasteTune, saved, signIn, test } from './as-teacher';

const gate = readAbc(
  'X:1\nT:The Blue Gate\nM:6/8\nL:1/8\nQ:3/8=90\nK:G\n|:{g}GAB c2d|e2d (B3|A2)B cBA|[1 G6:|[2 G6|]\nw:o-pen the gate and come through\n',
).score;
const bass = readAbc('X:1\nM:6/8\nL:1/8\nK:G\n[G,,D,]6|[G,,D,]6|[D,,A,,]6|[G,,D,]6|\n').score;

const book = `M:4/4
L:1/4
R:march

X:1
T:Two for the Ferry
%%wobble 3
K:D
V:1 name="Whistle"
V:2 name="Low whistle"
[V:1] d f a f|e d B|d4|]
[V:2] D F A F|E D B, A,|D4|]

X:2
T:The Broken Latch
K:D
d f {ag f2|

X:3
T:A Whole Bar
K:D
d f a f|]
`;

async function bring(page: Page, name: string, content: string | Uint8Array): Promise<void> {
  await page.locator('input[type=file]').setInputFiles({ name, mimeType: 'application/octet-stream', buffer: Buffer.from(content) });
}

async function file(page: Page, name: string): Promise<Buffer> {
  const [download] = await Promise.all([
    page.waitForEvent('download') as Promise<Download>,
    page.getByRole('button', { name: `Save as ${name}`, exact: true }).click(),
  ]);
  return readFileSync(await download.path());
}

async function openGate(page: Page): Promise<void> {
  await signIn(page);
  await bring(page, 'gate.musicxml', writeMusicXml(gate));
  await expect(page.getByText('1 tune added:')).toBeVisible();
  await page.getByRole('link', { name: 'The Blue Gate' }).first().click();
  await page.getByRole('link', { name: 'Save as a file' }).click();
  await expect(page.getByText('Choose what the file is for.')).toBeVisible();
}

test('a book comes in: its head holds for every tune, what was passed over is said, and the rest is there', async ({ page }) => {
  await signIn(page);
  await bring(page, 'book.abc', book);
  await expect(page.getByText('2 tunes added:')).toBeVisible();
  await expect(page.getByText('One has something to look at:')).toBeVisible();
  await expect(page.getByText('Bar 2: 3 beats instead of 4 beats')).toBeVisible();
  await expect(page.getByText('Not used: %%wobble')).toBeVisible();
  await expect(page.getByText('Line 17, character 5: A group of grace notes starts here and is never closed.')).toBeVisible();
  await page.getByRole('link', { name: 'Two for the Ferry' }).first().click();
  await page.getByRole('button', { name: '3 to check in the text' }).click();
  await page.getByRole('button', { name: 'Bar 2: 3 beats instead of 4 beats' }).click();
  await page.getByRole('button', { name: 'Voice: Whistle' }).click();
  await page.getByRole('menuitem', { name: 'Low whistle' }).click();
  await saved(page);
  await page.reload();
  await expect(page.getByRole('button', { name: 'Voice: Low whistle' })).toBeVisible();
});

test('a MIDI file is looked at before it is kept: melody, shortest notes, grace notes', async ({ page }) => {
  await signIn(page);
  const tempo = { beat: 3 / 8, perMinute: 90, words: '' };
  const [melody, low] = [midiOf(gate, gate.voices[0], tempo), midiOf(bass, bass.voices[0], tempo)];
  const named = (text: string): { deltaTime: number; meta: boolean; type: string; text: string } => ({ deltaTime: 0, meta: true, type: 'trackName', text });
  const tracks = [melody.tracks[0], [named('Bass'), ...low.tracks[1]], [named('Flute'), ...melody.tracks[1]]];
  await bring(page, 'gate.mid', Uint8Array.from(writeMidi({ header: { format: 1, numTracks: 3, ticksPerBeat: 960 }, tracks } as never)));
  await expect(page.getByRole('button', { name: /^Line of the file: Flute/ })).toBeVisible();
  await expect(page.getByRole('img', { name: 'The first bars as they would be written' }).locator('svg')).toBeVisible();
  await page.getByRole('button', { name: 'Hear these bars' }).click();
  await page.getByRole('button', { name: 'Stop' }).click();
  await page.getByRole('button', { name: /^Very short notes/ }).click();
  await page.getByRole('menuitem', { name: 'grace notes up to 60 ms' }).click();
  await page.getByRole('button', { name: 'Keep this tune' }).click();
  await expect(page.getByText('1 tune added:')).toBeVisible();
  await page.getByRole('link', { name: 'The Blue Gate' }).first().click();
  await expect(page.getByRole('button', { name: 'Tune: The Blue Gate' })).toBeVisible();
});

for (const [name, content, sentence] of [
  ['head.mid', 'MThd\0\0\0\u0006\0', 'This MIDI file is cut off: 5 of its 14 bytes are missing'],
  [
    'cut.mid',
    Uint8Array.from(writeMidi(midiOf(gate, gate.voices[0], { beat: 3 / 8, perMinute: 90, words: '' }) as never)).slice(0, 120),
    'This MIDI file is cut off',
  ],
  ['cut.musicxml', writeMusicXml(gate).slice(0, 1200), 'This XML file is damaged'],
  ['page.xml', '<?xml version="1.0"?><html/>', 'This XML file is not a MusicXML score.'],
  ['picture.abc', Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a]), 'This is a picture, not a file of tunes.'],
] as const) {
  test(`${name} is refused with a sentence`, async ({ page }) => {
    await signIn(page);
    await bring(page, name, content);
    await expect(page.getByRole('alert')).toContainText(sentence);
    await expect(page.getByRole('alert')).toContainText('Nothing was saved.');
  });
}

test('a tune goes out as ABC, MusicXML, packed MusicXML and MIDI, and what a kind cannot carry is said before', async ({ page }) => {
  await openGate(page);
  await expect(page.getByText(/^Not in it: words; .*keyboard/)).toBeVisible();
  expect((await file(page, 'ABC')).toString()).toContain('T:The Blue Gate');
  const xml = (await file(page, 'MusicXML')).toString();
  const read = (text: string): readonly number[] =>
    readMusicXml(xmlFromParser(new XMLParser(xmlParserSettings).parse(text)) as never).voices[0].events.flatMap(({ pitches }) =>
      pitches.map(({ step }) => step),
    );
  const steps = gate.voices[0].events.flatMap(({ pitches }) => pitches.map(({ step }) => step));
  expect(read(xml)).toEqual(steps);
  const packed = unzipSync(await file(page, 'MusicXML, packed'));
  expect(read(strFromU8(packed['score.musicxml']))).toEqual(steps);
  const midi = parseMidi(await file(page, 'MIDI'));
  expect(midi.tracks[1].filter(({ type }) => type === 'noteOn')).toHaveLength(30);
});

test('a tune goes out as sound, on paper and as a drawing', async ({ page }) => {
  await openGate(page);
  await page.getByLabel('With a fault').selectOption({ index: 1 });
  const wave = await file(page, 'WAV');
  expect(wave.subarray(0, 4).toString()).toBe('RIFF');
  expect(wave.length).toBeGreaterThan(44_100 * 2 * 10);
  const pdf = await file(page, 'PDF');
  expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');
  const svg = (await file(page, 'SVG')).toString();
  expect(svg).toContain('The Blue Gate');
  expect(svg).toContain('@font-face');
  expect((await file(page, 'PNG')).subarray(1, 4).toString()).toBe('PNG');
});

test('all tunes go out as one book, which comes in again', async ({ page }) => {
  await signIn(page);
  await pasteTune(page, 'X:1\nT:Zinnia in the Book\nM:4/4\nL:1/4\nK:D\nd f a f|]\n');
  await expect(page.getByText('1 tune added:')).toBeVisible();
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Save these as one ABC file' }).click()]);
  const text = readFileSync(await download.path(), 'utf8');
  const count = text.match(/^X:/gm)?.length ?? 0;
  expect(count).toBeGreaterThan(5);
  expect(text).toContain('T:Zinnia in the Book');
  await bring(page, 'book.abc', text);
  await expect(page.getByText(`${count} tunes added:`)).toBeVisible();
});

test('which note of its chords a tune plays is chosen on the tune', async ({ page }) => {
  await signIn(page);
  await pasteTune(page, 'X:1\nT:Zither Lane\nM:4/4\nL:1/4\nK:D\n[df] [ea] [df] [ea]|]\n');
  await page.getByRole('link', { name: 'Zither Lane' }).first().click();
  await page.getByRole('button', { name: 'Note of a chord: highest notes' }).click();
  await page.getByRole('menuitem', { name: 'lowest notes' }).click();
  await saved(page);
  await page.reload();
  await expect(page.getByRole('button', { name: 'Note of a chord: lowest notes' })).toBeVisible();
});
