/* Folders look at each other one way only, tests and what they share apart. */
const base = require('./.dependency-cruiser.cjs');

module.exports = {
  forbidden: [
    {
      name: 'no circles between folders',
      severity: 'error',
      scope: 'folder',
      from: {},
      to: { circular: true },
    },
  ],
  options: {
    ...base.options,
    exclude: { path: `(${base.options.exclude.path}|\\.test\\.tsx?$|/src/test/)` },
  },
};
