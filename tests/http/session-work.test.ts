import { describe, expect, it } from 'vitest'
import { demoSession } from '#demo/index'
import { placeOf } from '../../server/utils/session-work'
import { manyLong } from '../speed/subjects'
import { example1 } from '../support/sessions'

describe('where a session is answered', () => {
  const small = JSON.stringify(example1())
  const large = JSON.stringify(manyLong)
  it.each([
    ['evaluate', small, 'here'],
    ['evaluate', large, 'short'],
    ['plan', small, 'short'],
    ['plan', large, 'long'],
    ['timing', JSON.stringify(demoSession()), 'short'],
    ['uncertainty', small, 'long'],
    // As long as a session can be, and nothing in it: only its characters count.
    ['evaluate', `{"name":"${'x'.repeat(1_900_000)}"}`, 'short'],
  ] as const)('%s of %#: by its work, not by its bytes', (question, text, place) =>
    expect(placeOf(question, text)).toBe(place),
  )
})
