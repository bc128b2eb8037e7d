import js from '@eslint/js'
import ts from 'typescript-eslint'
import vue from 'eslint-plugin-vue'

/** A floor of the house may import only from the floors below it (docs in README, "Where things are"). */
const floor = (files, banned, why) => ({
  files,
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: banned.map((group) => ({ group: [group], message: why })),
      },
    ],
  },
})

const frameworks = [
  'vue',
  'pg',
  'piscina',
  '@tanstack/**',
  'vue-router',
  'pinia',
  'primevue/**',
  'hono',
  'hono/**',
  '@hono/**',
  '@electric-sql/**',
  'node:*',
]

export default ts.config(
  { ignores: ['**/dist/**', '**/node_modules/**', 'data/**', 'shots/**', 'stryker.config.json'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.ts', '**/*.vue', '**/*.mjs', '**/*.js'],
    languageOptions: {
      globals: {
        console: 'readonly',
        process: 'readonly',
        window: 'readonly',
        document: 'readonly',
        File: 'readonly',
        HTMLDetailsElement: 'readonly',
        navigator: 'readonly',
        location: 'readonly',
        localStorage: 'readonly',
        fetch: 'readonly',
        setTimeout: 'readonly',
        clearTimeout: 'readonly',
        setInterval: 'readonly',
        clearInterval: 'readonly',
        setImmediate: 'readonly',
        performance: 'readonly',
        crypto: 'readonly',
        EventSource: 'readonly',
        HTMLElement: 'readonly',
        HTMLInputElement: 'readonly',
        HTMLSelectElement: 'readonly',
        CSS: 'readonly',
        Blob: 'readonly',
        history: 'readonly',
        Event: 'readonly',
        URLSearchParams: 'readonly',
        KeyboardEvent: 'readonly',
        Worker: 'readonly',
        URL: 'readonly',
        Response: 'readonly',
        AbortController: 'readonly',
        self: 'readonly',
      },
    },
    rules: {
      // published constants stand as published
      'no-loss-of-precision': 'off',
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      'no-console': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
    },
  },
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser: ts.parser } },
    rules: {
      // the formatter owns the layout of templates
      'vue/html-self-closing': 'off',
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/html-indent': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'vue/multi-word-component-names': 'off',
      'vue/attributes-order': 'off',
      'vue/require-default-prop': 'off',
    },
  },
  floor(
    ['core/src/**'],
    [
      ...frameworks,
      '@moray/**',
      'class-validator',
      'class-transformer',
      '**/contract/**',
      '**/server/**',
      '**/web/**',
    ],
    'core computes: it imports nothing but itself',
  ),
  {
    files: ['core/src/**'],
    rules: {
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'fetch',
        'localStorage',
        'process',
        'performance',
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'core takes its random source as an argument' },
        { object: 'Date', property: 'now', message: 'core takes the time as an argument' },
      ],
      'no-restricted-syntax': [
        'error',
        { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: 'core has no clock' },
      ],
    },
  },
  floor(
    ['contract/src/**'],
    [...frameworks, '@moray/server/**', '@moray/web/**', '**/server/**', '**/web/**'],
    'contract stands on core alone',
  ),
  floor(
    ['server/src/**'],
    ['vue', 'pinia', 'primevue/**', '@moray/web/**', '**/web/src/**'],
    'the server does not know the browser',
  ),
  floor(
    ['web/src/**'],
    ['hono', 'hono/**', '@hono/**', '@electric-sql/**', 'node:*', '@moray/server/**', '**/server/src/**'],
    'the browser reaches the server over HTTP only',
  ),
  { files: ['tools/**', '**/commands/**', 'core/bench/**', '**/*.config.*'], rules: { 'no-console': 'off' } },
)
