import { expect, expectTypeOf, it } from 'vitest'
import type { Db, Dbfs } from '#core/units'
import { db, dbfs, dbu, difference, raise } from '#core/units'

it('a level is not a gain, and levels of two references do not mix: it does not compile', () => {
  expectTypeOf(raise(dbfs(-20), db(6))).toEqualTypeOf<Dbfs>()
  expectTypeOf(difference(dbu(4), dbu(-10))).toEqualTypeOf<Db>()
  // @ts-expect-error a bare number has no unit
  raise(dbfs(-20), 6)
  // @ts-expect-error a level is no gain
  raise(dbfs(-20), dbu(6))
  // @ts-expect-error two references
  difference(dbu(4), dbfs(-20))
  expect(difference(dbu(4), dbu(-10))).toBe(14)
})
