// ESLint 10 calls Object.groupBy, which Node 20 lacks.
Object.groupBy ??= (items, keyOf) => {
  const groups = Object.create(null)
  for (const item of items) (groups[keyOf(item)] ??= []).push(item)
  return groups
}
const { default: withNuxt } = await import('./.nuxt/eslint.config.mjs')

export default withNuxt(
  {
    rules: {
      'no-empty': ['error', { allowEmptyCatch: false }],
      'no-console': 'error',
      'vue/multi-word-component-names': 'off',
      'vue/require-default-prop': 'off',
      // The formatter writes them.
      'vue/html-self-closing': 'off',
      'vue/first-attribute-linebreak': 'off',
    },
  },
  {
    files: ['**/*.{ts,vue}'],
    rules: { '@typescript-eslint/consistent-type-imports': ['error', { disallowTypeAnnotations: false }] },
  },
  { files: ['scripts/**'], rules: { 'no-console': 'off' } },
  {
    files: ['core/**'],
    rules: {
      // The core has no clock and no chance: what it answers depends on what it is asked.
      'no-restricted-globals': ['error', 'window', 'document', 'performance', 'fetch', 'process', 'setTimeout'],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random' },
        { object: 'Date', property: 'now' },
      ],
    },
  },
)
