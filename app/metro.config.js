const { createHash } = require('node:crypto');
const { getDefaultConfig } = require('expo/metro-config');
const { versionOfBarrels } = require('./bundling/straightImports');

const config = getDefaultConfig(__dirname);

// What is kept of an earlier build names the files that held each name then.
config.cacheVersion = createHash('sha256').update(versionOfBarrels()).digest('hex');

// The border's own file asks each screen for its modules when the screen is first opened. Everywhere else a module is
// asked for once: asking at each use would cost arithmetic that runs a million times a second.
const everyFileBut = (name) => new Proxy({}, { has: (_, path) => !path.endsWith(name) });
config.transformer.getTransformOptions = () =>
  Promise.resolve({
    transform: {
      experimentalImportSupport: true,
      inlineRequires: { blockList: everyFileBut('/screens/beyondYard.ts') },
    },
  });

module.exports = config;
