import { loadOfCell, loadWords } from '../latency/cpu-load'
import type { DiagnosisView } from '../diagnosis/view'
import { BY_EAR } from '../render/to-ears'
import type { Hearing } from '../render/hearing'
import { routeTime } from '../latency/route-words'
import { formatDecimal, formatShort } from '../units'

const DRIVERS = { exclusive: 'the exclusive driver', class: 'the class driver', shared: 'the shared driver' } as const

/** What stands around a chain: rate, buffer and driver, other devices, the room, and how its performer listens. */
export function aroundWords(view: DiagnosisView): string[] {
  const { session, strip, all, monitor, evaluated } = view
  const { system, room } = session
  const load = all.cell && loadOfCell(all.cell)
  const route = evaluated.latency.find((each) => each.route === strip.monitor.route)
  return [
    `${formatShort(system.sampleRate / 1000)} kHz, a buffer of ${system.bufferFrames} frames, ${DRIVERS[system.driver ?? 'exclusive']}${load ? `; load ${loadWords(load)}` : ''}.`,
    ...(system.devices ?? []).map(({ name, sampleRate }) => `${name}: ${formatShort(sampleRate / 1000)} kHz.`),
    ...(room.ambient === undefined ? [] : [`Room noise ${formatDecimal(room.ambient, 0)} dBA.`]),
    ...(route
      ? [
          `Listens by ${strip.monitor.route === 'direct' ? 'direct' : 'software'} monitoring, ${routeTime(route)}${monitor?.doubling ? `; the other path is heard too, ${formatDecimal(monitor.doubling.difference, 0)} dB` : ''}${monitor && monitor.ears !== 'both' ? `, on the ${monitor.ears} only` : ''}.`,
        ]
      : []),
    ...view.busses.flatMap(({ strip: bus, evaluated: of }) =>
      of.feedback
        ? [
            `${bus.name}: ${of.feedback.microphones.length} microphones are sent to it${of.feedback.margin === null ? '' : `; margin before feedback ${formatDecimal(of.feedback.margin, 1)} dB`}.`,
          ]
        : [],
    ),
  ]
}

/** What a sound holds, for whoever does not hear it: no more than an ear would tell. */
export function captionOf(hearing: Hearing, view: DiagnosisView): string {
  const { effects = {}, from, pauseRaised = 0 } = hearing
  const end = view.points.at(-1)
  const silent = 'silent' in from && from.silent
  const level = (value: number | null | undefined) => formatDecimal(value, 0)
  const unit = end?.unit === 'dBFS' ? 'dBFS' : (end?.unit ?? '')
  const clipped = view.points.some((point) => point.clipped)
  return [
    silent
      ? 'Nothing of the performer is heard'
      : `The performer at ${level(end?.average)} ${unit}, peaks ${level(end?.peak)}${clipped ? ', torn at the top in the loudest places' : ''}`,
    end?.noise === null || end === undefined
      ? 'then a pause'
      : `then a pause with noise at ${level(end.noise)} ${unit}(A)${pauseRaised > 0 ? `, played up to ${pauseRaised} dB louder` : ''}`,
    ...(effects.hum
      ? [
          `a hum under it, ${effects.hum.lines === 'even' ? 2 * effects.hum.mains : effects.hum.mains} Hz${effects.hum.lines === 'alone' ? ' by itself' : ' with multiples'}, ${level(effects.hum.level)} dBFS`,
        ]
      : []),
    ...(effects.dropouts
      ? [
          `${effects.dropouts.kind === 'gap' ? 'gaps' : 'ticks'}, ${formatShort(effects.dropouts.perSecond, 1)} a second, ${effects.dropouts.regular ? 'evenly' : 'at no set time'}`,
        ]
      : []),
    ...(effects.twice ? [`the sound once more, ${formatDecimal(effects.twice.delayMs, 1)} ms later`] : []),
    ...(effects.ratio && Math.abs(effects.ratio - 1) > 1e-6
      ? [
          `${formatDecimal(Math.abs(12 * Math.log2(effects.ratio)), 1)} semitones ${effects.ratio > 1 ? 'sharp' : 'flat'}`,
        ]
      : []),
    ...(effects.side ? [`on the ${effects.side} only`] : []),
    ...(effects.drift ? [`the level moves by ${formatDecimal(effects.drift.depth, 0)} dB`] : []),
    ...(effects.dull !== undefined ? [`nothing much above ${formatDecimal(effects.dull / 1000, 1)} kHz`] : []),
    ...(effects.howl ? ['a tone that comes up by itself'] : []),
  ]
    .join('; ')
    .concat('.')
}

export const LOUDNESS = `It is played at ${formatDecimal(BY_EAR.starts, 0)} dBFS, never over ${formatDecimal(BY_EAR.most, 0)}, and fades in. Headphones down first, then turn up slowly; loud listening harms hearing.`
