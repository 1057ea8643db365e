import js from '@eslint/js';
import globals from 'globals';
import tseslint from 'typescript-eslint';

/**
 * The layers, highest first. A file may import from its own layer and from those below it, never from those above.
 * `engine` uses the bundled collector of `page` as text, so `page` stands below it.
 */
const LAYERS = ['cli', 'live', 'report', 'run', 'site', 'engine', 'page', 'core'];

const layerRules = LAYERS.map((layer, i) => ({
  files: [`src/${layer}/**/*.{ts,tsx}`],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          ...(i === 0
            ? []
            : [
                {
                  regex: `^(\\.\\./)+(${LAYERS.slice(0, i).join('|')})/`,
                  message: `src/${layer} may not import from a layer above it.`,
                },
              ]),
          ...(layer === 'core'
            ? [
                { regex: '^node:', message: 'src/core is pure: no Node modules.' },
                {
                  regex: '^(puppeteer-core|sharp|pino|commander|sirv|tar|ora|yaml|preact)',
                  message: 'src/core is pure: no browser, no file, no interface.',
                },
              ]
            : []),
        ],
      },
    ],
  },
}));

export default tseslint.config(
  { ignores: ['dist', 'node_modules', '.setup', 'isoptic-runs', 'coverage', 'demo/**/*.js'] },
  js.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    extends: [...tseslint.configs.strictTypeChecked],
    languageOptions: {
      parserOptions: {
        project: [
          './tsconfig.json',
          './src/*/tsconfig.json',
          './src/report/client/tsconfig.json',
          './test/tsconfig.json',
        ],
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      // Indexed reads of typed arrays inside checked bounds are the normal case here.
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      '@typescript-eslint/no-confusing-void-expression': [
        'error',
        { ignoreArrowShorthand: true, ignoreVoidOperator: true, ignoreVoidReturningFunctions: true },
      ],
      '@typescript-eslint/consistent-type-imports': 'error',
    },
  },
  {
    files: ['src/core/**/*.ts'],
    rules: {
      'no-restricted-globals': [
        'error',
        ...[
          'process',
          'Buffer',
          'window',
          'document',
          'fetch',
          'setTimeout',
          'setInterval',
          'console',
          'performance',
        ].map((name) => ({ name, message: 'src/core is pure: no system, no DOM, no clock.' })),
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'src/core has no clock.' },
        { object: 'Math', property: 'random', message: 'src/core is deterministic.' },
      ],
    },
  },
  ...layerRules,
  { files: ['**/*.{js,mjs}'], languageOptions: { globals: globals.node } },
);
