/** Which way the arrows point: docs/architecture.md draws them. */
const order = [
  'fault',
  'pitch',
  'fingering',
  'acoustics',
  'change',
  'timing',
  'playing',
  'proof',
  'movement',
  'lanes',
  'tune',
  'line',
  'plan',
  'sound',
  'hearing',
];

const upwards = order.slice(0, -1).map((folder, index) => ({
  name: `core-${folder}-knows-nothing-later`,
  severity: 'error',
  from: { path: `^packages/core/src/${folder}/`, pathNot: '\\.spec\\.ts$' },
  to: { path: `^packages/core/src/(${order.slice(index + 1).join('|')})/` },
}));

module.exports = {
  forbidden: [
    ...upwards,
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-stands-alone',
      comment: 'The core imports no DOM, no Node, no Angular, no Express: only itself and zod.',
      severity: 'error',
      from: { path: '^packages/core/src/', pathNot: '\\.spec(-support)?\\.ts$' },
      to: { pathNot: '^packages/core/src/|(^|/)node_modules/zod/' },
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
      severity: 'error',
      from: { path: '^apps/server/src/', pathNot: '\\.repository\\.ts$|/database/|/demo/|/testing/|\\.spec\\.ts$|/platform/|main\\.ts$' },
      to: { path: '/database/entities' },
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
