import next from '@next/eslint-plugin-next';
import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

// Rules that need types take half a minute; the tests ask for them, an editor need not.
const typed = {
  files: ['src/**/*.{ts,tsx}', 'e2e/*.ts', 'demo/**/*.ts', 'bench/*.ts'],
  languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
  rules: {
    '@typescript-eslint/no-floating-promises': 'error',
    '@typescript-eslint/await-thenable': 'error',
    '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false, arguments: false } }],
    '@typescript-eslint/switch-exhaustiveness-check': [
      'error',
      { allowDefaultCaseForExhaustiveSwitch: true, considerDefaultExhaustiveForUnions: false },
    ],
  },
};

export default tseslint.config(
  {
    ignores: [
      'node_modules/',
      '.next/',
      'dist/',
      'data/',
      'public/',
      'drizzle/',
      'next-env.d.ts',
      'src/drawing/kernels/',
    ],
  },
  ...tseslint.configs.recommended,
  {
    files: ['src/**/*.{ts,tsx}'],
    plugins: { '@next/next': next, 'react-hooks': hooks },
    rules: { ...next.configs.recommended.rules, ...hooks.configs.recommended.rules },
  },
  {
    linterOptions: { reportUnusedDisableDirectives: 'error' },
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', ignoreRestSiblings: true }],
      '@typescript-eslint/consistent-type-imports': ['error', { disallowTypeAnnotations: false }],
      eqeqeq: 'error',
      'no-console': ['error', { allow: ['error'] }],
      'prefer-const': 'error',
      'max-lines': ['error', { max: 480, skipBlankLines: true, skipComments: true }],
    },
  },
  ...(process.env.TYPED_LINT ? [typed] : []),
);
