import { formatISO } from 'date-fns'
import { computed, onScopeDispose, reactive, ref, shallowRef, toRaw } from 'vue'
import { benchOf } from '#core/bench/bench'
import type { Bench } from '#core/bench/procedure'
import type { CableFindings } from '#core/cable-run/findings'
import type { Wanted } from '#core/cable-run/moves'
import type { Answer, Move } from '#core/cable-run/hand'
import { sheetOf } from '#core/cable-run/sheet'
import type { Subject } from '#core/cable-run/subject'
import { inForce } from '#core/model'
import type { SimulatedCable } from '#core/simulated/rig'
import type { LiveDevice } from '~/audio/live-input'
import { NoInput, liveDevices, liveOutputs } from '~/audio/live-input'
import type { OpenedRig } from '~/audio/live-rig'
import { openRig } from '~/audio/live-rig'
import { useBenchStore } from '~/stores/bench'
import { useMeasuredSheets } from '~/stores/measured-sheets'
import { useViewStore } from '~/stores/view'
import type { CableMessage, CableTask, RunOn } from '~/workers/cable-run.worker'

/** What is at hand for a run. */
export interface AtHand {
  marks: number
  plug: boolean
  otherBuffer: boolean
  meter: boolean
  meterAccuracy: number
  microphone: boolean
  level: number
  give: number
}

/** The cables that a simulated interface can be tried with. */
export const simulatedCables: Record<string, { text: string; cables: SimulatedCable[] }> = {
  good: { text: 'one good cable', cables: [{ output: 0, input: 0, state: 'good' }] },
  two: {
    text: 'two good cables',
    cables: [
      { output: 0, input: 0, state: 'good' },
      { output: 1, input: 1, state: 'good' },
    ],
  },
  none: { text: 'no cable', cables: [] },
  loose: { text: 'a loose contact', cables: [{ output: 0, input: 0, state: 'loose' }] },
  wrong: { text: 'a cable in the wrong input', cables: [{ output: 0, input: 1, state: 'good' }] },
  leg: { text: 'a cable with one dead leg', cables: [{ output: 0, input: 0, state: 'one-leg' }] },
  crossed: { text: 'a cable with crossed legs', cables: [{ output: 0, input: 0, state: 'crossed' }] },
}

/** A whole interface measured in one run: on the desk through the browser, or a simulated one. */
export function useCableRun(bench: () => Bench) {
  const store = useBenchStore()
  const sheets = useMeasuredSheets()
  const view = useViewStore()
  const devices = ref<LiveDevice[]>([])
  const outputs = ref<LiveDevice[]>([])
  const device = ref<string | null>(null)
  const output = ref<string | null>(null)
  const atHand = reactive<AtHand>({
    marks: 5,
    plug: true,
    otherBuffer: true,
    meter: true,
    meterAccuracy: 1,
    microphone: false,
    level: 94,
    give: 1,
  })
  const state = ref<'idle' | 'opening' | 'running'>('idle')
  const move = shallowRef<Move | null>(null)
  const progress = shallowRef<{ doing: string; part: number } | null>(null)
  const trouble = ref<string | null>(null)
  const isSimulated = ref(false)
  let worker: Worker | null = null
  let rig: OpenedRig | null = null

  const subject = computed<Subject>(() => {
    const { unit, input, session } = bench()
    const { gainMin, gainMax, gainStep } = inForce(input)
    return {
      input: Math.max(
        0,
        unit.inputs.findIndex(({ id }) => id === input.id),
      ),
      gainMin,
      gainMax,
      gainStep,
      bufferFrames: session.system.bufferFrames,
    }
  })
  /** A browser plays and records with its own buffers: the driver’s is not told from them. */
  const otherBuffer = computed(() => 2 * bench().session.system.bufferFrames)
  const wantedOn = (simulated: boolean): Wanted => ({
    marks: atHand.marks,
    plug: atHand.plug,
    otherBuffer: atHand.otherBuffer && simulated ? otherBuffer.value : null,
    meter: atHand.meter,
    microphone: atHand.microphone ? { level: atHand.level, give: atHand.give } : null,
  })

  const send = (task: CableTask, handed: Transferable[] = []) => worker?.postMessage(task, handed)

  async function stop() {
    worker?.terminate()
    worker = null
    state.value = 'idle'
    move.value = null
    progress.value = null
    const before = rig
    rig = null
    await before?.close()
  }
  async function endWith(message: string) {
    await stop()
    trouble.value = message
  }

  async function begin(on: RunOn, tested: Subject, handed: Transferable[] = []) {
    const simulated = 'simulated' in on
    isSimulated.value = simulated
    const standing = bench()
    worker = new Worker(new URL('../../workers/cable-run.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<CableMessage>) => void hear(data, standing, !simulated)
    worker.onerror = () => void endWith('The run stopped unexpectedly. Start it again.')
    state.value = 'running'
    send({ begin: { on, subject: tested, wanted: wantedOn(simulated) } }, handed)
  }

  async function hear(message: CableMessage, standing: Bench, isThroughBrowser: boolean) {
    if ('progress' in message) progress.value = message.progress
    else if ('ask' in message) move.value = message.ask
    else if ('answered' in message) move.value = null
    else if ('found' in message) {
      await stop()
      show(message.found, message.truth, standing, isThroughBrowser)
    } else if ('ended' in message) await endWith('The run ended: no cable was found. Nothing was measured.')
    else await endWith(`The run failed (${message.failed}). Start it again.`)
  }

  function show(
    found: CableFindings,
    truth: Record<string, number> | null,
    standing: Bench,
    isThroughBrowser: boolean,
  ) {
    const measured = benchAt(found.cable.input, standing, isThroughBrowser)
    if (measured !== standing) store.choose({ unit: measured.unit.id, input: measured.input.id })
    const sheet = sheetOf(found, {
      bench: measured,
      on: formatISO(Date.now(), { representation: 'date' }),
      meterAccuracy: atHand.meterAccuracy,
      isThroughBrowser,
      truth,
    })
    sheets.add({ sheet, buffers: found.roundTrips.map(({ bufferFrames }) => bufferFrames), isThroughBrowser })
  }

  /** The unit’s input of a channel; the simulated interface has the two inputs that stand on the bench. */
  const inputAt = (channel: number, standing: Bench, isThroughBrowser: boolean) =>
    isThroughBrowser ? standing.unit.inputs[channel] : channel === 0 ? standing.input : standing.second

  /** The cable may have been found in another input than was meant: the sheet is that one’s. */
  function benchAt(channel: number, standing: Bench, isThroughBrowser: boolean): Bench {
    const port = inputAt(channel, standing, isThroughBrowser)
    if (!port || port.type === 'digital' || port.id === standing.input.id) return standing
    const choice = { unit: standing.unit.id, input: port.id, output: standing.output?.id }
    return benchOf(standing.session, view.strip?.id, choice) ?? standing
  }

  onScopeDispose(() => void stop())

  return {
    devices,
    outputs,
    device,
    output,
    atHand,
    state,
    move,
    progress,
    trouble,
    isSimulated,
    otherBuffer,
    nameOf: (channel: number) => inputAt(channel, bench(), !isSimulated.value)?.id ?? `channel ${channel + 1}`,
    stop,
    look: async () => {
      ;[devices.value, outputs.value] = await Promise.all([liveDevices(), liveOutputs()])
    },
    startLive: async () => {
      await stop()
      trouble.value = null
      state.value = 'opening'
      try {
        rig = await openRig(
          device.value,
          output.value,
          () => void endWith('The input is gone. Plug it in and start again.'),
        )
        const { sampleRate, outputs: out, inputs, port } = rig
        if (subject.value.input >= inputs)
          return await endWith(
            `Input ${bench().input.id} is channel ${subject.value.input + 1} of the interface, and the browser hands out ${inputs}. Choose one of those, or use the single procedures with your host.`,
          )
        await begin({ live: { sampleRate, outputs: out, inputs, port } }, subject.value, [port])
      } catch (error) {
        await endWith(
          error instanceof NoInput
            ? error.message
            : 'The interface could not be opened. Choose another input or output.',
        )
      }
    },
    startSimulated: async (cables: string) => {
      await stop()
      trouble.value = null
      const { simulated } = store
      if (!simulated) return
      await begin(
        {
          simulated: {
            unit: structuredClone(toRaw(simulated)),
            sampleRate: bench().session.system.sampleRate,
            cables: simulatedCables[cables]?.cables ?? [],
            meterAccuracy: atHand.meterAccuracy,
          },
        },
        { ...subject.value, input: 0 },
      )
    },
    answer: (value: Answer) => {
      move.value = null
      send({ answer: value })
    },
    makeMove: () => {
      move.value = null
      send({ makeMove: true })
    },
  }
}
