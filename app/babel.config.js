const { straightImports } = require('./bundling/straightImports');

module.exports = function babelConfig(api) {
  const isBundled = api.caller((caller) => caller?.bundler === 'metro');
  return {
    presets: ['babel-preset-expo'],
    plugins: isBundled ? [straightImports] : [],
  };
};
