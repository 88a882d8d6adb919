import { builtinModules } from 'node:module';
import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import vue from 'eslint-plugin-vue';
import globals from 'globals';
import ts from 'typescript-eslint';

/** Names that exist only in a browser or only in Node: core may use neither. */
const es = new Set(Object.keys(globals.es2021));
const platformGlobals = [...new Set([...Object.keys(globals.browser), ...Object.keys(globals.node)])].filter(
  (name) => !es.has(name),
);

const forbid = (message, ...regexes) => regexes.map((regex) => ({ regex, message }));

const NO_HTTP = forbid('The domain, services and queries know no HTTP and no schemas.', '^express$', '^joi$');
const NO_SELECT = {
  regex: '/db/work\\.ts$',
  importNames: ['select'],
  message: 'SQL stands in *.queries.ts and *.repository.ts.',
};

export default ts.config(
  { ignores: ['**/dist/**', '.data/**', 'node_modules/**', 'test-results/**', '**/*.d.mts'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...vue.configs['flat/essential'].map((config) => ({
    ...config,
    files: config.files ?? ['web/**/*.{ts,vue}'],
  })),
  {
    files: ['web/**/*.{ts,vue}'],
    rules: {
      'vue/no-v-html': 'error',
      'vue/multi-word-component-names': 'off',
      'vue/no-restricted-syntax': [
        'error',
        {
          selector:
            "VElement[rawName='v-progress-linear'] > VStartTag:not(:has(VIdentifier[name='aria-label']))",
          message: 'A progress bar says by aria-label what goes on.',
        },
      ],
    },
  },
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: ts.parser } } },
  {
    languageOptions: { globals: { ...globals.browser, ...globals.node } },
    rules: {
      'no-undef': 'off',
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      'max-lines': ['error', { max: 300 }],
      'max-lines-per-function': ['error', { max: 60, skipComments: true, skipBlankLines: true }],
      complexity: ['error', 20],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
    },
  },
  {
    // Rules that need types: a promise that nobody waits for, a case that was forgotten.
    files: [
      '{core,contract,lineage,words,cli,server,web}/src/**/*.ts',
      'web/src/**/*.vue',
      'server/test/**/*.ts',
      'e2e/**/*.ts',
    ],
    ignores: ['core/src/**/*.test.ts'],
    languageOptions: {
      parserOptions: {
        projectService: true,
        tsconfigRootDir: import.meta.dirname,
        extraFileExtensions: ['.vue'],
      },
    },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: false }],
      '@typescript-eslint/await-thenable': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': [
        'error',
        { considerDefaultExhaustiveForUnions: true },
      ],
    },
  },
  {
    // Core is pure computation: no platform, no other workspace, no clock, no dice.
    files: ['core/src/**/*.ts'],
    ignores: ['core/src/**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          paths: builtinModules.map((name) => ({ name, message: 'Core imports nothing of Node.' })),
          patterns: forbid(
            'Core imports no platform and no other workspace.',
            '^node:',
            '^@karyotome/',
            '/(server|web|contract|lineage|cli)/',
            '^(vue|vuetify|express|sequelize|joi|pinia)',
          ),
        },
      ],
      'no-restricted-globals': ['error', ...platformGlobals],
      'no-restricted-syntax': [
        'error',
        { selector: 'ImportExpression', message: 'Core imports statically.' },
        {
          selector: "MemberExpression[object.name='Math'][property.name='random']",
          message: 'Randomness is a parameter.',
        },
        {
          selector: "MemberExpression[object.name='Date'][property.name='now']",
          message: 'Today is a parameter.',
        },
        {
          selector: "NewExpression[callee.name='Date'][arguments.length=0]",
          message: 'Today is a parameter.',
        },
      ],
    },
  },
  {
    // The web talks to the server through one client, and never imports it.
    files: ['web/src/**/*.{ts,vue}'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: forbid(
            'The web imports core and contract only.',
            '^@karyotome/server',
            '/server/',
            '^node:',
          ),
        },
      ],
      'no-restricted-globals': ['error', { name: 'fetch', message: 'Use api/client.ts.' }],
    },
  },
  { files: ['web/src/api/client.ts'], rules: { 'no-restricted-globals': 'off' } },
  {
    // What is recorded is dated by one clock, which can be put ahead.
    files: ['server/src/{db,demo,domain,features,post}/**/*.ts'],
    ignores: ['server/src/features/pages/page-cache.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        { selector: "MemberExpression[object.name='Date'][property.name='now']", message: 'Use clock.ts.' },
        { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: 'Use clock.ts.' },
      ],
    },
  },
  {
    // SQL stands in named queries and repositories; what decides asks those.
    files: ['server/src/**/*.ts'],
    ignores: ['server/src/**/*.queries.ts', 'server/src/**/*.repository.ts', 'server/src/{db,demo}/**'],
    rules: { 'no-restricted-imports': ['error', { patterns: [NO_SELECT] }] },
  },
  {
    // Services know no HTTP.
    files: ['server/src/**/*.service.ts', 'server/src/domain/**/*.ts'],
    ignores: ['server/src/**/*.queries.ts', 'server/src/**/*.repository.ts'],
    rules: {
      'no-restricted-imports': ['error', { patterns: [...NO_HTTP, NO_SELECT] }],
    },
  },
  {
    files: ['server/src/**/*.queries.ts', 'server/src/**/*.repository.ts'],
    rules: { 'no-restricted-imports': ['error', { patterns: NO_HTTP }] },
  },
  {
    files: ['server/src/**/*.ts'],
    ignores: ['server/src/config.ts', 'server/src/main.ts', 'server/src/admin.ts', 'server/src/demo/**'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: "MemberExpression[object.name='process'][property.name='env']",
          message: 'Only config.ts reads the environment.',
        },
      ],
    },
  },
  {
    files: ['{core,contract,lineage,words,cli,server,web}/src/**/*.ts', 'web/src/**/*.vue'],
    ignores: ['**/*.test.ts'],
    rules: {
      '@typescript-eslint/no-unnecessary-condition': ['error', { allowConstantLoopConditions: true }],
    },
  },
  {
    // A suite is a list of tests, and a journey a list of steps: each of those is short.
    files: ['**/*.test.ts', '**/*.spec.ts', 'server/test/**', 'bench/**', 'core/test/**'],
    rules: { 'max-lines-per-function': 'off', complexity: 'off' },
  },
  {
    // A composable or a store is one function that holds others: each of those is short.
    files: [
      'server/src/http/endpoint.ts',
      'web/src/features/bench/{useObservations,usePictureQueue,useSorting}.ts',
      'web/src/features/eggs/useBox.ts',
      'web/src/features/racks/useMoving.ts',
      'web/src/offline/useRoundQueue.ts',
      'web/src/stores/session.ts',
      'web/src/workers/usePlanner.ts',
    ],
    rules: { 'max-lines-per-function': ['error', { max: 220, skipComments: true, skipBlankLines: true }] },
  },
  // A form for five kinds of entry begins with a default for each field.
  { files: ['web/src/features/genes/EntryDialog.vue'], rules: { complexity: ['error', 25] } },
  // Playwright reads a fixture's needs from its first parameter: one that needs nothing is written {}.
  { files: ['e2e/**/*.ts'], rules: { 'no-empty-pattern': 'off' } },
  prettier,
);
