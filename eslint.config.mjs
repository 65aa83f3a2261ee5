import vue from 'eslint-plugin-vue'
import tseslint from 'typescript-eslint'

/** core/ computes and nothing else. The order of folders, types included, is in .dependency-cruiser.mjs. */
const outsideCore = [
  'vue',
  'vue-router',
  'pinia',
  'konva',
  'comlink',
  'idb',
  '@vueuse/*',
  'd3-scale',
  'd3-shape',
  'better-sqlite3',
  'h3',
  'sharp',
  'nuxt',
  'nuxt/*',
  'node:*',
  '~/*',
  '#shared/*',
  '#app',
  '#imports',
]

export default tseslint.config(
  { ignores: ['.nuxt', '.output', 'node_modules', 'data', 'test-results', 'playwright-report'] },
  ...tseslint.configs.recommended,
  ...vue.configs['flat/recommended'],
  {
    rules: {
      '@typescript-eslint/consistent-type-imports': ['error', { disallowTypeAnnotations: false }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_' }],
      '@typescript-eslint/no-non-null-assertion': 'off',
      'no-console': ['error', { allow: ['error', 'warn'] }],
      eqeqeq: 'error',
    },
  },
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser: tseslint.parser } },
    rules: {
      'vue/multi-word-component-names': 'off',
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/attributes-order': 'off',
      'vue/require-default-prop': 'off',
      'vue/html-indent': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'no-undef': 'off',
    },
  },
  {
    files: ['core/**/*.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        { patterns: [{ group: outsideCore, message: 'core/ holds no interface, server or Node code.' }] },
      ],
    },
  },
  {
    files: ['**/*.mjs', 'demo/**', 'cli/**', 'tests/**'],
    languageOptions: { globals: { process: 'readonly', console: 'readonly' } },
    rules: { 'no-console': 'off' },
  },
)
