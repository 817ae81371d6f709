import { fullScaleAt } from '../gear/interface/input-gain'
import { nioshHours } from '../monitoring/exposure'
import type { LevelsReport } from '../measure/levels/measure-levels'
import type { SoundSource } from '../gear'
import { editGear, withMeasurement } from '../edits'
import { fields, inForce } from '../model'
import { loadingGain } from '../gear/loading'
import { dbSpl, dbSplToPascals, dbv, dbvToDbu, formatDecimal, ohms, SINE_CREST } from '../units'
import { onChannels } from './connect'
import { knownOf, measurement, methodOf } from './keep'
import type { Bench, Procedure, Row, Typed } from './procedure'
import { EMPTY } from './procedure'
import { judged, repeated } from './judgement'
import { caution, gainFaults, note, onFullScale, stop } from './remarks'

const settings = fields({
  channel: {
    label: 'Channel of the file',
    unit: '',
    min: 1,
    max: 32,
    whole: true,
    help: 'Which one holds the microphone.',
  },
  sensitivity: { label: 'Sensitivity', unit: 'mV/Pa', min: 0.01, max: 1000, help: 'Of the microphone.' },
  gain: {
    label: 'Gain',
    unit: 'dB',
    min: -60,
    max: 100,
    help: 'The true gain of this recording: the measured one, if there is one.',
  },
  pad: { label: 'Pad', unit: 'dB', min: 0, max: 60, help: '0 where it is out.' },
  distance: { label: 'Distance', unit: 'm', min: 0.01, max: 100, help: 'From the source to the capsule.' },
})

/** dBFS at the recorder for 0 dB SPL at the capsule: sensitivity, loading, gain. */
function perSpl(bench: Bench, { sensitivity = 1, gain = 0, pad = 0 }: Typed): number {
  const specs = inForce(bench.input)
  const { impedance } = bench.voice ? inForce(bench.voice.microphone) : { impedance: undefined }
  const atOnePascal = dbvToDbu(dbv(20 * Math.log10(sensitivity / 1000)))
  const pascals = 20 * Math.log10(dbSplToPascals(dbSpl(0)))
  return (
    atOnePascal +
    pascals +
    loadingGain(impedance, specs.impedance === undefined ? undefined : ohms(specs.impedance)) -
    fullScaleAt(specs, gain, pad)
  )
}

/** Inverse distance: what a level is at another distance, dB. */
const carried = (from: number, to: number) => 20 * Math.log10(from / to)

/** 9. Which sound pressure level a recorded programme had at the microphone. */
export const microphoneLevel: Procedure<'levels'> = {
  id: 'microphone-level',
  title: 'Sound level at the microphone',
  purpose:
    'The programme’s dB SPL from a recording, by the microphone’s sensitivity and the gain: then the source’s level is measured, not guessed.',
  needs: ['input', 'voice'],
  guide: ({ voice, input }) => ({
    cautions: [
      'The source plays as loud as in the take, no louder: hearing does not grow back. From 85 dBA on use protection; local rules decide.',
    ],
    connect: [
      `${voice?.microphone.name ?? 'The microphone'} to input ${input.id}, as in the session, at a measured distance.`,
    ],
    set: ['Processing, low cuts and pads out.', 'Record half a minute of the loudest passage, export as WAV.'],
  }),
  signal: () => null,
  settings,
  initial: ({ voice, input }) => ({
    channel: 1,
    sensitivity: voice ? inForce(voice.microphone).sensitivity : undefined,
    gain: voice?.gain ?? inForce(input).gainMin,
    pad: voice?.pad ?? 0,
    distance: voice?.distance,
  }),
  each: {},
  initialEach: () => ({}),
  question: () => ({ kind: 'levels' }),
  rows: (found) => [found],
  summary: ({ channels }: LevelsReport) => channels.map((each) => formatDecimal(each.rms, 1)).join(', ') + ' dBFS',
  outcome: (bench, typed, all) => {
    const { voice } = bench
    const rows = all as Row<LevelsReport>[]
    const channel = (typed.channel ?? 1) - 1
    const heard = rows.flatMap((row) => {
      const own = row.found.channels[channel]
      return own?.rms != null && own.peak !== null
        ? [{ rms: own.rms, peak: own.peak, rmsA: own.rmsA, clipped: own.clippedRunCount > 0 }]
        : []
    })
    if (!voice || rows.length === 0) return EMPTY
    if (heard.length === 0)
      return {
        ...EMPTY,
        remarks: [stop(`Channel ${channel + 1} is not in the file, or it is silent. Choose one that is there.`)],
      }
    const spl = perSpl(bench, typed)
    const average = repeated(
      heard.map(({ rms }) => rms - spl),
      0,
    )
    const peak = Math.max(...heard.map((each) => each.peak)) - spl
    const crest = repeated(
      heard.map((each) => each.peak - each.rms + SINE_CREST),
      0,
    )
    const weighted = heard[0]?.rmsA == null ? null : heard[0].rmsA - spl
    const specs = inForce(voice.source)
    const distance = typed.distance ?? voice.distance
    const level = average.value + carried(distance, specs.distance)
    const faults = [
      ...(heard.some((each) => each.clipped)
        ? [stop('The recording clips: its peaks are cut off. Turn the gain down and record again.')]
        : []),
      ...gainFaults(bench, [typed.gain]),
    ]
    const { maxSpl } = inForce(voice.microphone)
    const truth = rows[0]?.simulated ? voice.source.specs.level + carried(voice.source.specs.distance, distance) : null
    const several = heard.length > 1
    return {
      figures: [
        judged({
          name: 'Average at the capsule',
          unit: 'dB SPL',
          digits: 1,
          value: average.value,
          spread: several ? average.spread : null,
          printed: voice.source.specs.level + carried(voice.source.specs.distance, distance),
          truth,
          within: 1,
          better: 'neither',
          more: 'louder',
          less: 'quieter',
        }),
        {
          name: 'Greatest peak',
          unit: 'dB SPL',
          digits: 1,
          value: peak,
          spread: null,
          printed: null,
          truth: null,
          judgement:
            maxSpl === undefined
              ? 'The microphone’s maximum SPL is not known.'
              : `${formatDecimal(maxSpl - peak, 1)} dB under the microphone’s maximum SPL.`,
        },
        judged({
          name: 'Crest factor',
          unit: 'dB',
          digits: 1,
          value: crest.value,
          spread: several ? crest.spread : null,
          printed: voice.source.specs.crest,
          truth: null,
          within: 1,
          better: 'neither',
          more: 'more',
          less: 'less',
        }),
      ],
      remarks: [
        ...faults,
        ...onFullScale(bench, rows),
        note(
          `The source is at ${formatDecimal(level, 1)} dB SPL at ${formatDecimal(specs.distance, 2)} m, by the inverse distance.`,
        ),
        ...(weighted !== null && weighted >= 85
          ? [
              caution(
                `${formatDecimal(weighted, 1)} dBA at the microphone: by NIOSH ${formatDecimal(nioshHours(weighted), 1)} h a day. A caution, not advice; local rules and a qualified person decide.`,
              ),
            ]
          : []),
      ],
      tables: [],
      keep:
        faults.length > 0
          ? null
          : {
              label: 'Source level measured',
              where: 'beside the stated level and crest of the source; every plan follows',
              apply: (session, on) => {
                const how = methodOf(
                  rows,
                  `Recording at ${formatDecimal(distance, 2)} m, ${formatDecimal(typed.sensitivity, 2)} mV/Pa, gain ${formatDecimal(typed.gain, 1)} dB`,
                )
                return editGear(session, voice.source.id, 'sound-source', (source: SoundSource) =>
                  withMeasurement(
                    withMeasurement(source, 'level', measurement(level, 1, several ? average.kept : null, how, on)),
                    'crest',
                    measurement(crest.value, 1, several ? crest.kept : null, how, on),
                  ),
                )
              },
            },
    }
  },
  simulated: (bench, typed, simulated) => {
    const { voice } = bench
    if (!voice) return []
    const { impedance } = inForce(voice.microphone)
    const distance = typed.distance ?? voice.distance
    const spl = voice.source.specs.level + carried(voice.source.specs.distance, distance)
    const average = perSpl(bench, typed) + fullScaleAt(inForce(bench.input), typed.gain ?? 0, typed.pad) + spl
    return [
      {
        take: {
          simulated,
          sampleRate: bench.session.system.sampleRate,
          channels: onChannels({
            channel: typed.channel,
            connection: {
              from: 'voice',
              average,
              seconds: 20,
              gain: (typed.gain ?? 0) - (typed.pad ?? 0),
              ohms: impedance ?? 200,
            },
          }),
        },
        typed: {},
      },
    ]
  },
  known: ({ voice }) => knownOf(voice?.source.measured?.level, 'dB SPL', 1),
}
