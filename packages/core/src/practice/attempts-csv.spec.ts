import { attemptsCsv, type CsvAttempt } from './attempts-csv';

const attempt: CsvAttempt = {
  ...{
    at: '2026-11-20T16:10:00.000Z',
    title: 'B to E',
    kind: 'line',
    tempo: 60,
    count: 8,
    rating: 'clean',
    by: 'student',
    seconds: 64,
    device: 'tablet',
    note: '',
  },
  ...{ ladder: null, correction: null },
};

describe('the log as a table', () => {
  it('has its heads and a row a try', () => {
    expect(attemptsCsv([attempt]).split('\r\n')).toEqual([
      'at,title,kind,tempo,count,rating,by,seconds,device,ladder,corrected,corrected by,note',
      '2026-11-20T16:10:00.000Z,B to E,line,60,8,clean,student,64,tablet,,,,',
      '',
    ]);
  });

  it('quotes what needs it, and is no formula', () => {
    const csv = attemptsCsv([{ ...attempt, title: 'C, "slow"\nE', note: '=1+1', tempo: null }]);
    expect(csv).toContain('"C, ""slow""\nE"');
    expect(csv).toContain(",'=1+1");
  });

  it('has the rungs of a ladder and the last correction', () => {
    const ladder = {
      rungs: [
        { tempo: 54, rating: 'clean' },
        { tempo: 60, rating: 'slip' },
      ],
    };
    expect(attemptsCsv([{ ...attempt, ladder, correction: { rating: 'nearly', who: 'Ada', at: '' } }])).toContain('54 clean; 60 slip,nearly,Ada,');
  });
});
