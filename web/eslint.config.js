import js from '@eslint/js';
import a11y from 'eslint-plugin-jsx-a11y';
import hooks from 'eslint-plugin-react-hooks';
import ts from 'typescript-eslint';

const SEALED = ['src/workloads/**'];

export default ts.config(
  // Made by programs; the compiled workloads, whose language only looks like TypeScript; and a service worker as it is served.
  {
    ignores: [
      'dist',
      'target',
      'public',
      'scripts',
      'src/api/schema.d.ts',
      'src/workloads/generated',
      'src/workloads/*/assembly',
    ],
  },
  js.configs.recommended,
  ts.configs.recommendedTypeChecked,
  hooks.configs.flat['recommended-latest'],
  a11y.flatConfigs.recommended,
  {
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    linterOptions: { reportUnusedDisableDirectives: 'error' },
    rules: {
      // What promises an answer may have it at once.
      '@typescript-eslint/require-await': 'off',
      // A way of this router to go elsewhere.
      '@typescript-eslint/only-throw-error': [
        'error',
        { allow: [{ from: 'package', package: '@tanstack/router-core', name: 'Redirect' }] },
      ],
      // A rest without one member names that member with an underscore.
      '@typescript-eslint/no-unused-vars': ['error', { varsIgnorePattern: '^_', argsIgnorePattern: '^_' }],
      // A form that opens because somebody asked for it takes what is typed next.
      'jsx-a11y/no-autofocus': 'off',
      // Keys of a whole form or group, such as the cells that scores are typed into.
      'jsx-a11y/no-noninteractive-element-interactions': [
        'error',
        {
          ...a11y.flatConfigs.recommended.rules['jsx-a11y/no-noninteractive-element-interactions'][1],
          form: ['onKeyDown'],
          div: ['onKeyDown'],
        },
      ],
      // One place of such a group is where Tab stops; its keys lead on from there.
      'jsx-a11y/no-noninteractive-tabindex': 'off',
      // Options and rows are reached by aria-activedescendant and by the keys of their view.
      'jsx-a11y/interactive-supports-focus': 'off',
      'jsx-a11y/click-events-have-key-events': 'off',
      // The list of standings is not compiled by React's compiler, which this project does not use.
      'react-hooks/incompatible-library': 'off',
    },
  },
  {
    // Their code is sealed, so it stays as it is.
    files: SEALED,
    rules: {
      '@typescript-eslint/no-unnecessary-type-assertion': 'off',
      '@typescript-eslint/prefer-promise-reject-errors': 'off',
    },
  },
  { files: ['**/*.js'], extends: [ts.configs.disableTypeChecked] },
);
