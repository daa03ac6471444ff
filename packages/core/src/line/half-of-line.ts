import type { LineMusic } from './line';

export type LineHalf = 'first' | 'second';

/** Half of a line as it sounds: cut where the note begins that is nearest to its middle. A line of one note has no halves. */
export function halfOfMusic(music: LineMusic, half: LineHalf): LineMusic {
  const { sounds, beats, beatsInBar, firstBeat } = music;
  if (sounds.length < 2) return music;
  let at = 0;
  const begins = sounds.map(({ beats: length }) => {
    const begin = at;
    at += length;
    return begin;
  });
  const middle = beats / 2;
  const cut = begins.reduce((best, begin, index) => (index > 0 && Math.abs(begin - middle) < Math.abs(begins[best] - middle) ? index : best), 1);
  if (half === 'first') return { sounds: sounds.slice(0, cut), beats: begins[cut], beatsInBar, firstBeat };
  // What a tie led into begins by itself.
  const rest = sounds.slice(cut).map((sound, index) => (index === 0 ? { ...sound, isTied: false } : sound));
  return { sounds: rest, beats: beats - begins[cut], beatsInBar, firstBeat: (firstBeat + begins[cut]) % beatsInBar };
}
