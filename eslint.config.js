import js from '@eslint/js';
import globals from 'globals';
import tseslint from 'typescript-eslint';

/**
 * The layers, highest first. A file may import from its own layer and from those below it, never from those above.
 * `engine` uses the bundled collector of `page` as text, so `page` stands below it.
 */
const LAYERS = ['cli', 'api', 'wall', 'report', 'run', 'site', 'engine', 'page', 'core'];

/** The folders of the core, which are layers too. Those of one line stand beside one another and know nothing of each other. */
const CORE_LAYERS = [
  ['repair'],
  ['sweep', 'compare'],
  ['findings'],
  ['cause'],
  ['rules'],
  ['sightings'],
  ['intent'],
  ['delivery', 'fonts'],
  ['identity'],
  ['layout'],
  ['css'],
  ['profile'],
  ['geometry'],
];

/** What no file of a folder may import, as patterns of `no-restricted-imports`. */
const from = (folders, message) =>
  folders.length === 0 ? [] : [{ regex: `^(\\.\\./)+(${folders.join('|')})/`, message }];

const PURE = [
  { regex: '^node:', message: 'src/core is pure: no Node modules.' },
  {
    regex: '^(puppeteer-core|sharp|pino|commander|sirv|tar|ora|yaml|preact)',
    message: 'src/core is pure: no browser, no file, no interface.',
  },
];

const layerRule = (folder, patterns) => ({
  files: [`src/${folder}/**/*.{ts,tsx}`],
  rules: { 'no-restricted-imports': ['error', { patterns }] },
});

/** Only the engine itself knows which browsers there are. */
const DRIVERS = [
  {
    regex: '/engine/chromium/',
    message: 'What is one browser’s own stays behind src/engine: import from its other files.',
  },
];

const layerRules = [
  ...LAYERS.map((layer, i) =>
    layerRule(layer, [
      ...from(LAYERS.slice(0, i), `src/${layer} may not import from a layer above it.`),
      ...(['engine', 'page', 'core'].includes(layer) ? [] : DRIVERS),
      ...(layer === 'core' ? PURE : []),
    ]),
  ),
  ...CORE_LAYERS.flatMap((beside, i) =>
    beside.map((folder) =>
      layerRule(`core/${folder}`, [
        ...from(LAYERS.slice(0, -1), 'src/core may not import from a layer above it.'),
        ...from(
          [...CORE_LAYERS.slice(0, i).flat(), ...beside.filter((other) => other !== folder)],
          `src/core/${folder} may not import from a folder of the core that stands above or beside it.`,
        ),
        ...PURE,
      ]),
    ),
  ),
];

/** Rules that ask for types need the whole program read first, which takes a minute; `npm test` leaves them to `npm run verify`. */
const isTyped = process.env.LINT_TYPES !== 'no';

export default tseslint.config(
  { ignores: ['dist', 'node_modules', '.setup', 'isoptic-runs', 'coverage', 'demo/**/*.js'] },
  js.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    extends: [...tseslint.configs.strictTypeChecked],
    languageOptions: {
      parserOptions: {
        project: isTyped && [
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
  ...(isTyped ? [] : [{ files: ['**/*.{ts,tsx}'], rules: tseslint.configs.disableTypeChecked.rules }]),
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
  // Some of its functions run inside of pages.
  {
    files: ['bench/ratio.mjs', 'bench/report.mjs', 'bench/compare.mjs', 'bench/{unseen,compare}/*.mjs'],
    languageOptions: { globals: { ...globals.node, ...globals.browser } },
  },
);
