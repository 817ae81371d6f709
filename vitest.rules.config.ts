import { mergeConfig } from 'vitest/config'
import config from './vitest.config'
import rules from './scripts/rules.json'

/** The tests of one rule with that rule broken, as `npm run rules` asks for: the file is changed as it is read, not on the disk. */
const { file, from, to } = rules[Number(process.env.RULE)] as (typeof rules)[number]

export default mergeConfig(config, {
  plugins: [
    {
      name: 'break-a-rule',
      enforce: 'pre' as const,
      transform: (code: string, id: string) => (id.split('?')[0]?.endsWith(`/${file}`) ? code.replace(from, to) : null),
    },
  ],
  test: { maxWorkers: 1 },
})
