import js from '@eslint/js'
import accessibility from 'eslint-plugin-vuejs-accessibility'
import vue from 'eslint-plugin-vue'
import ts from 'typescript-eslint'

export default ts.config(
  { ignores: ['dist', 'src/api/schema.d.ts'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...vue.configs['flat/recommended'],
  ...accessibility.configs['flat/recommended'],
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser: ts.parser } },
  },
  {
    languageOptions: { globals: { window: 'readonly', document: 'readonly' } },
    rules: {
      // The compiler knows what is defined.
      'no-undef': 'off',
      // How lines are broken is left to whoever writes them.
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/html-indent': 'off',
      'vue/first-attribute-linebreak': 'off',
      // A sheet is one reactive object that its parts are handed to be filled in.
      'vue/no-mutating-props': ['error', { shallowOnly: true }],
      'vuejs-accessibility/label-has-for': ['error', { required: { some: ['nesting', 'id'] } }],
      // A form or a panel listens for the Escape key of what is inside it.
      'vuejs-accessibility/no-static-element-interactions': 'off',
    },
  },
)
