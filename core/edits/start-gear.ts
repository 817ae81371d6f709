import type { AudioInterface, Gear } from '../gear'
import { isElectricSource, withChoice } from '../gear'
import { usualTiming } from './blank'
import { blankGear } from './blank-gear'
import { withSpec } from './edit'
import { loudnesses } from './loudness'
import type { ChainAnswer, InputType, MicrophoneAnswer, StartAnswers } from './start-answers'
import { hasInline, isLine, isSound, isUsb, loudKindOf, microphones, needsPhantom, recordables } from './start-answers'

/** A box as it is to stand in a strip. */
export interface Placed {
  gear: Gear
  port?: string | undefined
  settings: object
}

/** Everything before the interface: the source, its microphone or DI box, a preamp or a desk channel. */
export function boxesBefore(
  answers: StartAnswers,
  chain: ChainAnswer,
  name: string,
  number: number,
  several: boolean,
): Placed[] {
  const called = (own: string, counted: string) => (several ? `${counted} ${number}` : own)
  const sound = isSound(answers)
  const boxes: Placed[] = [
    { gear: sourceOf(answers, `source-${number}`, name), settings: sound ? { distance: answers.distance ?? 0.3 } : {} },
  ]
  if (sound) {
    const { microphone = 'condenser' } = answers
    const gear = microphoneOf(microphone, `microphone-${number}`, called('My microphone', 'Microphone'))
    boxes.push({ gear, settings: isUsb(answers) ? { gain: 0 } : {} })
    if (hasInline(answers))
      boxes.push({
        gear: blankGear('booster', `inline-${number}`, called('My inline preamp', 'Inline preamp')),
        settings: {},
      })
  } else if (chain !== 'interface' && answers.what === 'instrument-lead') {
    // A pickup drives no microphone input: the lead goes into a DI box first.
    boxes.push({ gear: blankGear('di-box', `di-box-${number}`, called('My DI box', 'DI box')), settings: {} })
  }
  if (isUsb(answers)) return boxes
  const phantom = needsPhantom(answers)
  if (chain === 'preamp' && !isLine(answers))
    boxes.push({ gear: blankGear('preamp', `preamp-${number}`, called('My preamp', 'Preamp')), settings: { phantom } })
  if (chain === 'desk') {
    const gear = deskChannelFor(answers, `channel-${number}`, `Desk channel ${number}`)
    boxes.push({ gear, settings: { phantom, fader: 0 } })
  }
  return boxes
}

/** A channel with the input that the source needs: a line input for what gives line level. */
function deskChannelFor(answers: StartAnswers, id: string, name: string): Gear {
  const channel = blankGear('desk-channel', id, name)
  return isLine(answers)
    ? overridden(channel, {
        input: 'line',
        phantom: false,
        specs: { gainMin: -15, gainMax: 20, maxInput: 32, ein: -90, inputImpedance: 10_000 },
      })
    : channel
}

function sourceOf({ what = 'voice', loudness }: StartAnswers, id: string, name: string): Gear {
  const blank = blankGear(recordables[what].source, id, name)
  const loud = loudness && loudnesses[loudness]
  if (loud?.of === loudKindOf(what)) {
    const { level, crest, surge } = loud
    return overridden(blank, { specs: { level, crest, surge } })
  }
  if (!isElectricSource(blank) || what !== 'instrument-lead') return blank
  return overridden(blank, {
    output: 'passive-pickup',
    specs: { level: -18, crest: 14, impedance: 8000, inductance: 3 },
  })
}

function microphoneOf(kind: MicrophoneAnswer, id: string, name: string): Gear {
  const { phantom, specs } = microphones[kind]
  const blank = blankGear('microphone', id, name)
  return overridden(kind === 'usb' ? withChoice(blank, 'output', 'digital') : blank, {
    principle: kind === 'usb' ? 'condenser' : kind,
    phantom,
    specs,
  })
}

/** A blank box with some of it otherwise; its figures are as assumed as before. */
function overridden(box: Gear, part: Record<string, unknown> & { specs: object }): Gear {
  const specs = Object.fromEntries(
    Object.entries({ ...('specs' in box ? box.specs : {}), ...part.specs }).filter(([, value]) => value !== undefined),
  )
  return {
    ...box,
    ...part,
    specs,
    assumed: [...new Set([...(box.assumed ?? []), ...Object.keys(part.specs)])].filter((key) => key in specs),
  } as unknown as Gear
}

/** Inputs counted by their type: mic1, mic2, line1. */
export const countedIds = (types: readonly InputType[]): string[] =>
  types.map((type, i) => `${TYPE_IDS[type]}${types.slice(0, i + 1).filter((each) => each === type).length}`)
const TYPE_IDS = { mic: 'mic', line: 'line', instrument: 'inst', digital: 'usb' } as const

/** A unit that takes a group: what many channels make together is louder than one, so its input can be turned further down. */
export function groupUnit(): AudioInterface {
  const unit = unitFor(['line'], ['group'])
  const inputs = unit.inputs.map((input) =>
    input.type === 'digital' ? input : withSpec(withSpec(input, 'gainMin', -12), 'fullScale', 32),
  )
  return { ...unit, inputs }
}

/** A unit with an input of its type for every strip, and two at least. */
export function unitFor(types: readonly InputType[], ids: readonly string[]): AudioInterface {
  const unit = blankGear('interface', 'interface', 'My interface') as AudioInterface
  const [usual] = unit.inputs
  const own = types.map((type, i) => ({ type, id: ids[i] }))
  const [only] = own
  const all = own.length === 1 && only ? [only, { type: only.type, id: `${TYPE_IDS[only.type]}2` }] : own
  const inputs = all.map(({ type, id }) => {
    const base = { ...(usual as Extract<typeof usual, { specs: object }>), id, type }
    if (type === 'digital') return { id, type }
    if (type === 'mic') return base
    const { ein: _, ...specs } = base.specs
    const other =
      type === 'line'
        ? { gainMax: 20, fullScale: 20, impedance: 10_000 }
        : { gainMax: 40, fullScale: 10, impedance: 1_000_000 }
    return {
      ...base,
      phantom: false,
      specs: { ...specs, ...other },
      assumed: base.assumed?.filter((key) => key !== 'ein'),
    }
  })
  return {
    ...unit,
    inputs: inputs as AudioInterface['inputs'],
    ...(usualTiming as unknown as Pick<AudioInterface, 'sampleRates' | 'bufferSizes' | 'latency'>),
  }
}
