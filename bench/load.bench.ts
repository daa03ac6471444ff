import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import { signInToDemo, type ApiVisitor } from '../e2e/api-visitor';
import { startServer } from '../e2e/server.mjs';
import { startBare } from './bare';
import { benchCommand, percentile, type Figure } from './measure';

const editors = 20;
const seconds = 60;
const linesOnSheet = 12;
/** An editor saves, then types on for so long, in ms: the half second of quiet before a save, and up to a second more. */
const typing = { least: 500, most: 1500 };

interface Sheet {
  readonly id: string;
  readonly version: number;
  readonly title: string;
  readonly note: string;
  readonly lines: readonly Record<string, unknown>[];
}

/** Times of all saves in ms. `save` does the `round`th save of an editor. */
async function load(save: (editor: number, round: number) => Promise<void>): Promise<readonly number[]> {
  const times: number[] = [];
  const end = performance.now() + seconds * 1000;
  const edit = async (editor: number): Promise<void> => {
    await pause(Math.random() * typing.most);
    for (let round = 1; performance.now() < end; round += 1) {
      const start = performance.now();
      await save(editor, round);
      times.push(performance.now() - start);
      await pause(typing.least + Math.random() * (typing.most - typing.least));
    }
  };
  await Promise.all(Array.from({ length: editors }, (_, editor) => edit(editor)));
  return times;
}

async function loadZelpit(): Promise<readonly number[]> {
  const server = await startServer();
  try {
    const visitors: ApiVisitor[] = [];
    for (let editor = 0; editor < editors; editor += 1) visitors.push(await signInToDemo(server.address));
    const [student] = await visitors[0].list<{ id: string }>('/api/students');
    const lines = Array.from({ length: linesOnSheet }, (_, index) => ({
      home: 'c',
      other: index % 2 === 0 ? 'e' : 'd',
      repetitions: 8,
      tempo: 60,
      point: 'little finger waits',
    }));
    const sheets: Sheet[] = await Promise.all(
      visitors.map(async (visitor, index) => {
        const sheet = { studentId: student.id, tuneId: null, instrument: 'practice-chanter', title: `Editor ${index}`, note: '', lines };
        return (await (await visitor.send('POST', '/api/sheets', sheet)).json()) as Sheet;
      }),
    );
    return await load(async (editor, round) => {
      const { id, version, lines: kept } = sheets[editor];
      const body = {
        title: `Round ${round}`,
        note: 'Slowly',
        version,
        lines: kept.map((line) => ({ ...line, code: undefined, repetitions: 1 + (round % 50) })),
      };
      const answer = await fetch(`${server.address}/api/sheets/${id}`, {
        method: 'PUT',
        headers: { ...visitors[editor].headers, 'content-type': 'application/json', 'idempotency-key': randomUUID() },
        body: JSON.stringify(body),
      });
      if (answer.status !== 200) throw new Error(`A save was answered by ${answer.status}: ${await answer.text()}`);
      sheets[editor] = (await answer.json()) as Sheet;
    });
  } finally {
    await server.stop();
  }
}

async function loadBare(): Promise<readonly number[]> {
  const bare = await startBare();
  try {
    const lines = Array.from({ length: linesOnSheet }, () => ({
      home: 'c',
      other: 'e',
      repetitions: 8,
      tempo: 60,
      point: 'little finger waits',
      id: randomUUID(),
    }));
    return await load(async (editor, round) => {
      const body = JSON.stringify({ title: `Round ${round}`, note: 'Slowly', version: round, lines });
      await (await fetch(`${bare.address}/bare/${editor}`, { method: 'PUT', headers: { 'content-type': 'application/json' }, body })).json();
    });
  } finally {
    bare.stop();
  }
}

/** Twenty editors for a minute, against a bare Express route with one indexed update. */
export async function loadFigures(): Promise<readonly Figure[]> {
  const [zelpit, bare] = [await loadZelpit(), await loadBare()];
  const figure = (share: number, name: string, goal: string, isMet: (value: number) => boolean): Figure => {
    const [median, baseline] = [percentile(zelpit, share), percentile(bare, share)];
    return {
      name: `${name} of a save of ${linesOnSheet} lines, ${editors} editors for ${seconds} s (${zelpit.length} saves)`,
      median,
      unit: 'ms',
      goal,
      isMet: isMet(median),
      better: 'lower',
      baseline: { name: `bare Express route with one indexed update (${bare.length} saves)`, median: baseline },
      ratio: median / baseline,
      command: benchCommand,
    };
  };
  return [figure(0.95, '95th percentile', 'under 100 ms', (value) => value < 100), figure(0.5, 'median', 'none set', () => true)];
}
