const { createHash } = require('node:crypto');
const { getDefaultConfig } = require('expo/metro-config');
const { versionOfBarrels } = require('./bundling/straightImports');

const config = getDefaultConfig(__dirname);

// What is kept of an earlier build names the files that held each name then.
config.cacheVersion = createHash('sha256').update(versionOfBarrels()).digest('hex');

// A module runs when something of it is first used, so that a screen's own modules wait for the screen.
config.transformer.getTransformOptions = () =>
  Promise.resolve({ transform: { experimentalImportSupport: true, inlineRequires: true } });

module.exports = config;
