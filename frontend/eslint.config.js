import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import vue from 'eslint-plugin-vue';
import globals from 'globals';
import ts from 'typescript-eslint';

// The floors of the house, from the ground up: each may use those before it, never one after.
// prettier-ignore
const FLOORS = [
  'api', 'marks', 'stores', 'look', 'fields', 'export', 'versions', 'shelf', 'regions', 'facts',
  'stack', 'strip', 'desk', 'home', 'editor',
];

const floors = FLOORS.map((floor, place) => ({
  files: [`src/${floor}/**`],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: FLOORS.slice(place + 1).map((above) => ({
          group: [`@/${above}/*`],
          message: `${floor} lies below ${above}.`,
        })),
      },
    ],
  },
}));

export default ts.config(
  { ignores: ['src/api/schema.ts', 'node_modules/'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.vue', '**/*.ts'],
    languageOptions: { globals: globals.browser, parserOptions: { parser: ts.parser } },
    rules: {
      'vue/multi-word-component-names': 'off',
      'no-restricted-syntax': [
        'error',
        {
          selector:
            'CallExpression[callee.name="watch"] > ArrowFunctionExpression:first-child' +
            ':matches([body.type="ArrayExpression"], [body.expression.type="ArrayExpression"])',
          message: 'A fresh list counts as a change whatever is in it: watch a list of getters',
        },
      ],
    },
  },
  { files: ['public/*.js'], languageOptions: { globals: globals.serviceworker } },
  ...floors,
  prettier,
);
