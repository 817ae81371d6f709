import type { Judged } from '../bench/judgement'
import { judged } from '../bench/judgement'
import type { Bench } from '../bench/procedure'
import { einWeighted } from '../gear/equivalent-input-noise'
import { loadingGain } from '../gear/loading'
import { estimateRoundTrip, modelRoundTrip } from '../latency/round-trip'
import type { MeasuredSheet, MeasuredFigure, SheetGroup } from '../files'
import { inForce } from '../model'
import { powerDifference } from '../numeric/power'
import { formatDecimal, formatShort, ohms, volts, voltsToDbu } from '../units'
import type { CableFindings, Doubt, FoundMark, Value } from './findings'

/** What is known of a run besides what it found. */
export interface SheetContext {
  bench: Bench
  /** YYYY-MM-DD. */
  on: string
  /** ± of the multimeter, %. */
  meterAccuracy: number
  /** Played and recorded by the browser, whose own buffers are in the round trip. */
  isThroughBrowser: boolean
  /** Of a simulated interface, by the figure’s id. */
  truth: Record<string, number> | null
}

const DOUBTS: Record<Doubt, string> = {
  'samples-lost': 'Samples were lost during the run. Raise the buffer and run it again.',
  'loose': 'The level jumped: a loose contact in the cable or a plug. Replace the cable and run it again.',
  'two-clocks': 'Output and input run on two clocks. Make one unit the clock of all.',
}

/** Response figures rest on whole periods; what is left between two meters (common practice, no source), dB. */
const RESPONSE_U = 0.02
/** An EIN that lies within more than this, dB, is not told from the converter’s noise. */
const EIN_WITHIN = 2
/** From here on a mains line is worth a figure, dB over the noise around it. */
const HUM_OVER = 15
const HUM_U = 0.5

/** The data sheet of one’s own: every figure with ±, method, and what it is beside the maker’s. */
export function sheetOf(found: CableFindings, context: SheetContext): MeasuredSheet {
  const { bench } = context
  const doubt = found.doubts.find((each) => each !== 'two-clocks')
  const figure = figures(found, context)
  return {
    unit: bench.unit.name,
    input: bench.input.id,
    output: bench.output?.id ?? `channel ${found.cable.output + 1}`,
    on: context.on,
    sampleRate: found.sampleRate,
    practice: context.truth !== null,
    figures: figure.map((each) => ({ ...each, doubt: doubt ? DOUBTS[doubt] : each.doubt })),
    response: found.response,
    marks: marksOfSheet(found, bench),
    remarks: remarksOf(found, bench),
  }
}

function marksOfSheet({ marks, idle }: CableFindings, { input }: Bench): MeasuredSheet['marks'] {
  const first = marks[0]
  if (!first) return []
  const lowest = 'said' in first.mark ? { said: inForce(input).gainMin } : { position: 7 }
  return [
    { ...lowest, gain: 0, u: 0, noise: idle?.value ?? null },
    ...marks.map(({ mark, gain, noise }) => ({ ...mark, gain: gain.value, u: gain.u, noise: noise.value })),
  ]
}

type Draft = Omit<Judged, 'truth' | 'spread' | 'within' | 'better' | 'more' | 'less'> &
  Partial<Pick<Judged, 'within' | 'better' | 'more' | 'less'>> & {
    id: string
    group: SheetGroup
    u: number
    method: string
    /** In place of a comparison with the maker’s figure. */
    says?: string
    doubt?: string | null
  }

function figures(found: CableFindings, context: SheetContext): MeasuredFigure[] {
  return [
    ...levels(found, context),
    ...gains(found, context),
    ...noises(found, context),
    ...distortion(found, context),
    ...response(found),
    ...channels(found),
    ...times(found, context),
  ].map(({ id, group, u, method, says, doubt = null, ...draft }) => {
    const truth = context.truth?.[id] ?? null
    const { judgement, printed, name, unit, digits, value } = judged({
      within: 0.1,
      better: 'neither',
      more: 'more',
      less: 'less',
      ...draft,
      spread: 2 * u,
      truth,
    })
    return { id, group, name, unit, digits, value, u, method, printed, truth, doubt, judgement: says ?? judgement }
  })
}

/** What the socket has while 0 dBFS plays, dBu: from the multimeter; `null` without its reading. */
function socketLevel({ meter, response }: CableFindings, { meterAccuracy }: SheetContext): Value | null {
  if (!meter) return null
  const low = response.find(({ frequency }) => frequency === 127)?.level ?? 0
  return {
    value: voltsToDbu(volts(meter.volts)) - meter.played,
    // The tone for the meter lies lower than the one of the loop, and the way's response between is partly the input's.
    u: Math.hypot((20 * Math.log10(1 + meterAccuracy / 100)) / Math.sqrt(3), low / Math.sqrt(3)),
  }
}

/** The level that reads 0 dBFS at the lowest gain, dBu; `null` where the multimeter did not say. */
function inputFullScale(found: CableFindings, context: SheetContext): Value | null {
  const socket = socketLevel(found, context)
  return socket && { value: socket.value - found.loopGain.value, u: Math.hypot(socket.u, found.loopGain.u) }
}

/** What the output loses into the input, as a gain, dB; 0 where an impedance is not known. */
function loading({ input, output }: Bench): number {
  const source = output ? inForce(output).impedance : undefined
  return loadingGain(source === undefined ? undefined : ohms(source), inForce(input).impedance)
}

function levels(found: CableFindings, context: SheetContext): Draft[] {
  const { bench } = context
  const { input, output } = bench
  const socket = socketLevel(found, context)
  const fullScale = inputFullScale(found, context)
  return [
    {
      id: 'loop-gain',
      group: 'Level',
      name: '0 dBFS out reads, gain fully down',
      unit: 'dBFS',
      digits: 2,
      ...found.loopGain,
      printed: output ? output.specs.fullScale + loading(bench) - input.specs.fullScale : null,
      more: 'hotter',
      less: 'quieter',
      doubt: isTooQuiet(found, bench) ? QUIET : null,
      method: '970 Hz through the cable, at −18 dBFS in the recording',
    },
    {
      id: 'linearity',
      group: 'Level',
      name: 'Largest deviation from −6 to −60 dBFS',
      unit: 'dB',
      digits: 3,
      value: found.linearity.value,
      u: found.linearity.u,
      printed: null,
      says:
        found.linearity.value < 0.05
          ? 'Linear.'
          : 'A level that changes does not come back as the same change: look for a limiter, an automatic gain or a driver that processes.',
      method: '970 Hz in ten steps of 6 dB',
    },
    ...(socket && output
      ? [
          {
            id: 'output-full-scale',
            group: 'Level' as const,
            name: 'Maximum output level',
            unit: 'dBu',
            digits: 2,
            value: socket.value - loading(bench),
            u: socket.u,
            printed: output.specs.fullScale,
            more: 'hotter',
            less: 'quieter',
            doubt: isTooQuiet(found, bench) ? QUIET : null,
            method: `Multimeter ±${formatShort(context.meterAccuracy)} %, 130 Hz, cable plugged in`,
          },
        ]
      : []),
    ...(fullScale
      ? [
          {
            id: 'input-full-scale',
            group: 'Level' as const,
            name: 'Maximum input level, gain fully down',
            unit: 'dBu',
            digits: 2,
            ...fullScale,
            printed: input.specs.fullScale,
            more: 'less sensitive',
            less: 'more sensitive',
            method: `Multimeter ±${formatShort(context.meterAccuracy)} % and the loop gain`,
          },
        ]
      : []),
    ...(found.microphone
      ? [
          {
            id: 'microphone-full-scale',
            group: 'Level' as const,
            name: 'Sound that reads 0 dBFS, gain fully down',
            unit: 'dB SPL',
            digits: 1,
            value: found.microphone.level - found.microphone.value,
            u: found.microphone.u,
            printed: null,
            method: `Microphone before ${formatShort(found.microphone.level)} dB SPL, ±${formatShort(found.microphone.give)} dB`,
          },
        ]
      : []),
  ]
}

function gains({ marks }: CableFindings, { bench }: SheetContext): Draft[] {
  const { gainMin, gainMax } = bench.input.specs
  const top = marks.at(-1)
  return marks.length === 0
    ? []
    : [
        ...(marks.map(({ mark, gain }, i) => ({
          id: `gain-${i + 2}`,
          group: 'Gain' as const,
          name: `Gain over the lowest, ${markText(mark)}`,
          unit: 'dB',
          digits: 2,
          ...gain,
          printed: 'said' in mark ? mark.said - gainMin : null,
          says: 'said' in mark ? undefined : 'A knob has no figure to compare with.',
          doubt: 'said' in mark && Math.abs(gain.value - (mark.said - gainMin)) > NOT_THERE ? WRONG_MARK : null,
          method: '970 Hz through the cable, when the gain stood still',
        })) as Draft[]),
        ...(top && isTop(top, gainMax)
          ? [
              {
                id: 'highest-gain',
                group: 'Gain' as const,
                name: 'Maximum gain',
                unit: 'dB',
                digits: 2,
                value: gainMin + top.gain.value,
                u: top.gain.u,
                printed: gainMax,
                within: 0.3,
                doubt: Math.abs(gainMin + top.gain.value - gainMax) > NOT_THERE ? WRONG_MARK : null,
                method: 'The lowest gain as the data sheet has it, and what was heard over it',
              },
            ]
          : []),
      ]
}

/** A gain that is so far from its scale was not turned there, dB. */
const NOT_THERE = 6
const WRONG_MARK = 'Far from what the scale says: the gain was probably not turned to this mark.'

/** The last mark is the highest gain that there is. */
const isTop = ({ mark }: FoundMark, gainMax: number) => ('said' in mark ? mark.said >= gainMax : mark.position >= 17)

export const markText = (mark: { position?: number | undefined; said?: number | undefined }): string =>
  mark.said === undefined
    ? mark.position === 17
      ? 'fully up'
      : mark.position === 7
        ? 'fully down'
        : `at ${formatShort(mark.position ?? 7)} h`
    : `at ${formatShort(mark.said)} dB on its scale`

function noises(found: CableFindings, context: SheetContext): Draft[] {
  const { idle, marks } = found
  const ein = einOf(found, context)
  const cable = (id: string, name: string, noise: Value): Draft => ({
    id,
    group: 'Noise',
    name,
    unit: 'dBFS(A)',
    digits: 1,
    value: noise.value,
    u: noise.u,
    printed: null,
    says: 'Output and input together.',
    method: 'Nothing played, cable plugged in, hum left out',
  })
  const humming = [idle, ...marks.map(({ noise }) => noise)].findLast((each) => each?.hum)
  const hum = humming?.hum
  return [
    ...(idle ? [cable('noise-lowest', 'Noise, gain fully down', idle)] : []),
    ...marks.map(({ mark, noise }, i) => cable(`noise-${i + 2}`, `Noise, ${markText(mark)}`, noise)),
    ...(ein ? [ein] : []),
    ...(hum && hum.lines.some(({ over }) => over >= HUM_OVER)
      ? [
          {
            id: 'hum',
            group: 'Noise' as const,
            name: `Hum, ${hum.mains} Hz and multiples`,
            unit: 'dBFS',
            digits: 1,
            value: hum.level,
            u: HUM_U,
            printed: null,
            says: `Lines at ${hum.lines.map(({ frequency }) => formatShort(Math.round(frequency))).join(', ')} Hz. With the cable plugged in it is mostly a ground loop.`,
            method: 'Nothing played, at the highest gain measured',
          },
        ]
      : []),
  ]
}

/** EIN from the plug at the top: the converter's share is at most the noise at the lowest gain, so it lies between two values. */
function einOf(found: CableFindings, context: SheetContext): Draft | null {
  const { plug, idle } = found
  const fullScale = inputFullScale(found, context)
  if (!plug || !fullScale) return null
  const reads = fullScale.value - plug.gain
  const rest = idle && powerDifference(plug.value, idle.value)
  const [high, low] = [plug.value + reads, rest === null ? -Infinity : rest + reads]
  if (high - low > EIN_WITHIN) return null
  const { ein, einWeighting } = context.bench.input.specs
  return {
    id: 'ein',
    group: 'Noise',
    name: 'Equivalent input noise, 150 Ω, highest gain measured',
    unit: 'dBu(A)',
    digits: 1,
    value: (high + low) / 2,
    u: Math.hypot(plug.u, fullScale.u, (high - low) / 2 / Math.sqrt(3)),
    printed: ein === undefined ? null : einWeighted(ein, einWeighting),
    within: 0.5,
    better: 'lower',
    more: 'noisier',
    less: 'quieter',
    method: '150 Ω plug, A-weighted, the converter’s share bounded by the noise at the lowest gain',
  }
}

function distortion({ dynamicRange, distortion: tones }: CableFindings, { bench }: SheetContext): Draft[] {
  return [
    ...(dynamicRange
      ? [
          {
            id: 'dynamic-range',
            group: 'Distortion' as const,
            name: 'Dynamic range, output and input together',
            unit: 'dB(A)',
            digits: 1,
            ...dynamicRange,
            printed: bench.input.specs.dynamicRange,
            within: 0.5,
            better: 'higher' as const,
            more: 'more',
            less: 'less',
            method: '997 Hz at −60 dBFS taken out of the recording (AES17)',
          },
        ]
      : []),
    ...tones.map(({ read, value, u, second, third }, i) => ({
      id: `thd-n-${i + 1}`,
      group: 'Distortion' as const,
      name: `THD+N at ${formatDecimal(read, 1)} dBFS`,
      unit: 'dB',
      digits: 1,
      value,
      u,
      printed: null,
      says: [
        `${(100 * 10 ** (value / 20)).toPrecision(2)} % of the tone`,
        ...(second === null ? [] : [`second harmonic ${formatDecimal(second, 1)} dB`]),
        ...(third === null ? [] : [`third harmonic ${formatDecimal(third, 1)} dB`]),
      ].join(', '),
      method: '997 Hz taken out of the recording, 20 Hz to 20 kHz',
    })),
  ]
}

function response({ response: points }: CableFindings): Draft[] {
  const at = (id: string, name: string, frequency: number): Draft[] => {
    const point = points.find((each) => each.frequency === frequency)
    return point
      ? [
          {
            id,
            group: 'Response',
            name,
            unit: 'dB',
            digits: 2,
            value: point.level,
            u: RESPONSE_U,
            printed: null,
            says: 'Against 1 kHz; output and input together.',
            method: '31 tones at once, a third of an octave apart',
          },
        ]
      : []
  }
  return [...at('response-low', 'Response at 20 Hz', 20), ...at('response-high', 'Response at 20 kHz', 19_997)]
}

function channels({ second, cable, balance, crosstalk }: CableFindings): Draft[] {
  if (!second) return []
  return [
    ...(balance
      ? [
          {
            id: 'balance',
            group: 'Channels' as const,
            name: `Channel ${second.input + 1} over channel ${cable.input + 1}`,
            unit: 'dB',
            digits: 2,
            ...balance,
            printed: null,
            says: 'Outputs and inputs together: exchange the two cables at one end to tell them apart.',
            method: '970 Hz over each cable in turn',
          },
        ]
      : []),
    ...crosstalk.map(({ frequency, value, u, isFloor }, i) => ({
      id: `crosstalk-${i + 1}`,
      group: 'Channels' as const,
      name: `Crosstalk at ${formatShort(Math.round(frequency / 1000))} kHz`,
      unit: 'dB',
      digits: 1,
      value,
      u: Math.hypot(u, 0.05),
      printed: null,
      doubt: isFloor ? 'Only noise is seen there: the crosstalk is lower than this.' : null,
      says: isFloor
        ? 'At most this.'
        : `Channel ${second.input + 1} under channel ${cable.input + 1}, which is driven.`,
      method: 'Tone over the first cable, read at the second input',
    })),
  ]
}

function times({ roundTrips, sampleRate, doubts }: CableFindings, { bench, isThroughBrowser }: SheetContext): Draft[] {
  const doubt = doubts.includes('two-clocks') ? DOUBTS['two-clocks'] : null
  const { unit, session } = bench
  const [first, second] = roundTrips
  return [
    ...roundTrips.map((each, i) => ({
      id: `round-trip-${i + 1}`,
      group: 'Time' as const,
      name: isThroughBrowser ? 'Round trip through this browser' : `Round trip, ${each.bufferFrames} frames`,
      doubt,
      unit: 'ms',
      digits: 3,
      value: (1000 * each.value) / sampleRate,
      u: (1000 * each.u) / sampleRate,
      printed:
        unit.latency && !isThroughBrowser ? modelRoundTrip(unit, session.system, sampleRate, each.bufferFrames) : null,
      within: 0.05,
      more: 'later',
      less: 'sooner',
      says: isThroughBrowser
        ? 'The browser’s buffers are in it. Measure the host’s with “Round trip by loopback”.'
        : unit.latency
          ? undefined
          : `The session expected ${formatDecimal(estimateRoundTrip(unit, session.system, sampleRate, each.bufferFrames).milliseconds, 2)} ms.`,
      method: `Maximum-length sequence, 5 passes within ±${formatDecimal(each.spread, 2)} frames`,
    })),
    ...(first && second && first.bufferFrames !== second.bufferFrames
      ? [
          {
            id: 'buffers',
            group: 'Time' as const,
            doubt,
            name: 'Buffers held both ways',
            unit: 'buffers',
            digits: 2,
            value: (second.value - first.value) / (second.bufferFrames - first.bufferFrames),
            u: Math.hypot(first.u, second.u) / Math.abs(second.bufferFrames - first.bufferFrames),
            printed: unit.latency ? (unit.latency.buffersIn ?? 1) + (unit.latency.buffersOut ?? 1) : null,
            within: 0.05,
            method: 'From the round trips at two buffers',
          },
        ]
      : []),
  ]
}

/** A loop that is quieter than its data sheet by more than this is fed by one leg of a balanced pair, or not fully up, dB. */
const TOO_QUIET = 4
const QUIET =
  'The loop is much quieter than the data sheet says: one leg of a balanced cable carries nothing, or an output’s volume is down.'

/** What the loop lacks against the data sheet, where that is more than units differ by, dB. */
function isTooQuiet({ loopGain }: CableFindings, bench: Bench): boolean {
  const { input, output } = bench
  return output !== null && output.specs.fullScale + loading(bench) - input.specs.fullScale - loopGain.value > TOO_QUIET
}

function remarksOf(found: CableFindings, bench: Bench): string[] {
  return [
    `Cable from output channel ${found.cable.output + 1} to input channel ${found.cable.input + 1}${found.second ? `, and from ${found.second.output + 1} to ${found.second.input + 1}` : ''}.`,
    found.polarity > 0
      ? 'Polarity is kept.'
      : 'Polarity is inverted on the way: an output, an input or the cable inverts it. Try another cable first.',
    ...(isTooQuiet(found, bench) ? [QUIET] : []),
    ...(found.meter ? [] : ['No voltage was read: levels are relative to full scale, and nothing is told in dBu.']),
    ...found.doubts.map((doubt) => DOUBTS[doubt]),
  ]
}
