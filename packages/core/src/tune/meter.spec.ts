import { defaultTempo, meterFrom } from './meter';

const parsed = (num: string, den: string) => meterFrom({ type: 'specified', value: [{ num, den }] });

describe('meterFrom', () => {
  it.each([
    ['2', '4', { beats: 2, beat: 1 / 4, bar: 1 / 2, text: '2/4' }],
    ['3', '4', { beats: 3, beat: 1 / 4, bar: 3 / 4, text: '3/4' }],
    ['4', '4', { beats: 4, beat: 1 / 4, bar: 1, text: '4/4' }],
    ['2', '2', { beats: 2, beat: 1 / 2, bar: 1, text: '2/2' }],
    ['6', '8', { beats: 2, beat: 3 / 8, bar: 3 / 4, text: '6/8' }],
    ['9', '8', { beats: 3, beat: 3 / 8, bar: 9 / 8, text: '9/8' }],
    ['12', '8', { beats: 4, beat: 3 / 8, bar: 3 / 2, text: '12/8' }],
    ['3', '8', { beats: 3, beat: 1 / 8, bar: 3 / 8, text: '3/8' }],
    ['5', '4', { beats: 5, beat: 1 / 4, bar: 5 / 4, text: '5/4' }],
  ])('counts %s/%s by its beats', (num, den, meter) => {
    expect(parsed(num, den)).toEqual(meter);
  });

  it('knows the signs for common and cut time', () => {
    expect(meterFrom({ type: 'common_time' }).text).toBe('4/4');
    expect(meterFrom({ type: 'cut_time' }).text).toBe('2/2');
  });

  it.each([[undefined], [{ type: 'free_meter' }], [{ value: [{ num: 'x', den: '4' }] }], [{ value: [{ num: '4', den: '0' }] }]])(
    'takes 4/4 where the text gives none that can be counted: %j',
    (given) => {
      expect(meterFrom(given).text).toBe('4/4');
    },
  );
});

describe('defaultTempo', () => {
  it.each([
    ['march', '2/4'],
    ['march', '6/8'],
    ['strathspey', '4/4'],
    ['reel', '2/2'],
    ['jig', '6/8'],
    ['slow air', '3/4'],
    ['', '4/4'],
    ['something new', '7/8'],
  ])('gives %s in %s a tempo that can be played', (rhythm, meter) => {
    expect(defaultTempo(rhythm, meter)).toBeGreaterThanOrEqual(40);
    expect(defaultTempo(rhythm, meter)).toBeLessThanOrEqual(200);
  });

  it('is slower for an air than for a jig', () => {
    expect(defaultTempo('slow air', '6/8')).toBeLessThan(defaultTempo('jig', '6/8'));
  });
});
