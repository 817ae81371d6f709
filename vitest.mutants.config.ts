import { mergeConfig } from 'vitest/config'
import config from './vitest.config'

/**
 * What decides whether a mutant lives: all that tests the core, but for the generated sessions, whose thousands of runs
 * would take minutes for each of thousands of mutants.
 */
export default mergeConfig(config, {
  test: {
    exclude: [
      'tests/http/**',
      'tests/unit/{keeping,gear-shelf,every-kind,generated-sessions,several-gains,bench,findings-document}.test.ts',
      'tests/reference/{bench,recordings,levels-of-files,levels}.test.ts',
    ],
  },
})
