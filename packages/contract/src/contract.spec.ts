import { codeSchema, sheetCreateSchema, sheetLineInputSchema, signInSchema, studentInputSchema, tuneInputSchema, tuneMoveSchema } from '.';

const line = { home: 'c', other: 'e', repetitions: 8, tempo: null, point: '' };

describe('sheetLineInputSchema', () => {
  it('takes a free tempo and refuses one outside 20 to 300', () => {
    expect(sheetLineInputSchema.parse(line).tempo).toBeNull();
    expect(sheetLineInputSchema.safeParse({ ...line, tempo: 19 }).error?.issues[0].message).toBe('At least 20 beats a minute.');
    expect(sheetLineInputSchema.safeParse({ ...line, tempo: 301 }).success).toBe(false);
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
    expect(studentInputSchema.safeParse({ alias: '  ' }).error?.issues[0].message).toBe('A name or alias is missing.');
  });

  it('holds no control signs but tabs and line ends', () => {
    expect(studentInputSchema.safeParse({ alias: 'a\u0000b' }).error?.issues[0].message).toBe('This text holds signs that cannot be shown.');
    expect(sheetLineInputSchema.safeParse({ ...line, point: 'bell \u0007' }).success).toBe(false);
    expect(studentInputSchema.parse({ alias: 'مها 🎵 Žofie' }).alias).toBe('مها 🎵 Žofie');
    expect(tuneInputSchema.safeParse({ abc: 'X:1\r\n\tK:HP\n' }).success).toBe(true);
  });

  it('has upper bounds everywhere', () => {
    expect(signInSchema.safeParse({ email: 'a'.repeat(201), password: 'x' }).success).toBe(false);
    expect(tuneMoveSchema.safeParse({ semitones: 13 }).success).toBe(false);
    const studentId = '6c1f2a6e-4b8f-4c53-9d2e-0a3b7f5d9e10';
    const sheet = { studentId, tuneId: null, instrument: 'practice-chanter', title: 'Week 1', note: '' };
    expect(sheetCreateSchema.safeParse({ ...sheet, lines: [line] }).success).toBe(true);
    expect(sheetCreateSchema.safeParse({ ...sheet, lines: Array(61).fill(line) }).success).toBe(false);
  });
});
