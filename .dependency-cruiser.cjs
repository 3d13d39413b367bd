/** The arrows of the house: a module knows those below it, never those above. Tests of painting take fonts from Node. */
const only = (from, allowed) => ({
  name: `${from} knows only ${allowed.join(', ') || 'itself'}`,
  severity: 'error',
  from: { path: `^packages/${from}/src/`, pathNot: '^packages/(paint|film)/src/.*\\.test\\.ts$' },
  to: { path: '^packages/', pathNot: `^packages/(${[from, ...allowed].join('|')})/` },
});

/** Inside core, in the order in which data flows: each folder knows those before it. */
const flow = [
  'time',
  'text',
  'listen',
  'formats',
  'weave',
  'conform',
  'movement',
  'pace',
  'programme',
  'mix',
  'scene',
  'check',
  'rows',
];
const inside = flow.map((folder, place) => ({
  name: `core/${folder} knows only what comes before it`,
  severity: 'error',
  from: { path: `^packages/core/src/${folder}/` },
  to: {
    path: '^packages/core/src/',
    pathNot: `^packages/core/src/(${flow.slice(0, place + 1).join('|')})/`,
  },
}));

/**
 * Inside web, lowest first: each layer knows those before it. The places stand beside each other: none knows another,
 * and what two of them need is in a layer below.
 */
const layers = [
  ['sync'],
  ['workers'],
  ['playback'],
  ['desk'],
  ['kit'],
  ['picture'],
  ['strands'],
  ['proof'],
  ['listening'],
  ['weaving'],
  ['bringing'],
  ['writing'],
  ['programmes', 'material', 'words', 'timing', 'travel', 'patterns', 'handover'],
  ['shell'],
];
const insideWeb = layers.flatMap((layer, at) =>
  layer.map((folder) => ({
    name: `web/${folder} knows only the layers below it`,
    severity: 'error',
    from: { path: `^packages/web/src/${folder}/` },
    to: {
      path: '^packages/web/src/',
      pathNot: `^packages/web/src/(${[folder, ...layers.slice(0, at).flat()].join('|')})/`,
    },
  })),
);

module.exports = {
  forbidden: [
    only('core', []),
    only('paint', ['core']),
    only('film', ['core', 'paint']),
    only('node', ['core', 'paint', 'film']),
    only('server', ['core', 'paint', 'film', 'node']),
    only('cli', ['core', 'paint', 'film', 'node']),
    only('web', ['core', 'paint', 'film']),
    ...inside,
    ...insideWeb,
    {
      name: 'every folder of web is in a layer',
      severity: 'error',
      from: {
        path: '^packages/web/src/',
        pathNot: `^packages/web/src/((${layers.flat().join('|')})/|css\\.d\\.ts)`,
      },
      to: {},
    },
    {
      name: 'core is pure',
      severity: 'error',
      from: { path: '^packages/core/src', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    { name: 'no circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'resolvable',
      severity: 'error',
      from: {},
      to: { couldNotResolve: true },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: 'dist/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      extensions: ['.ts', '.tsx', '.mjs', '.js', '.json'],
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
    },
  },
};
