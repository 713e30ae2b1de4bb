import angular from 'angular-eslint';
import boundaries from 'eslint-plugin-boundaries';
import tseslint from 'typescript-eslint';
import { elements, policies } from './eslint-matrix.mjs';

/** Imports only point upwards in this list: core, model, server and web. */
const rooms = {
  core: {
    patterns: ['@hot-spline/*', 'node:*', '@angular/*', 'rxjs', 'zod', 'express*'],
    why: 'core computes: it imports nothing of ours, no framework, no Node',
  },
  model: {
    patterns: ['@hot-spline/server*', '@hot-spline/web*', 'node:*', '@angular/*', 'express*'],
    why: 'model may import core and zod only',
  },
  server: {
    patterns: ['@hot-spline/web*', '@angular/*', 'primeng*', '**/web/src/**'],
    why: 'server may import core and model',
  },
  web: {
    patterns: ['@hot-spline/server*', 'node:*', 'express*', '**/server/src/**'],
    why: 'web may import core and model',
  },
};

const betweenRooms = Object.entries(rooms).map(([room, { patterns, why }]) => ({
  files: [`${room}/src/**/*.ts`],
  ignores: ['**/*.spec.ts', '**/testing/**'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          { group: patterns, message: why },
          {
            group: ['../../../core/**', '../../../model/**', '../../../../core/**', '../../../../model/**'],
            message: 'import a room by its name',
          },
          ...(room === 'web' || room === 'server'
            ? [{ group: ['@hot-spline/*/src/**'], message: 'import what a room lists as public' }]
            : []),
        ],
      },
    ],
  },
}));

export default tseslint.config(
  {
    ignores: [
      '**/node_modules/',
      'dist/',
      '.angular/',
      'data/',
      'test-results/',
      'playwright-report/',
      'web/karma.conf.cjs',
    ],
  },
  {
    files: ['**/*.ts'],
    extends: [...tseslint.configs.strict, ...tseslint.configs.stylistic],
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', ignoreRestSiblings: true }],
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-dynamic-delete': 'off',
      '@typescript-eslint/no-invalid-void-type': 'off',
      '@typescript-eslint/no-extraneous-class': 'off',
      eqeqeq: ['error', 'always'],
      'no-empty': 'error',
      'no-console': ['error', { allow: ['warn', 'error'] }],
    },
  },
  {
    files: ['core/src/**/*.ts', 'model/src/**/*.ts'],
    ignores: ['**/*.spec.ts', '**/testing/**'],
    rules: {
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'process',
        'fetch',
        'localStorage',
        'Date',
        'performance',
        'setTimeout',
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'randomness comes in with a seed' },
      ],
    },
  },
  ...betweenRooms,
  {
    files: ['core/src/**/*.ts', 'model/src/**/*.ts', 'server/src/**/*.ts', 'web/src/app/*/**/*.ts'],
    ignores: ['**/*.spec.ts', '**/testing/**'],
    plugins: { boundaries },
    settings: {
      'boundaries/elements': elements,
      'import/resolver': { node: { extensions: ['.ts', '.mjs'] } },
    },
    rules: { 'boundaries/dependencies': ['error', { default: 'allow', policies }] },
  },
  {
    files: ['web/src/**/*.ts'],
    extends: [...angular.configs.tsRecommended],
    processor: angular.processInlineTemplates,
    rules: {
      '@angular-eslint/component-selector': ['error', { type: 'element', prefix: 'hs', style: 'kebab-case' }],
      '@angular-eslint/prefer-on-push-component-change-detection': 'error',
    },
  },
  {
    files: ['web/src/**/*.html'],
    extends: [...angular.configs.templateRecommended, ...angular.configs.templateAccessibility],
    rules: {},
  },
  { files: ['tools/**/*.mjs', 'tools/**/*.ts'], rules: { 'no-console': 'off' } },
);
