// The pages, whose templates only this linter reads. All else: .oxlintrc.json
import js from '@eslint/js'
import ts from 'typescript-eslint'
import vue from 'eslint-plugin-vue'

const PAGES = ['**/*.vue']
const only = (files, configs) => configs.map((c) => ({ ...c, files }))

export default ts.config(
  { ignores: ['**/*.{js,mjs,cjs,ts}', '**/dist/**', '**/node_modules/**', 'data/**', 'shots/**'] },
  ...only(PAGES, [js.configs.recommended, ...ts.configs.recommended, ...vue.configs['flat/recommended']]),
  {
    files: PAGES,
    languageOptions: {
      // the names of the browser's types are known by the list below: not all of them anew for every expression of a template
      parserOptions: { parser: ts.parser, lib: ['es5'] },
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
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      'no-console': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
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
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: [
                'hono',
                'hono/**',
                '@hono/**',
                '@electric-sql/**',
                'node:*',
                '@moray/server/**',
                '**/server/src/**',
              ],
              message: 'the browser reaches the server over HTTP only',
            },
          ],
        },
      ],
    },
  },
)
