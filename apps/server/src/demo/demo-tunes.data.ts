/** Tunes composed for the demo studio, bar by bar; nobody else's. */
interface DemoTune {
  readonly title: string;
  readonly rhythm: string;
  readonly meter: string;
  readonly tempo: string;
  readonly music: readonly string[];
  readonly key?: string;
}

const chanterTunes: readonly DemoTune[] = [
  {
    title: 'The Paper Lighthouse',
    rhythm: 'march',
    meter: '2/4',
    tempo: '1/4=72',
    music: [
      '|:{g}e|{g}A>c {gcd}c>e|{Gdc}d>B {gde}d>f|{g}e>c {GdG}c>A|{gBd}B2 {e}B>d|',
      '{g}A>c {gcd}c>e|{gef}e>f {ag}a>e|{g}f>d {gcd}c>B|{gAd}A2 {GdG}A:|',
      '|:{g}e|{ag}a>e {gef}e>c|{Gdc}d>e {gfg}f>d|{g}e>c {GdG}c>A|{gBd}B2 {e}B>d|',
      '{ag}a>f {gef}e>c|{Gdc}d>A {gBd}B>e|{g}c>A {gcd}c>B|{gAd}A2 {GdG}A:|',
    ],
  },
  {
    title: 'Nine Gates to Orrin Moor',
    rhythm: 'march',
    meter: '6/8',
    tempo: '3/8=76',
    music: [
      '|:{g}e|{g}A2B {g}c2e|{ag}a2f {g}e2c|{Gdc}d2c {g}B2c|{gAd}A2B {g}c2e|',
      '{g}A2B {g}c2e|{ag}a2f {g}e2c|{g}d2B {g}c2B|{gAd}A3 {GdG}A2:|',
      '|:{g}e|{ag}a3 f2a|e2c {g}e2f|{g}d2f {g}e2c|{gBd}B3 {g}B2e|',
      '{ag}a3 f2a|e2c {g}A2B|{g}c2e {g}d2B|{gAd}A3 {GdG}A2:|',
    ],
  },
  {
    title: 'The Blue Wheelbarrow',
    rhythm: 'march',
    meter: '4/4',
    tempo: '1/4=76',
    music: [
      '|:{g}A>B|{gcd}c2 {g}e>c {g}A2 {g}A>B|{gcd}c>e {g}f>e {gBd}B2 {g}c>d|{gef}e2 {ag}a>f {g}e>c {GdG}A2|{g}f>e {g}c>A {gBd}B2 {g}A>B|',
      '{gcd}c2 {g}e>c {g}A2 {g}A>B|{gcd}c>e {g}f>a {ef}e2 {g}f>g|{ag}a>e {g}f>c {Gdc}d>B {g}e>c|{gAd}A2 {GdG}A2 {g}A2:|',
      '|:{g}e>g|{ag}a2 e>f {a}g>e {g}c2|{gde}d>f {g}e>c {gBd}B2 {g}e>g|{ag}a2 f>e {g}c>e {GdG}A2|{g}d>c {g}B>d {gcd}c2 {g}e>g|',
      '{ag}a2 e>f {a}g>e {g}c2|{gde}d>f {g}e>c {gBd}B2 {g}c>d|{gef}e>a f>e {g}c>d {g}B>c|{gAd}A2 {GdG}A2 {g}A2:|',
    ],
  },
  {
    title: 'Evening over Skellow Tarn',
    rhythm: 'retreat march',
    meter: '3/4',
    tempo: '1/4=80',
    music: [
      '|:{g}A2 {g}A>B {g}c>e|{gef}e2 {g}f>e {g}c>A|{g}B2 {g}B>c {g}d>f|{gef}e4 {g}c2|',
      '{g}A2 {g}A>B {g}c>e|{ag}a2 f>e {g}c>A|{g}B>d {g}c>B {g}A>G|{gAd}A6:|',
      '|:{ag}a2 {g}a>f {g}e>c|{Gdc}d2 {g}e>d {g}c>A|{g}B2 {g}c>d {g}e>f|{gef}e4 {g}c>e|',
      '{ag}a2 {g}a>f {g}e>c|{Gdc}d2 {g}f>d {g}c>A|{g}B>d {g}c>B {g}A>G|{gAd}A6:|',
    ],
  },
  {
    title: "Madam Plover's Umbrella",
    rhythm: 'strathspey',
    meter: '4/4',
    tempo: '1/4=112',
    music: [
      '|:{g}A>B {g}c<e {g}A>c {g}e>c|{Gdc}d>B {g}G<B {g}d>e {a}g>d|{g}A>B {g}c<e {g}A>c {g}e>f|{ag}a>e {g}f<d {gcd}c2 {GdG}A2|',
      '{g}A>B {g}c<e {g}A>c {g}e>c|{Gdc}d>B {g}G<B {g}d>e {a}g>d|{g}c<e {ag}a>f {g}e>c {g}f>d|{gcd}c>A {g}B<e {gAd}A2 {GdG}A2:|',
      '|:{ag}a>e {g}f<a e>c {g}A<e|{a}g>d {g}e<g {ade}d>B {g}G<B|{ag}a>e {g}f<a e>f {ag}a>f|{g}e>c {g}f<d {gcd}c2 {GdG}A2|',
      '{ag}a>e {g}f<a e>c {g}A<e|{a}g>d {g}e<g {ade}d>B {g}G<B|{g}c<e {ag}a>f {g}e>c {g}f>d|{gcd}c>A {g}B<e {gAd}A2 {GdG}A2:|',
    ],
  },
  {
    title: 'The Gooseberry Clerk',
    rhythm: 'strathspey',
    meter: '4/4',
    tempo: '1/4=108',
    music: [
      '|:{g}B|{g}A<A {g}c>A {g}e>A {g}c>e|{Gdc}d>f {gef}e<c {gBd}B2 {g}B>e|{g}A<A {g}c>A {g}e>A {g}c>e|{g}f>e {g}c<B {gAd}A2 {GdG}A>B|',
      '{g}A<A {g}c>A {g}e>A {g}c>e|{Gdc}d>f {gef}e<c {gBd}B2 {g}c>d|{gef}e>a f<e {g}c>e {g}d<f|{g}e>c {g}d<B {gAd}A2 {GdG}A:|',
      '|:{g}e|{ag}a>f {g}e<c a>f {g}e<c|{g}d>f {g}e<c {gBd}B2 {g}B>e|{ag}a>f {g}e<c a>f {g}e<c|{g}f>e {g}c<B {gAd}A2 {GdG}A>e|',
      '{ag}a>f {g}e<c a>f {g}e<c|{g}d>f {g}e<c {gBd}B2 {g}c>d|{gef}e>a f<e {g}c>e {g}d<f|{g}e>c {g}d<B {gAd}A2 {GdG}A:|',
    ],
  },
  {
    title: 'Thimbles in the Hayloft',
    rhythm: 'reel',
    meter: '2/2',
    tempo: '1/2=80',
    music: [
      '|:{g}A2 {g}c>A {g}e>A {g}c>A|{gBd}B2 {g}d>B {a}g>B {g}d>B|{g}A2 {g}c>A {g}e>A {g}c>e|{ag}a>e {g}f>d {gcd}c2 {GdG}A2|',
      '{g}A2 {g}c>A {g}e>A {g}c>A|{gBd}B2 {g}d>B {a}g>B {g}d>B|{g}c>e {ag}a>e {g}f>e {g}d>B|{g}e>c {g}d>B {gAd}A2 {GdG}A2:|',
      '|:{ag}a2 e>a c>a e>c|{Gdc}d2 {a}g>d {gBd}B>d {g}G>B|{ag}a2 e>a c>a e>c|{g}f>e {g}d>B {gcd}c2 {GdG}A2|',
      '{ag}a2 e>a c>a e>c|{Gdc}d2 {a}g>d {gBd}B>d {g}G>B|{g}c>e {ag}a>e {g}f>e {g}d>B|{g}e>c {g}d>B {gAd}A2 {GdG}A2:|',
    ],
  },
  {
    title: 'The Runaway Teaspoon',
    rhythm: 'reel',
    meter: '2/2',
    tempo: '1/2=76',
    music: [
      '|:{g}e2 {g}f>e {g}c>e {g}A>c|{Gdc}d2 {g}e>d {gBd}B>d {g}G>B|{gef}e2 {g}f>e {g}c>e {g}A>c|{g}B>e {g}c>B {gAd}A2 {GdG}A>c|',
      '{gef}e2 {g}f>e {g}c>e {g}A>c|{Gdc}d2 {g}e>d {gBd}B>d {g}G>B|{g}A>c {g}e>a f>e {g}c>e|{g}d>B {g}c>B {gAd}A2 {GdG}A2:|',
      '|:{g}c>e {ag}a>e {g}f>a e>c|{g}B>d {a}g>d {g}e>g {a}d>B|{g}c>e {ag}a>e {g}f>a e>c|{g}B>e {g}c>B {gAd}A2 {GdG}A2|',
      '{g}c>e {ag}a>e {g}f>a e>c|{g}B>d {a}g>d {g}e>g {a}d>B|{g}A>c {g}e>a f>e {g}c>e|{g}d>B {g}c>B {gAd}A2 {GdG}A2:|',
    ],
  },
  {
    title: 'Marmalade for the Ferryman',
    rhythm: 'jig',
    meter: '6/8',
    tempo: '3/8=108',
    music: [
      '|:{g}AcA {g}eAc|{g}BdB {a}gBd|{g}AcA {g}ece|{ag}aec {g}dBG|',
      '{g}AcA {g}eAc|{g}BdB {a}gBd|{g}cec {g}dfd|{g}ecB {GdG}A3:|',
      '|:{ag}aec aec|{a}gdB {a}gdB|{ag}aec {g}efa|fed {gcd}c2e|',
      '{ag}aec aec|{a}gdB {a}gdB|{g}cec {g}dfd|{g}ecB {GdG}A3:|',
    ],
  },
  {
    title: "The Hedgehog's Ladder",
    rhythm: 'jig',
    meter: '6/8',
    tempo: '3/8=100',
    music: [
      '|:{g}e|{g}cAc {g}e2f|{g}ecA {gBd}B2e|{g}cAc {g}efa|fec {GdG}A2e|',
      '{g}cAc {g}e2f|{g}ecA {gBd}B2d|{g}ceA {g}dfB|{g}ecB {gAd}A2:|',
      '|:{g}e|{ag}a2e {g}fdf|{g}ecA {gBd}B2e|{ag}a2e {g}fga|fec {GdG}A2e|',
      '{ag}a2e {g}fdf|{g}ecA {gBd}B2d|{g}ceA {g}dfB|{g}ecB {gAd}A2:|',
    ],
  },
  {
    title: 'Lanterns on Orrin Water',
    rhythm: 'slow air',
    meter: '3/4',
    tempo: '1/4=54',
    music: [
      '|:{g}A2|{gcd}c3 d e2|{g}f2 {g}e2 c2|{gBd}B3 A {g}c2|{gef}e4 {g}A2|',
      '{gcd}c3 d e2|{ag}a2 f2 e2|{g}c3 B {g}B2|{gAd}A4:|',
      '|:{g}e2|{ag}a3 g f2|{g}e2 {g}c2 A2|{Gdc}d3 c {g}B2|{gef}e4 {g}A2|',
      '{gcd}c3 d e2|{ag}a2 f2 e2|{g}c3 B {g}B2|{gAd}A4:|',
    ],
  },
  {
    title: 'Slow Snow on Vell Street',
    rhythm: 'slow air',
    meter: '4/4',
    tempo: '1/4=58',
    music: [
      '{g}A2 e2 {gef}e3 d|{gcd}c2 A2 {gBd}B4|{g}c2 e2 {ag}a3 e|{g}f2 d2 {gef}e4|',
      '{g}A2 e2 {gef}e3 d|{gcd}c2 A2 {gBd}B3 c|{Gdc}d2 f2 {g}e2 c2|{gBd}B2 G2 {gAd}A4|]',
      '{ag}a2 e2 {gfg}f3 e|{g}c2 e2 {gBd}B4|{g}A2 c2 {g}e2 a2|{gf}g2 d2 {gef}e4|',
      '{ag}a2 e2 {gfg}f3 e|{gcd}c2 A2 {gBd}B3 c|{Gdc}d2 f2 {g}e2 c2|{gBd}B2 G2 {gAd}A4|]',
    ],
  },
];

const whistleTunes: readonly DemoTune[] = [
  {
    title: 'The Kettle on Skellow Stair',
    rhythm: 'jig',
    meter: '6/8',
    tempo: '3/8=84',
    key: 'G',
    music: [
      '|:(GA)B (cB)A|(Bd)e d2B|(cB)A (BA)G|(AB)A A2D|(GA)B (cB)A|(Bd)e d2B|(cB)A (GF)A|G3 G3:|',
      '|:(de)f (ge)d|(Bd)e d2B|(cd)e (dB)G|(AB)A A2d|(de)f (ge)d|(Bd)e d2B|(cB)A (GF)A|G3 G3:|',
    ],
  },
  {
    title: 'Two Lanterns at Vell Ford',
    rhythm: 'slow air',
    meter: '3/4',
    tempo: '1/4=66',
    key: 'Dmix',
    music: [
      '|:(A2 cA) G2|(A2 cA) d2|(fe) (dc) (AG)|A4 D2|(A2 cA) G2|(FG) A2 d2|(cA) (GE) (FG)|D6:|',
      '|:d2 (ef) g2|(fe) d2 A2|(cA) c2 d2|A6|d2 (ef) a2|(gf) (ed) c2|(AG) (EF) G2|D6:|',
    ],
  },
  {
    title: 'Hymn for the Lamplighter',
    rhythm: 'hymn',
    meter: '4/4',
    tempo: '1/4=76',
    key: 'D',
    music: ['D4 F2 G2|A4 F4|G2 F2 E2 D2|A,4 D4|F4 G2 A2|B4 A4|G2 F2 E2 C2|D8|]'],
  },
];

const recorderTunes: readonly DemoTune[] = [
  {
    title: 'Nine Beans in a Boot',
    rhythm: 'march',
    meter: '4/4',
    tempo: '1/4=92',
    key: 'F',
    music: [
      '|:F2 A2 c2 A2|B2 d2 c4|A2 c2 B2 G2|A2 F2 G4|F2 A2 c2 A2|B2 d2 f4|e2 c2 d2 e2|f4 F4:|',
      '|:(fe) (dc) d2 B2|c2 A2 F4|G2 B2 A2 c2|B2 G2 c4|(fe) (dc) d2 B2|c2 A2 F2 D2|C2 E2 G2 B2|A2 G2 F4:|',
    ],
  },
  {
    title: 'Buttons on the Stair',
    rhythm: 'song',
    meter: '4/4',
    tempo: '1/4=88',
    key: 'G',
    music: [
      'B2 A2 G4|B2 A2 G4|A2 A2 B2 B2|A8|',
      'w:But-ton one, but-ton two, fell up-on the stair,',
      'B2 A2 G4|B2 A2 G4|A2 B2 A2 B2|G8|]',
      'w:roll-ing off, roll-ing off, no-bo-dy knows where.',
    ],
  },
  {
    title: "The Goose's Umbrella",
    rhythm: 'song',
    meter: '3/4',
    tempo: '1/4=96',
    key: 'G',
    music: ['G2 A2 B2|c4 B2|A2 B2 A2|G6|G2 A2 B2|c4 c2|B2 A2 A2|G6|]'],
  },
  {
    title: 'Lamplight on Vell Street',
    rhythm: 'song',
    meter: '4/4',
    tempo: '1/4=80',
    key: 'G',
    music: ['d4 B2 c2|d4 B4|c2 B2 A2 B2|G8|d4 B2 c2|d4 B4|c2 A2 B2 A2|G8|]'],
  },
  {
    title: 'Owl on the Gatepost',
    rhythm: 'song',
    meter: '4/4',
    tempo: '1/4=84',
    key: 'G',
    music: ['G2 E2 G2 A2|B4 G4|A2 G2 A2 B2|A8|G2 E2 G2 A2|B4 d4|c2 B2 A2 B2|G8|]'],
  },
  {
    title: 'Pennies in the Orrin Well',
    rhythm: 'march',
    meter: '2/4',
    tempo: '1/4=96',
    key: 'Em',
    music: ['E2 G2|A2 B2|A2 G2|E4|E2 G2|A2 c2|B2 A2|G2 E2|]'],
  },
  {
    title: 'Two Odd Socks',
    rhythm: 'march',
    meter: '4/4',
    tempo: '1/4=100',
    key: 'G',
    music: ['G2 A2 B2 c2|d2 B2 G4|A2 F2 G2 A2|B2 G2 A4|G2 A2 B2 c2|d2 B2 G4|A2 F2 A2 F2|G8|]'],
  },
  {
    title: 'The Tall Kettle',
    rhythm: 'round',
    meter: '4/4',
    tempo: '1/4=92',
    key: 'G',
    music: ['G4 B4|d4 B4|B4 d4|B2 c2 d4|d2 c2 B2 c2|d4 B4|G4 A2 B2|G8|]'],
  },
];

const ocarinaTunes: readonly DemoTune[] = [
  {
    title: 'Moth at the Window',
    rhythm: 'waltz',
    meter: '3/4',
    tempo: '1/4=104',
    key: 'C',
    music: ['|:c2 e2 d2|c2 A2 B2|c2 d2 e2|d6|c2 e2 g2|f2 d2 e2|d2 B2 d2|c6:|', "|:g2 (ag) f2|e2 (fe) d2|c2 e2 g2|f6|g2 (ag) f2|e2 c'2 _b2|a2 f2 d2|c6:|"],
  },
];

const irishTunes: readonly DemoTune[] = [
  {
    title: 'Turf Smoke over Orrin Sound',
    rhythm: 'slow air',
    meter: '4/4',
    tempo: '1/4=60',
    key: 'D',
    music: [
      '|:D2 F2 A3 B|A2 F2 E4|D2 F2 A2 d2|B2 c2 A4|d2 c2 B3 A|G2 B2 A2 F2|E2 D2 E2 F2|D8:|',
      '|:d2 e2 f3 e|d2 c2 B4|=c2 A2 G2 B2|A2 F2 E4|d2 e2 f3 g|f2 e2 d2 B2|A2 F2 E2 F2|D8:|',
    ],
  },
];

const bookOf = (tunes: readonly DemoTune[]): string =>
  tunes
    .map((tune, index) => {
      const head = [`X:${index + 1}`, `T:${tune.title}`, `R:${tune.rhythm}`, `M:${tune.meter}`, 'L:1/8', `Q:${tune.tempo}`, `K:${tune.key ?? 'HP'}`];
      return `${[...head, ...tune.music].join('\n')}\n`;
    })
    .join('\n');

/** The demo's tunes for the practice chanter as one ABC book. */
export const demoBook = bookOf(chanterTunes);

/** The demo's tunes as ABC books, the chanter's first. */
export const demoBooks: readonly { readonly instrument: string; readonly abc: string }[] = [
  { instrument: 'practice-chanter', abc: demoBook },
  { instrument: 'whistle-d', abc: bookOf(whistleTunes) },
  { instrument: 'recorder-soprano-german', abc: bookOf(recorderTunes) },
  { instrument: 'ocarina-12-c-split', abc: bookOf(ocarinaTunes) },
  { instrument: 'irish-chanter-d', abc: bookOf(irishTunes) },
];
