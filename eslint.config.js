import vue from 'eslint-plugin-vue'
import typescript from 'typescript-eslint'

/** Who may know whom: stations → parts → composables → api and format; a station never knows another. */
const mayNotKnow = (files, folders, why) => ({
  files: [`resources/js/${files}/**/*.{ts,vue}`],
  rules: { 'no-restricted-imports': ['error', { patterns: [{ group: [...folders.map((folder) => `@/${folder}/**`), '../*', './*'], message: why }] }] },
})
const stations = ['access', 'board', 'deliver', 'shape', 'match', 'tally', 'review', 'sign']

export default typescript.config(
  { ignores: ['resources/js/api/schema.ts'] },
  ...typescript.configs.strict,
  ...vue.configs['flat/recommended'],
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: typescript.parser } } },
  {
    files: ['resources/js/**/*.{ts,vue}'],
    rules: {
      // The type check knows every name; this rule does not know the browser's.
      'no-undef': 'off',
      // Prettier lays out the templates.
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/html-indent': 'off',
      'vue/html-self-closing': 'off',
      'vue/first-attribute-linebreak': 'off',
      'vue/multi-word-component-names': ['error', { ignores: ['App'] }],
      'vue/require-default-prop': 'off',
    },
  },
  mayNotKnow('format', ['stations', 'parts', 'composables'], 'format holds plain functions'),
  mayNotKnow('api', ['stations', 'parts', 'composables', 'format'], 'only api talks to the server, and it knows nobody'),
  mayNotKnow('composables', ['stations', 'parts'], 'a composable has no look'),
  mayNotKnow('parts', ['stations'], 'a part is what several stations show'),
  ...stations.map((station) =>
    mayNotKnow(
      `stations/${station}`,
      stations.filter((other) => other !== station).map((other) => `stations/${other}`),
      'a station never imports another',
    ),
  ),
)
