import vue from 'eslint-plugin-vue'
import tseslint from 'typescript-eslint'

export default tseslint.config(
  { ignores: ['src/api/schema.d.ts', 'dist', 'node_modules'] },
  ...tseslint.configs.strict,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser: tseslint.parser } },
  },
  {
    rules: {
      // Layout is Prettier's; these rules are about meaning.
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/html-indent': 'off',
      'vue/first-attribute-linebreak': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'vue/no-v-html': 'error',
      // Words stand in src/words/texts; signs that are the same in every language may stand where they are shown.
      'vue/no-bare-strings-in-template': [
        'error',
        { allowlist: [...'()[]{},.;:!?&+-=*/#%<>·•–—−|×→←↑↓…"“”‹›◂▸▾~≈⋮∞', 'a', '3-1-1-0', '\u00a0▾', '&nbsp;▾'] },
      ],
      '@typescript-eslint/no-non-null-assertion': 'error',
      'no-restricted-syntax': [
        'error',
        {
          selector: "ObjectPattern > Property[key.name='refetch']",
          message:
            'A first question under way would be joined, though asked before the change: use askAgain() of api/query.',
        },
      ],
    },
  },
)
