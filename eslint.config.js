import angular from 'angular-eslint';
import tseslint from 'typescript-eslint';

/** Arithmetic that differs between engines, and ways out of the core. */
const CORE_BANS = [
  {
    selector:
      "MemberExpression[object.name='Math'][property.name=/^(sin|cos|tan|asin|acos|atan|atan2|sinh|cosh|tanh|asinh|acosh|atanh|exp|expm1|log|log2|log10|log1p|pow|cbrt|hypot|random)$/]",
    message: 'This differs between engines; use numeric/ or context.random.',
  },
  {
    selector: "BinaryExpression[operator='**'], AssignmentExpression[operator='**=']",
    message: '** differs between engines; multiply.',
  },
  {
    selector:
      'CallExpression[callee.property.name=/^(localeCompare|toLocaleString|toLocaleUpperCase|toLocaleLowerCase)$/]',
    message: 'Locale differs between machines; compare code units.',
  },
  {
    selector:
      "MemberExpression[object.name='Date'][property.name='now'], NewExpression[callee.name='Date'], MemberExpression[object.name='performance']",
    message: 'The core has no clock; pass times in.',
  },
  { selector: "MemberExpression[object.name='console']", message: 'The core talks through results and errors.' },
];

const restrict = (...groups) => ({
  'no-restricted-imports': ['error', { patterns: groups.map(([group, message]) => ({ group, message })) }],
});
const NODE = [['node:*', 'fs', 'path', 'express', 'sequelize', 'sqlite3'], 'The core has no I/O.'];
const FROM_SERVER = [
  ['@stravel/server*', '@stravel/cli*', '@stravel/web*'],
  'Arrows run one way: web, server, cli to core.',
];

export default tseslint.config(
  {
    ignores: [
      '**/dist/**',
      '**/node_modules/**',
      '**/.angular/**',
      'data/**',
      '**/*.mjs',
      '**/*.cjs',
      'eslint.config.js',
      'packages/web/out/**',
    ],
  },
  ...tseslint.configs.recommendedTypeChecked.map((config) => ({ ...config, files: ['**/*.ts'] })),
  {
    files: ['**/*.ts'],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/explicit-function-return-type': ['error', { allowExpressions: true }],
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-unnecessary-type-assertion': 'off',
      '@typescript-eslint/no-unsafe-enum-comparison': 'off',
      'no-console': 'error',
      eqeqeq: 'error',
    },
  },
  {
    files: ['packages/core/src/**/*.ts'],
    ignores: ['**/*.spec.ts'],
    rules: {
      'no-restricted-syntax': ['error', ...CORE_BANS],
      ...restrict(NODE, [['three', '@angular/*', '@ngrx/*'], 'The core has no interface.'], FROM_SERVER),
    },
  },
  {
    files: ['packages/reader/**/*.ts'],
    ignores: ['**/*.spec.ts', 'packages/reader/example/**'],
    rules: {
      'no-restricted-imports': [
        'error',
        { patterns: [{ regex: '^[^.]', message: 'A game takes the reader by itself.' }] },
      ],
    },
  },
  {
    files: ['packages/walker/**/*.ts'],
    rules: restrict([
      ['@stravel/cli*', '@stravel/web*', '@stravel/server*', '@angular/*', 'three'],
      'The walker knows the core and the reader.',
    ]),
  },
  {
    files: ['packages/server/src/**/*.ts'],
    rules: restrict([['@stravel/cli*', '@stravel/web*', '@angular/*', 'three'], 'The server knows only the core.']),
  },
  {
    files: ['packages/web/src/**/*.ts'],
    extends: [...angular.configs.tsRecommended],
    processor: angular.processInlineTemplates,
    rules: {
      ...restrict(FROM_SERVER, [['three', 'three/*'], 'Only plate/ imports three.']),
      'no-restricted-syntax': [
        'error',
        {
          selector: 'Property[key.value=/^.(document|window):key/]',
          message: 'Keys are heard in one place: give the desk a command.',
        },
      ],
      '@angular-eslint/component-selector': ['error', { type: 'element', prefix: 'sv', style: 'kebab-case' }],
      '@angular-eslint/prefer-on-push-component-change-detection': 'error',
    },
  },
  {
    files: ['packages/web/src/app/plate/**/*.ts'],
    rules: restrict(FROM_SERVER, [['**/desks/**'], 'The plate knows no desk.']),
  },
  {
    files: [
      'packages/web/src/app/ui/**/*.ts',
      'packages/web/src/app/document/**/*.ts',
      'packages/web/src/app/edits/**/*.ts',
    ],
    rules: restrict(
      FROM_SERVER,
      [['three', 'three/*'], 'Only plate/ imports three.'],
      [['**/desks/**'], 'Desks are above.'],
    ),
  },
  ...['sets', 'layout', 'sections', 'cells', 'detail', 'sight', 'budget', 'pack'].map((desk) => ({
    files: [`packages/web/src/app/desks/${desk}/**/*.ts`],
    rules: restrict(
      FROM_SERVER,
      [['three', 'three/*'], 'Only plate/ imports three.'],
      [
        ['sets', 'layout', 'sections', 'cells', 'detail', 'sight', 'budget', 'pack']
          .filter((d) => d !== desk)
          .flatMap((d) => [`**/desks/${d}/**`, `../${d}/**`, `../../${d}/**`]),
        "A desk never imports another desk's insides.",
      ],
    ),
  })),
  {
    files: ['packages/web/src/**/*.html'],
    extends: [...angular.configs.templateRecommended, ...angular.configs.templateAccessibility],
    rules: {
      '@angular-eslint/template/click-events-have-key-events': 'off',
      '@angular-eslint/template/interactive-supports-focus': 'off',
    },
  },
  {
    files: ['**/*.spec.ts', 'e2e/**/*.ts'],
    rules: {
      '@typescript-eslint/no-unsafe-assignment': 'off',
      '@typescript-eslint/no-unsafe-member-access': 'off',
      '@typescript-eslint/explicit-function-return-type': 'off',
    },
  },
);
