/* One run over all workspaces: plain Node for what has no screen, jest-expo for what has. */
const plain = (name) => ({
  displayName: name,
  rootDir: `./${name}`,
  testEnvironment: 'node',
  testMatch: ['<rootDir>/**/*.test.ts'],
  transform: {
    '^.+\\.(ts|js|mjs)$': [
      '@swc/jest',
      { jsc: { parser: { syntax: 'typescript' }, target: 'es2022' }, module: { type: 'commonjs' } },
    ],
  },
  transformIgnorePatterns: [
    '/node_modules/(?!@keen-bleed/|uuid/|flatqueue/|is-any-array/|ml-|d3-|internmap/|better-sse/)',
  ],
  moduleFileExtensions: ['ts', 'js', 'mjs', 'cjs', 'json'],
});

export default {
  // A guard against a test that hangs, wide enough for a busy machine.
  testTimeout: 60_000,
  projects: [
    plain('contract'),
    plain('core'),
    plain('server'),
    // Drives the app's own store against the real server, from outside both.
    { ...plain('e2e'), testMatch: ['<rootDir>/storm/**/*.test.ts'] },
    {
      displayName: 'app',
      preset: 'jest-expo/web',
      transform: { '\\.mjs$': ['babel-jest', { presets: ['babel-preset-expo'] }] },
      rootDir: './app',
      testMatch: ['<rootDir>/{src,bundling}/**/*.test.{js,ts,tsx}'],
      transformIgnorePatterns: [
        '/node_modules/(?!((jest-)?react-native[^/]*|@react-native(-community)?|expo(nent)?|@expo(nent)?/.*|expo-.*|@rneui/.*|react-native-svg|@keen-bleed/.*|uuid|flatqueue|d3-.*|internmap)/)',
      ],
    },
  ],
};
