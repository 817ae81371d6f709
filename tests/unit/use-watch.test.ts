// @vitest-environment happy-dom
import { afterEach, expect, it, vi } from 'vitest'
import { effectScope, nextTick, shallowRef } from 'vue'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { strangersLanes, strangersSession, turnedBy } from '#core/trainer/six-strangers'
import { useWatch } from '~/composables/use-watch'

afterEach(() => vi.unstubAllGlobals())

/** What the workers were told, in turn. */
function watching() {
  const told: object[] = []
  vi.stubGlobal(
    'Worker',
    class {
      postMessage = (message: object) => told.push(message)
      terminate = () => undefined
    },
  )
  const session = shallowRef(strangersSession())
  const scope = effectScope()
  const inputs = scope.run(() =>
    useWatch({ session: () => session.value, evaluation: () => evaluateSession(session.value) }),
  )
  if (!inputs) throw new Error('nothing is watched')
  const turn = async () => {
    told.length = 0
    session.value = turnedBy(session.value, strangersLanes(session.value)[0]?.strip ?? '', 12)
    await nextTick()
    return told.flatMap((each) => ('passage' in each && each.passage !== true ? [each.passage] : []))
  }
  return { inputs, told, turn, stop: () => scope.stop() }
}

it('how loud an input was is compared after a gain was turned, but not in a recording, which follows none', async () => {
  const { inputs, turn, stop } = watching()
  await inputs.simulate(1, [])
  expect(await turn()).toEqual(['again'])
  await inputs.playFile(new File([], 'take.wav'))
  expect(await turn()).toEqual(['of-a-new-source'])
  stop()
})

it('performers who play otherwise, or whose pad comes out, are not compared with what they were', async () => {
  const { inputs, told, stop } = watching()
  await inputs.simulate(1, ['pad'])
  for (const change of [() => inputs.play('loudest'), () => inputs.putRight('pad')]) {
    told.length = 0
    change()
    expect(told).toContainEqual({ passage: 'of-a-new-source' })
  }
  stop()
})
