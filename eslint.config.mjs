import hooks from 'eslint-plugin-react-hooks'
import ts from 'typescript-eslint'

export default ts.config(
  {
    ignores: [
      '.next/',
      'node_modules/',
      'next-env.d.ts',
      'tmp/',
      'public/',
      'src/core/shorthand/parser.ts',
      'src/core/shorthand/parser.terms.ts',
    ],
  },
  ...ts.configs.recommended,
  { files: ['src/ui/**/*.{ts,tsx}', 'src/app/**/*.tsx'], ...hooks.configs.flat.recommended },
  {
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/only-throw-error': 'off',
      eqeqeq: 'error',
      complexity: ['error', 20],
      'max-len': [
        'error',
        { code: 120, ignoreUrls: true, ignoreStrings: true, ignoreTemplateLiterals: true, ignoreRegExpLiterals: true },
      ],
      'max-lines': ['error', { max: 500, skipBlankLines: false }],
    },
  },
  {
    files: ['**/*.ts', '**/*.tsx'],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
      '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
    },
  },
  {
    files: ['**/*.ts', '**/*.tsx'],
    ignores: ['**/*.test.ts', 'tests/**'],
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'error',
      'max-lines-per-function': ['error', { max: 80, skipBlankLines: true, skipComments: true }],
      'max-params': ['error', 4],
    },
  },
)
