import { settableGain } from '../chain/settable-gain'
import { evaluateSession } from '../evaluation/evaluate-session'
import type { AnalogueInput, AudioInterface } from '../gear'
import type { Session } from '../session'
import type { Strip } from '../model'
import { analogueInput, isInterface } from '../gear'
import { inForce } from '../model'
import { applyChanges } from '../edits'
import { db, formatDecimal } from '../units'
import { comparedPorts, namedOnly } from './compare-units'

/** What changes in a strip when another unit takes the place of its own. */
export interface InItsPlace {
  unit: string
  /** Signal-to-noise gained, dB; `null` where one of them is not known. */
  quieter: number | null
  /** Sooner through the host, ms. */
  sooner: number | null
  /** In plain words. */
  words: string
}

/** Differences below these are none. */
const SAME_DB = 0.1
const SAME_MS = 0.05

/**
 * Puts each unit into a strip instead of its own, set so that the recording reads the same, and says what that changes. Measured
 * round trips that name no unit are those of the strip's own, and do not count for the others.
 */
export function inItsPlace(session: Session, strip: Strip, units: readonly AudioInterface[]): InItsPlace[] {
  const stage = strip.stages.findLast((each) => session.gear.some((gear) => gear.id === each.gear && isInterface(gear)))
  const own = session.gear.find((gear): gear is AudioInterface => isInterface(gear) && gear.id === stage?.gear)
  const port = own && stage?.port ? analogueInput(own, stage.port) : null
  if (!own || !stage || !port) return []
  const before = resultsOf(session, strip.id)
  const wanted = (stage.settings.gain ?? port.specs.gainMin) - inForce(port).gainMin - inForce(port).fullScale
  return units
    .filter((unit) => unit.id !== own.id)
    .flatMap((unit) => {
      const ports = comparedPorts(unit, port.type)
      if (!ports) return []
      const { input } = ports
      const specs = inForce(input)
      const { gain, limit } = settableGain(specs, db(wanted + specs.fullScale + specs.gainMin))
      const replaced = applyChanges(session, [
        { do: 'replace', strip: strip.id, stage: stage.id, gear: unit, port: input.id },
        { strip: strip.id, stage: stage.id, setting: 'gain', to: gain },
        {
          strip: strip.id,
          stage: stage.id,
          setting: 'phantom',
          to: (stage.settings.phantom ?? false) && input.phantom,
        },
      ])
      const after = resultsOf({ ...replaced, system: namedOnly(replaced.system) }, strip.id)
      const quieter = before.snr === null || after.snr === null ? null : after.snr - before.snr
      const sooner =
        before.software === null || after.software === null || !unit.latency ? null : before.software - after.software
      return [
        {
          unit: unit.id,
          quieter,
          sooner,
          words: inWords(quieter, sooner, gain, limit, needsPhantom(stage.settings.phantom, input)),
        },
      ]
    })
}

const needsPhantom = (phantom: boolean | undefined, input: AnalogueInput) => (phantom ?? false) && !input.phantom

function resultsOf(session: Session, stripId: string): { snr: number | null; software: number | null } {
  const evaluated = evaluateSession(session).strips.find((each) => each.id === stripId)
  return {
    snr: evaluated?.points.at(-1)?.snr ?? null,
    software: evaluated?.latency.find((route) => route.route === 'software')?.milliseconds ?? null,
  }
}

function inWords(
  quieter: number | null,
  sooner: number | null,
  gain: number,
  limit: 'lowest' | 'highest' | null,
  noPhantom: boolean,
): string {
  const noise =
    quieter === null
      ? 'noise not known'
      : Math.abs(quieter) < SAME_DB
        ? 'no quieter and no noisier here'
        : `${formatDecimal(Math.abs(quieter), 1)} dB ${quieter > 0 ? 'quieter' : 'noisier'} here`
  const time =
    sooner === null
      ? 'its round trip is not known'
      : Math.abs(sooner) < SAME_MS
        ? 'as soon'
        : `${formatDecimal(Math.abs(sooner), 1)} ms ${sooner > 0 ? 'sooner' : 'later'}`
  const set =
    limit === null
      ? `at ${formatDecimal(gain, 1)} dB`
      : `its ${limit} gain, ${formatDecimal(gain, 1)} dB, is not ${limit === 'highest' ? 'enough' : 'low enough'} for the same level`
  return `${noise}; ${time}; ${set}${noPhantom ? '; and it gives no phantom power, which the microphone needs' : ''}`
}
