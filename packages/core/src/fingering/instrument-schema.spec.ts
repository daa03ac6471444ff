import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { instrumentJsonSchema } from '.';

const file = join(__dirname, '../../../../docs/instrument.schema.json');

it('docs/instrument.schema.json says what the code reads; ZELPIT_WRITE=1 writes it anew', () => {
  const now = JSON.stringify(instrumentJsonSchema(), null, 2);
  if (process.env['ZELPIT_WRITE'] === '1') writeFileSync(file, `${now}\n`);
  expect(JSON.parse(readFileSync(file, 'utf8'))).toEqual(JSON.parse(now));
});
