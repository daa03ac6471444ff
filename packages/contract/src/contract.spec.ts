import {
  codeSchema,
  consentSchema,
  pageQuerySchema,
  problemCodeOf,
  problemType,
  problems,
  sheetCreateSchema,
  sheetLineInputSchema,
  sheetSaveSchema,
  studioCreateSchema,
  signInSchema,
  studentInputSchema,
  tuneInputSchema,
} from '.';
import { typedText } from './text';
import { versionSchema } from './version';

const line = { home: 'c', other: 'e', repetitions: 8, tempo: null, point: '' };

describe('sheetLineInputSchema', () => {
  it('takes a free tempo and refuses one outside 20 to 300', () => {
    expect(sheetLineInputSchema.parse(line).tempo).toBeNull();
    expect(sheetLineInputSchema.safeParse({ ...line, tempo: 19 }).error?.issues[0].message).toBe('At least 20 beats a minute.');
    expect(sheetLineInputSchema.safeParse({ ...line, tempo: 301 }).success).toBe(false);
  });

  it('refuses one line twice on a sheet', () => {
    const id = '6c1f2a6e-4b8f-4c53-9d2e-0a3b7f5d9e10';
    const sheet = { title: 'Week 1', note: '', version: 1 };
    expect(sheetSaveSchema.safeParse({ ...sheet, lines: [{ ...line, id }, line, line] }).success).toBe(true);
    expect(
      sheetSaveSchema.safeParse({
        ...sheet,
        lines: [
          { ...line, id },
          { ...line, id },
        ],
      }).error?.issues[0].message,
    ).toBe('The same line is on the sheet twice.');
  });

  it('refuses an unknown field rather than dropping it', () => {
    expect(sheetLineInputSchema.safeParse({ ...line, colour: 'red' }).success).toBe(false);
  });
});

describe('codeSchema', () => {
  it('reads a code as people type it', () => {
    expect(codeSchema.parse(' 4rk7 ')).toBe('4RK7');
  });

  it.each(['4RK', '4RK77', '0RK7', '4R-7', ''])('refuses %j', (code) => {
    expect(codeSchema.safeParse(code).success).toBe(false);
  });
});

describe('input from people', () => {
  it('is trimmed, and empty names are refused with a sentence', () => {
    expect(studentInputSchema.parse({ alias: '  Pim ' })).toEqual({ alias: 'Pim' });
    expect(studentInputSchema.safeParse({ alias: '  ' }).error?.issues[0].message).toBe('Enter a name or an alias.');
  });

  it('holds no control signs but tabs and line ends', () => {
    expect(studentInputSchema.safeParse({ alias: 'a\u0000b' }).error?.issues[0].message).toBe(
      'This text has characters that cannot be shown. Remove them and try again.',
    );
    expect(sheetLineInputSchema.safeParse({ ...line, point: 'bell \u0007' }).success).toBe(false);
    expect(studentInputSchema.parse({ alias: 'مها 🎵 Žofie' }).alias).toBe('مها 🎵 Žofie');
    expect(tuneInputSchema.safeParse({ abc: 'X:1\r\n\tK:HP\n', version: 1 }).success).toBe(true);
  });

  it('has upper bounds everywhere', () => {
    expect(signInSchema.safeParse({ email: 'a'.repeat(201), password: 'x' }).success).toBe(false);
    const studentId = '6c1f2a6e-4b8f-4c53-9d2e-0a3b7f5d9e10';
    const sheet = { studentId, tuneId: null, instrument: 'practice-chanter', title: 'Week 1', note: '' };
    expect(sheetCreateSchema.safeParse({ ...sheet, lines: [line] }).success).toBe(true);
    expect(sheetCreateSchema.safeParse({ ...sheet, lines: Array(61).fill(line) }).success).toBe(false);
  });
});

describe('consentSchema', () => {
  const consent = { guardian: 'A. Lunn', on: '2026-03-09', covers: 'Takes recorded in the lesson' };
  it('wants who, when and to what', () => {
    expect(consentSchema.parse(consent)).toEqual(consent);
    expect(consentSchema.safeParse({ ...consent, on: '9.3.2026' }).success).toBe(false);
    expect(consentSchema.safeParse({ ...consent, guardian: ' ' }).error?.issues[0].message).toBe('Enter the guardian who agreed.');
  });
});

describe('studioCreateSchema', () => {
  const studio = { studio: 'Fell Row', name: 'Ada', email: ' Ada@Fell-Row.example ', password: 'long enough now' };
  it('writes addresses in small letters and wants twelve signs of a password', () => {
    expect(studioCreateSchema.parse(studio).email).toBe('ada@fell-row.example');
    expect(studioCreateSchema.safeParse({ ...studio, password: 'short' }).error?.issues[0].message).toBe('A new password needs at least 12 characters.');
    expect(studioCreateSchema.safeParse({ ...studio, email: 'ada' }).error?.issues[0].message).toBe('That is not an e-mail address.');
  });
});

describe('pageQuerySchema', () => {
  it('gives 200 at once where nothing is asked, and never more', () => {
    expect(pageQuerySchema.parse({}).limit).toBe(200);
    expect(pageQuerySchema.parse({ limit: '7' }).limit).toBe(7);
    for (const limit of ['0', '201', 'all', '1.5']) expect(pageQuerySchema.safeParse({ limit }).success).toBe(false);
  });
});

describe('problem codes', () => {
  it('come back from the type that carries them, and nothing else does', () => {
    for (const code of Object.keys(problems) as (keyof typeof problems)[]) expect(problemCodeOf(problemType(code))).toBe(code);
    for (const type of ['about:blank', '', 'urn:zelpit:problem:', 'urn:zelpit:problem:toString', 'not-found']) expect(problemCodeOf(type)).toBeUndefined();
  });
});

describe('what a database could not keep', () => {
  it.each([2_147_483_648, Number.MAX_SAFE_INTEGER, 0, -1, 1.5])('%d is no version', (version) => expect(versionSchema.safeParse(version).success).toBe(false));
  it('the largest version is one', () => expect(versionSchema.safeParse(2_147_483_647).success).toBe(true));
  it.each(['\ud83c', 'Pim \udc00', '\udfff\ud800'])('half a character is refused, not changed', (text) =>
    expect(typedText.safeParse(text).success).toBe(false),
  );
  it('a whole one of two halves is text', () => expect(typedText.safeParse('Pim 🎶').success).toBe(true));
});
