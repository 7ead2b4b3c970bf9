import js from '@eslint/js';
import reactHooks from 'eslint-plugin-react-hooks';
import globals from 'globals';
import ts from 'typescript-eslint';

export default ts.config(
  {
    ignores: [
      '**/node_modules/',
      '**/dist/',
      '**/dist.half*/',
      '**/.expo/',
      'contract/generated/',
      'app/public/',
      '**/test-results/',
      '**/playwright-report/',
    ],
  },
  js.configs.recommended,
  {
    files: ['**/*.{ts,tsx,cts}'],
    extends: [...ts.configs.recommendedTypeChecked, ...ts.configs.stylisticTypeChecked],
    languageOptions: {
      parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname },
    },
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_' },
      ],
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      '@typescript-eslint/no-misused-promises': [
        'error',
        { checksVoidReturn: { arguments: false } },
      ],
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': [
        'error',
        { considerDefaultExhaustiveForUnions: true },
      ],
    },
  },
  {
    files: ['app/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    rules: reactHooks.configs.recommended.rules,
  },
  { files: ['**/*.{mjs,cjs,js}'], languageOptions: { globals: globals.node } },
  // What these hand to a page is run there.
  {
    files: ['scripts/bench.mjs', 'scripts/bench/*.mjs', 'scripts/shots.mjs'],
    languageOptions: { globals: { document: 'readonly', MutationObserver: 'readonly' } },
  },
);
