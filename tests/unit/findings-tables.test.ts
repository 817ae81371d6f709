import { expect, it } from 'vitest'
import { findingCodes } from '#core/checks/finding-codes'
import { timingFindingCodes } from '#core/timing/finding-codes'

it('every entry is whole: words, and a source or the mark that there is none', () => {
  for (const facts of Object.values({ ...findingCodes, ...timingFindingCodes }))
    for (const words of Object.values(facts)) expect(words.length).toBeGreaterThan(4)
})
