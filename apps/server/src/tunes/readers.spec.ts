import { instrumentById, practiceChanter, readerVersion, ZelpitFault } from '@zelpit/core';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { HttpProblem } from '../http/problem';
import { tooMuch, type TuneReading } from './kept-tune';
import { Readers } from './readers';

const path = process.env['ZELPIT_TEST_READER'] ?? '';
const tune = (title: string, music = 'A c e a|'): string => `X:1\nT:${title}\nM:4/4\nL:1/4\nK:HP\n${music}\n`;
/** A reader that never comes to an end with a tune called Endless. */
const stuck = `
  const { parentPort } = require('node:worker_threads');
  parentPort.on('message', ({ file, from, wasTooMuch }) => {
    while (file.includes('Bomb')) {}
    parentPort.postMessage({ kind: 'begun' });
    file.split(/(?=X:)/).forEach((abc, index) => {
      const title = /T:(.*)/.exec(abc)[1];
      const isLost = wasTooMuch && index === from - 1;
      if (index < from && !isLost) return;
      while (!isLost && abc.includes('Endless')) {}
      parentPort.postMessage({ kind: 'tune', reading: isLost ? { kind: 'refused', entry: { title } } : { kind: 'read', tune: { title } } });
    });
    parentPort.postMessage({ kind: 'done' });
  });
`;
const titles = (readings: readonly TuneReading[]): readonly string[] =>
  readings.map((reading) => `${reading.kind} ${reading.kind === 'read' ? reading.tune.title : reading.entry.title}`);

describe('Readers', () => {
  const folder = mkdtempSync(join(tmpdir(), 'zelpit-reader-'));
  const stuckPath = join(folder, 'stuck.cjs');
  beforeAll(() => writeFileSync(stuckPath, stuck));
  afterAll(() => rmSync(folder, { recursive: true }));
  let readers: Readers;
  beforeEach(() => (readers = new Readers({ path, tuneMs: 8000, memoryMb: 96 })));
  afterEach(() => readers.close());

  it('read a book in its order', async () => {
    expect(titles(await readers.read('one', practiceChanter, `${tune('First')}\n${tune('Second')}`))).toEqual(['read First', 'read Second']);
  });

  it('refuse a tune that takes too long, and read the rest of its book; this thread is never kept waiting', async () => {
    let longest = 0;
    let last = Date.now();
    const beat = setInterval(() => {
      longest = Math.max(longest, Date.now() - last);
      last = Date.now();
    }, 5);
    const waiting = new Readers({ path: stuckPath, tuneMs: 1500 });
    const readings = await waiting.read('one', practiceChanter, [tune('First'), tune('Endless'), tune('Last')].join('\n'));
    clearInterval(beat);
    await waiting.close();
    expect(titles(readings)).toEqual(['read First', 'refused Endless', 'read Last']);
    expect(longest).toBeLessThan(1000);
  });

  it('name a tune that takes too long by its line', () => {
    const reading = tooMuch([tune('First'), tune('Endless')].join('\n'), 1);
    expect(reading).toMatchObject({
      entry: { title: 'Endless', firstLine: 8, faults: [{ line: 8, problem: expect.stringContaining('takes too long') as string }] },
    });
  });

  it('refuse a file that takes too long to open with one sentence', async () => {
    const waiting = new Readers({ path: stuckPath, tuneMs: 300 });
    await expect(waiting.read('one', practiceChanter, tune('Bomb'))).rejects.toThrow('This file takes too long to read, so nothing of it was added.');
    await waiting.close();
  });

  it('read a kept tune again, whatever it holds', async () => {
    const kept = await readers.readKept('one', practiceChanter, { abc: tune('Kept', 'A {gc e|'), voice: '', chordNote: 'highest' });
    expect(kept).toMatchObject({
      title: 'Kept',
      reader: readerVersion,
      facts: { findings: expect.arrayContaining([{ bar: 0, text: 'Line 6: A group of grace notes starts here and is never closed.' }]) as object },
    });
  });

  it('refuse a text over the limit of one tune with its length, and read the rest', async () => {
    const readings = await readers.read('one', practiceChanter, `${tune('Long', 'A'.repeat(200_001))}\n${tune('Short')}`);
    expect(titles(readings)).toEqual(['refused Long', 'read Short']);
    expect(readings[0]).toMatchObject({ entry: { faults: [{ problem: expect.stringMatching(/at most 200000/) as string }] } });
  });

  it('say what is no ABC, and read on after that', async () => {
    await expect(readers.read('one', practiceChanter, 'Dear teacher')).rejects.toThrow(ZelpitFault);
    expect(titles(await readers.read('one', practiceChanter, tune('After')))).toEqual(['read After']);
  });

  it('keep to the instrument that was meant', async () => {
    const whistle = instrumentById('whistle-d');
    const [own] = await readers.read('one', whistle, tune('Own'));
    const [meant] = await readers.read('one', whistle, tune('Meant'), { isMeant: true });
    expect([own, meant].map((reading) => (reading.kind === 'read' ? reading.tune.instrument : ''))).toEqual(['practice-chanter', 'whistle-d']);
  });

  it('give each studio its share: a full queue is refused for that studio alone, and others are not behind it', async () => {
    const small = new Readers({ path: stuckPath, tuneMs: 1500, waiting: 2, atOnce: 2 });
    const done: string[] = [];
    const read = (studio: string, text: string): Promise<unknown> => small.read(studio, practiceChanter, text).then(() => done.push(studio));
    const first = read('busy', tune('Endless'));
    const more = [read('busy', tune('A')), read('busy', tune('B'))];
    await expect(small.read('busy', practiceChanter, tune('C'))).rejects.toThrow(HttpProblem);
    await read('other', tune('D'));
    expect(done).toEqual(['other']);
    await Promise.all([first, ...more]);
    await small.close();
  });
});
