import js from '@eslint/js'
import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import globals from 'globals'
import ts from 'typescript-eslint'
import { ownTables } from './scripts/lint/ownTables.mjs'

export default ts.config(
  { ignores: ['dist/', 'node_modules/', '.evrix/', '.run/', 'server/migrations/', 'coverage/'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  // What the rules of Vue look for is only in the interface: over the rest they cost a third of the linter’s time.
  ...vue.configs['flat/recommended'].map((one) => (one.rules && !one.files ? { ...one, files: ['**/*.vue', 'web/**/*.ts'] } : one)),
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: ts.parser }, globals: globals.browser } },
  // What only the types tell is looked for apart (scripts/lint/promises.mjs).
  {
    files: ['server/**/*.ts'],
    ignores: ['**/*.test.ts'],
    plugins: { evrix: { rules: { 'own-tables': ownTables } } },
    rules: { 'evrix/own-tables': ['error', { folder: `${import.meta.dirname}/server/tables` }] },
  },
  { files: ['**/*.mjs', '**/*.cjs'], languageOptions: { globals: globals.node } },
  { files: ['**/*.cjs'], rules: { '@typescript-eslint/no-require-imports': 'off' } },
  {
    rules: {
      // The type checker knows every name; this rule does not.
      'no-undef': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      eqeqeq: 'error',
      'vue/multi-word-component-names': 'error',
      'vue/require-default-prop': 'off',
    },
  },
  prettier,
)
