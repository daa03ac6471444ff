/** Which way the arrows point: docs/architecture.md draws them. */
const coreOrder = [
  'fault',
  'words',
  'pitch',
  'fingering',
  'acoustics',
  'change',
  'timing',
  'playing',
  'proof',
  'movement',
  'lanes',
  'score',
  'tune',
  'form',
  'excerpt',
  'chunk',
  'script',
  'proofreading',
  'arrange',
  'line',
  'line-sets',
  'plan',
  'practice',
  'review',
  'sound',
  'hearing',
  'listening',
];

/** The floors of the web application from the ground up, each with its folders in order. */
const webFloors = {
  kernel: ['words', 'files', 'theme', 'api', 'session', 'notices', 'keys', 'sentence', 'chooser', 'tip', 'parts', 'wide', 'saving'],
  studio: ['shelf', 'state', 'movement-book', 'trials', 'attempts', 'lessons', 'jobs', 'takes'],
  music: ['wording', 'lanes', 'score', 'sound', 'midi', 'microphone', 'listening', 'spoken-words', 'fingers', 'lines', 'paper', 'export'],
  documents: ['sheet', 'tune', 'model'],
};
const webOrder = Object.entries(webFloors).flatMap(([floor, folders]) => folders.map((folder) => `${floor}/${folder}`));

/** Each folder of an order imports only what comes before it. */
const upwards = (name, root, order) =>
  order.slice(0, -1).map((folder, index) => ({
    name: `${name}-${folder.replaceAll('/', '-')}-knows-nothing-later`,
    severity: 'error',
    from: { path: `^${root}/${folder}/`, pathNot: '\\.spec\\.ts$' },
    to: { path: `^${root}/(${order.slice(index + 1).join('|')})/` },
  }));

const core = 'packages/core/src';
const web = 'apps/web/src/app';

module.exports = {
  forbidden: [
    ...upwards('core', core, coreOrder),
    ...upwards('web', web, webOrder),
    {
      name: 'web-and-contract-take-the-core-by-folder',
      comment: 'The whole core would come with the first page.',
      severity: 'error',
      from: { path: '^(apps/web/src|packages/contract/src)/', pathNot: '\\.spec\\.ts$' },
      to: { path: '^packages/core/src/index\\.ts$' },
    },
    {
      name: 'web-floors-know-no-page',
      severity: 'error',
      from: { path: `^${web}/(${Object.keys(webFloors).join('|')})/`, pathNot: '\\.spec\\.ts$' },
      to: { path: `^${web}/(pages/|[^/]+$)` },
    },
    {
      name: 'web-documents-are-strangers',
      severity: 'error',
      from: { path: `^${web}/documents/([^/]+)/` },
      to: { path: `^${web}/documents/`, pathNot: `^${web}/documents/$1/` },
    },
    {
      name: 'web-pages-are-strangers',
      severity: 'error',
      from: { path: `^${web}/pages/([^/]+)/` },
      to: { path: `^${web}/(pages/|[^/]+$)`, pathNot: `^${web}/pages/$1/` },
    },
    {
      name: 'web-folders-are-on-a-floor',
      comment: 'A new folder takes its place in `webFloors`, or is a page.',
      severity: 'error',
      from: {},
      to: { path: `^${web}/[^/]+/`, pathNot: `^${web}/(pages|${webOrder.join('|')})/` },
    },
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-stands-alone',
      comment: 'The core imports no DOM, no Node, no Angular, no Express: only itself, zod, and a Fourier transform.',
      severity: 'error',
      from: { path: `^${core}/`, pathNot: '\\.spec(-support)?\\.ts$' },
      to: { pathNot: `^${core}/|(^|/)node_modules/(zod|fft\\.js)/` },
    },
    {
      name: 'contract-knows-core-only',
      severity: 'error',
      from: { path: '^packages/contract/src/', pathNot: '\\.spec\\.ts$' },
      to: { pathNot: '^packages/|(^|/)node_modules/zod/' },
    },
    { name: 'server-and-web-are-strangers', severity: 'error', from: { path: '^apps/server/' }, to: { path: '^apps/web/' } },
    { name: 'web-and-server-are-strangers', severity: 'error', from: { path: '^apps/web/' }, to: { path: '^apps/server/' } },
    {
      name: 'persistence-in-repositories-only',
      comment: 'A repository and the archive part of its thing know the tables; a `*.thing.ts` names them for the list of all tables.',
      severity: 'error',
      from: { path: '^apps/server/src/', pathNot: '\\.(repository|archive|thing)\\.ts$|/things/tables\\.ts$|/demo/|/testing/|\\.spec\\.ts$' },
      to: { path: '\\.entit(y|ies)\\.ts$' },
    },
    { name: 'nothing-unresolved', severity: 'error', from: {}, to: { couldNotResolve: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(dist|\\.angular)/' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
      extensions: ['.ts', '.js', '.mjs', '.json'],
    },
  },
};
