import importX, { createNodeResolver } from 'eslint-plugin-import-x'
import vue from 'eslint-plugin-vue'
import tseslint from 'typescript-eslint'

/** Imports go inward only: app and server -> shared -> core. */
const rings = [
  { target: './core', from: ['./app', './server', './shared', './cli', './demo'] },
  { target: './shared', from: ['./app', './server', './cli', './demo'] },
  { target: './app', from: ['./server', './cli', './demo'] },
  { target: './server', from: ['./app', './cli', './demo'] },
].flatMap(({ target, from }) => from.map((f) => ({ target, from: f, message: `${target} may not import from ${f}.` })))

/** The folders of core/, inner to outer: each may import from those before it. The model is types alone, and everybody's. */
const CORE = ['geometry', 'arrangement', 'weight', 'fit', 'outline', 'shapes', 'drawing', 'sketch', 'ink', 'proof', 'formats']
const inCore = CORE.flatMap((folder, i) =>
  CORE.slice(i + 1).map((outer) => ({ target: `./core/${folder}`, from: `./core/${outer}`, except: outer === 'drawing' ? ['./model.ts'] : [], message: `core/${folder} is inside core/${outer} and may not import from it.` })),
)

/** core/ computes and nothing else. */
const outsideCore = ['vue', 'vue-router', 'pinia', 'konva', 'comlink', 'idb', '@vueuse/*', 'd3-scale', 'd3-shape', 'better-sqlite3', 'h3', 'sharp', 'nuxt', 'nuxt/*', 'node:*', '~/*', '#shared/*', '#app', '#imports']

export default tseslint.config(
  { ignores: ['.nuxt', '.output', 'node_modules', 'data', 'test-results', 'playwright-report'] },
  ...tseslint.configs.recommended,
  ...vue.configs['flat/recommended'],
  {
    plugins: { 'import-x': importX },
    rules: {
      'import-x/no-restricted-paths': ['error', { zones: [...rings, ...inCore] }],
      'import-x/no-cycle': 'error',
      '@typescript-eslint/consistent-type-imports': ['error', { disallowTypeAnnotations: false }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_' }],
      '@typescript-eslint/no-non-null-assertion': 'off',
      'no-console': ['error', { allow: ['error', 'warn'] }],
      eqeqeq: 'error',
    },
    settings: { 'import-x/resolver-next': [createNodeResolver({ extensions: ['.ts', '.vue', '.mjs', '.js'] })], 'import-x/extensions': ['.ts', '.vue', '.mjs'], 'import-x/parsers': { '@typescript-eslint/parser': ['.ts'] } },
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
      'no-undef': 'off',
    },
  },
  {
    files: ['core/**/*.ts'],
    rules: { 'no-restricted-imports': ['error', { patterns: [{ group: outsideCore, message: 'core/ holds no interface, server or Node code.' }] }] },
  },
  { files: ['**/*.mjs', 'demo/**', 'cli/**', 'tests/**'], languageOptions: { globals: { process: 'readonly', console: 'readonly' } }, rules: { 'no-console': 'off' } },
)
