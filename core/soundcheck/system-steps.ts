import { isHeadphones, isProcessor, isLoudspeaker } from '../gear'
import { restingGain, stripControls } from '../chain/gain-control'
import { stageName } from '../chain/setting-words'
import { recordingBytes } from '../latency/disk'
import type { System } from '../model'
import { formatDecimal, formatShort } from '../units'
import type { Sheet } from './sheet'
import type { Instruction } from './step'
import { instruction } from './step'

const DRIVERS: Record<NonNullable<System['driver']>, string> = {
  exclusive:
    'The maker’s own driver is chosen in the host, not a generic one; the machine was restarted after it was installed.',
  class: 'The system’s class driver is chosen; check whether the maker offers one.',
  shared:
    'The host plays through the system’s mixer: nothing else plays through it. The maker’s driver would be faster.',
}
const NO_DRIVER =
  'The maker’s own driver is chosen in the host where there is one, and the machine was restarted after it was installed.'

/** The list of the computer, its driver and the unit (common practice, no source). Without a unit there is nothing of it. */
export function systemSteps(sheet: Sheet): Instruction[] {
  const { session, units } = sheet
  if (units.length === 0) return []
  const { sampleRate, bitDepth, driver, takeMinutes } = session.system
  const names = units.map(({ name }) => name).join(' and ')
  const system = (what: string, title: string, detail: string): Instruction =>
    instruction({ id: `system.${what}`, group: 'system', title, detail })
  return [
    system('driver', 'Driver', driver ? DRIVERS[driver] : NO_DRIVER),
    system(
      'firmware',
      `Firmware of ${names}`,
      'Up to date, and noted in the mark: it is the first thing to check when something stops working.',
    ),
    system(
      'cable',
      `Cable of ${names}`,
      'The one supplied, straight into the computer; no hub without its own power supply.',
    ),
    system(
      'rate',
      `${formatShort(sampleRate / 1000)} kHz everywhere`,
      `The same rate in ${['the unit', 'the system', 'the host', ...(session.system.devices ?? []).map(({ name }) => name)].join(', ')}; the host restarted after a change. ${bitDepth === 32 ? 'Floating point' : `${bitDepth} bits`}.`,
    ),
    system('slider', 'System’s input slider', sliderWords(sheet)),
    system(
      'processing',
      'Enhancements and automatic gain off',
      'Everything by which the system “improves” an input, its automatic gain, and the lowering of other sounds during calls.',
    ),
    system(
      'devices',
      'Default devices',
      `${names} is the host’s input and output; headphones are plugged into the unit’s own jack, and no other program holds it.`,
    ),
    ...(takeMinutes === undefined
      ? []
      : [
          system(
            'disk',
            'Room on the disk',
            `${formatDecimal(recordingBytes(sampleRate, bitDepth, Math.max(1, sheet.channels.length), takeMinutes * 60) / 1e9, 1)} GB for ${formatShort(takeMinutes)} minutes of ${sheet.channels.length} ${sheet.channels.length === 1 ? 'track' : 'tracks'}.`,
          ),
        ]),
  ]
}

/** Where the slider belongs, whatever it stands at. */
function sliderWords({ channels }: Sheet): string {
  const sliders = channels.flatMap(({ stages }) => stripControls(stages)).filter(({ isSystemSlider }) => isSystemSlider)
  const slider = sliders.find((each) => each.value !== restingGain(each)) ?? sliders[0]
  if (!slider)
    return 'At its 0 dB mark, so that nothing is added after the converter. Some systems put it at 100 %, some at 50 %; it must add no gain.'
  const rest = restingGain(slider)
  const at = `At ${formatShort(rest, 1)} dB, so that it adds nothing after the converter.`
  return slider.value === rest ? at : `${at} It is at ${formatShort(slider.value, 1)} dB now.`
}

/** Nothing is plugged or switched before everything is down. */
export function downSteps({ strips, channels, session }: Sheet): Instruction[] {
  const all = strips.flatMap(({ stages }) =>
    stages.flatMap((stage) => stripControls([stage]).map((control) => ({ control, name: stageName(stage) }))),
  )
  const gains = all.filter(({ control }) => !control.isFader)
  const faders = all.filter(({ control }) => control.isFader)
  const processors = strips.flatMap(({ stages }) => stages.filter((each) => isProcessor(each)))
  const pads = strips.flatMap(({ stages }) => stages.filter(({ settings }) => settings.pad !== undefined))
  const heard = [
    ...new Set([
      ...session.gear.filter((each) => isHeadphones(each) || isLoudspeaker(each)).map(({ name }) => name),
      ...(channels.some(({ strip }) => strip.monitor.output) ? ['every headphone volume'] : []),
    ]),
  ]
  const down = (what: string, title: string, detail: string): Instruction =>
    instruction({ id: `down.${what}`, group: 'down', title, detail, holds: what })
  return [
    down(
      'monitors',
      'Headphones and loudspeakers down',
      `${heard.join(', ') || 'Everything you listen to'}: fully down, or off.`,
    ),
    ...(gains.length === 0
      ? []
      : [
          down(
            'gains',
            'All gains at minimum',
            gains.map(({ control, name }) => `${name} ${formatShort(control.range.gainMin, 1)} dB`).join(', ') + '.',
          ),
        ]),
    ...(faders.length === 0
      ? []
      : [
          down(
            'faders',
            'Faders down',
            `${[...new Set(faders.map(({ name }) => name))].join(', ')}: down, or at the mark where they will stay.`,
          ),
        ]),
    ...(processors.length + pads.length === 0
      ? []
      : [
          down(
            'inserts',
            'Inserts and pads out',
            [
              ...processors.map(({ gear }) => `${gear.name} bypassed`),
              ...(pads.length > 0 ? ['all pads and low cuts out'] : []),
            ].join(', ') + '.',
          ),
        ]),
  ]
}
