import hooks from 'eslint-plugin-react-hooks'
import ts from 'typescript-eslint'

export default ts.config(
  { ignores: ['.next/', 'node_modules/', 'next-env.d.ts'] },
  ...ts.configs.recommended,
  { files: ['src/ui/**/*.{ts,tsx}', 'src/app/**/*.tsx'], ...hooks.configs.flat.recommended },
  {
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/only-throw-error': 'off',
      eqeqeq: 'error',
      'max-lines': ['error', { max: 500, skipBlankLines: false }],
    },
  },
  {
    files: ['**/*.ts', '**/*.tsx'],
    ignores: ['**/*.test.ts', 'tests/**'],
    rules: { '@typescript-eslint/no-non-null-assertion': 'error' },
  },
)
