/** The rooms of the house: each may import only from rooms above it. core → drawing → server → ui → app, cli. */
const room = (name) => `^src/${name}/`;

module.exports = {
  forbidden: [
    {
      name: 'core-is-pure',
      severity: 'error',
      comment: 'The core imports nothing but itself, and curves and transforms that are pure arithmetic.',
      from: { path: room('core'), pathNot: '\\.test(ing)?\\.ts$' },
      to: { pathNot: [room('core'), 'node_modules/(d3-ease|fft\\.js)'] },
    },
    {
      name: 'drawing-below-core-only',
      severity: 'error',
      from: { path: room('drawing'), pathNot: '\\.test(ing)?\\.ts$' },
      to: { path: '^src/(server|ui|app|cli|pages)/' },
    },
    {
      name: 'drawing-runs-anywhere',
      severity: 'error',
      comment: 'No Node, no React in the drawing room: it runs unchanged in a browser worker.',
      from: { path: room('drawing'), pathNot: '\\.test(ing)?\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'server-not-from-ui',
      severity: 'error',
      from: { path: room('server') },
      to: { path: '^src/(ui|app|cli|pages)/' },
    },
    {
      name: 'ui-takes-only-types-from-server',
      severity: 'error',
      comment: 'The interface runs in the browser.',
      from: { path: room('ui'), pathNot: '\\.test(ing)?\\.ts$' },
      to: { path: room('server'), dependencyTypesNot: ['type-only'] },
    },
    { name: 'ui-not-from-app', severity: 'error', from: { path: room('ui') }, to: { path: '^src/(app|cli|pages)/' } },
    { name: 'cli-not-from-ui', severity: 'error', from: { path: room('cli') }, to: { path: '^src/(ui|app|pages)/' } },
    {
      name: 'no-circles',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    {
      name: 'yup-at-the-edge',
      severity: 'error',
      comment: 'Validation happens once, at the edge.',
      from: { path: '^src/(core|drawing|ui)/' },
      to: { path: 'node_modules/yup' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '^src/drawing/kernels/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'default'] },
  },
};
