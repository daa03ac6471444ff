import { readFileSync } from 'node:fs';
import { join } from 'node:path';

type Theme = 'light' | 'dark';

/** The tokens of a theme, as the stylesheet has them. */
function tokens(theme: Theme): ReadonlyMap<string, string> {
  const text = readFileSync(join(__dirname, '_tokens.scss'), 'utf8');
  const of = (name: Theme): [string, string][] =>
    [...(new RegExp(`\\[data-bs-theme=["']${name}["']\\] \\{([^}]*)\\}`).exec(text)?.[1] ?? '').matchAll(/--([\w-]+): (#[0-9a-f]{6})/g)].map((found) => [
      found[1],
      found[2],
    ]);
  return new Map([...of('light'), ...(theme === 'dark' ? of('dark') : [])]);
}

/** Contrast of two colours after WCAG 2.2, 1 to 21. */
function contrast(one: string, other: string): number {
  const luminance = (colour: string): number => {
    const [red, green, blue] = [1, 3, 5].map((at) => {
      const value = Number.parseInt(colour.slice(at, at + 2), 16) / 255;
      return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
    });
    return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
  };
  const [light, dark] = [luminance(one), luminance(other)].sort((a, b) => b - a);
  return (light + 0.05) / (dark + 0.05);
}

describe.each(['light', 'dark'] as const)('the inks, %s', (theme) => {
  const all = tokens(theme);
  const against = (ink: string, ground: string): number => contrast(all.get(ink) ?? '', all.get(ground) ?? '');

  it.each([
    ['blackwood', 'paper', 4.5],
    ['blackwood', 'second-tint', 4.5],
    ['screened', 'paper', 4.5],
    ['screened', 'second-tint', 4.5],
    ['vermilion', 'paper', 4.5],
    ['on-vermilion', 'vermilion', 4.5],
    ['on-brass', 'brass', 4.5],
    ['wood', 'paper', 3],
    ['wood-on-pillar', 'pillar', 3],
    ['wood-on-tint', 'second-tint', 3],
  ])('%s on %s', (ink, ground, least) => {
    expect(against(ink, ground)).toBeGreaterThanOrEqual(least);
  });
});

it('the figures in docs/design.md are those of the tokens', () => {
  const page = readFileSync(join(__dirname, '../../../../docs/design.md'), 'utf8');
  for (const [ink, ground] of [
    ['blackwood', 'paper'],
    ['screened', 'paper'],
    ['wood', 'paper'],
    ['vermilion', 'paper'],
  ]) {
    const figures = (['light', 'dark'] as const).map((theme) => contrast(tokens(theme).get(ink) ?? '', tokens(theme).get(ground) ?? '').toFixed(1));
    expect(page).toMatch(new RegExp(`\`--${ink}\`.*\\| +${figures[0]} / ${figures[1]} +\\|`));
  }
});
