// As much of the test runner as the tests of the core ask for, so that they can be run a thousand times in one process.
import * as chai from 'chai'
import { JestAsymmetricMatchers, JestChaiExpect, JestExtend } from '@vitest/expect'

chai.use(JestExtend)
chai.use(JestChaiExpect)
chai.use(JestAsymmetricMatchers)

/** The tests of a file that is being read. */
export function collector() {
  const tests = []
  const hooks = [{ before: [], after: [] }]
  const titles = []

  const it = (title, ...rest) => {
    const run = rest.find((each) => typeof each === 'function')
    const around = hooks.map((each) => each)
    tests.push({
      title: [...titles, title].join(' › '),
      run: async () => {
        for (const { before } of around) for (const each of before) await each()
        try {
          await run()
        } finally {
          for (const { after } of around) for (const each of after) await each()
        }
      },
    })
  }
  const describe = (title, ...rest) => {
    titles.push(title)
    hooks.push({ before: [], after: [] })
    rest.find((each) => typeof each === 'function')()
    hooks.pop()
    titles.pop()
  }
  const each = (define) => (rows) => (title, run) =>
    rows.forEach((row, i) => define(`${title} ${i}`, () => (Array.isArray(row) ? run(...row) : run(row))))
  const ignored = () => undefined
  for (const define of [it, describe]) Object.assign(define, { each: each(define), skip: ignored, todo: ignored })
  it.skipIf = (isSkipped) => (isSkipped ? ignored : it)
  it.runIf = (isRun) => (isRun ? it : ignored)

  const anything = new Proxy(() => anything, { get: () => anything })
  const here = () => hooks.at(-1)
  const module = {
    it,
    test: it,
    describe,
    expect: Object.assign((value, message) => chai.expect(value, message), chai.expect),
    expectTypeOf: () => anything,
    beforeEach: (run) => here().before.push(run),
    afterEach: (run) => here().after.push(run),
    beforeAll: (run) => here().before.push(once(run)),
    afterAll: ignored,
  }
  return { module, tests }
}

const once = (run) => {
  let done = null
  return () => (done ??= Promise.resolve(run()))
}
