/* Which room may take from which; a broken arrow breaks the build. */
const rooms = ['contract', 'core', 'server', 'app', 'e2e', 'scripts'];
const only = (from, ...to) => ({
  name: `${from} takes only from ${to.join(', ') || 'itself'}`,
  severity: 'error',
  // The storm drives the app's store against the server, from outside both.
  from: { path: `^${from}/`, pathNot: '(\\.test\\.tsx?$|^e2e/storm/)' },
  to: { path: `^(${rooms.filter((room) => room !== from && !to.includes(room)).join('|')})/` },
});

module.exports = {
  forbidden: [
    only('contract'),
    only('core', 'contract'),
    only('server', 'contract', 'core'),
    only('app', 'contract', 'core'),
    only('e2e'),
    {
      name: 'core takes only types from contract',
      severity: 'error',
      from: { path: '^core/src', pathNot: '\\.test\\.ts$' },
      to: { path: '^contract/', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'core is pure: no packages but draws from a seed, no Node, nothing of its tests',
      severity: 'error',
      from: { path: '^core/src', pathNot: '(\\.test\\.ts$|^core/src/test/)' },
      to: {
        path: '(^node_modules/(?!@keen-bleed|pure-rand/|flatqueue/|ml-matrix/)|^core/src/test/)',
      },
    },
    {
      name: 'core uses no built-in of Node',
      severity: 'error',
      from: { path: '^core/src' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'the browser takes the contract through its small doors alone',
      severity: 'error',
      from: { path: '^app/src', pathNot: '\\.test\\.tsx?$' },
      to: {
        path: '^contract/src/(?!forms\\.ts|doorForms\\.ts|photoName\\.ts|streamTimes\\.ts)',
        dependencyTypesNot: ['type-only'],
      },
    },
    {
      name: 'no circles',
      severity: 'error',
      from: { path: '^(contract|core|server|app)/src' },
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    {
      name: 'nothing outside tests takes from tests',
      severity: 'error',
      from: { pathNot: '(\\.test\\.tsx?$|/test/|^e2e/|^server/bench/)' },
      to: { path: '(\\.test\\.tsx?$|^server/src/test/)' },
    },
  ],
  options: {
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.arrows.json' },
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(/dist/|/dist\\.half/|/generated/)' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'default'],
    },
  },
};
