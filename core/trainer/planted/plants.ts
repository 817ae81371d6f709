import { pickupOf, microphoneOf } from '../../diagnosis/causes/common'
import type { Gear } from '../../gear'
import { isElectricSource, isInterface, isMicrophone, isSoundSource, isLink } from '../../gear'
import { editStrip } from '../../edits'
import { dbSpl, frames, hz, milliseconds } from '../../units'
import type { CauseId } from '../../diagnosis/causes'
import { applyFix } from '../../diagnosis/fix-change'

import type { Plant } from './plant-tools'
import {
  set,
  changed,
  between,
  gains,
  turned,
  intoInput,
  withSpecs,
  withPads,
  system,
  monitored,
  processor,
  slider,
  section,
  feedingBack,
} from './plant-tools'

/** Faults that a session shows. What is not in here is hidden: no setting tells of it. */
export const plants: Partial<Record<CauseId, Plant>> = {
  'late-gain': (view, random) => {
    const own = gains(view)
    if (own.length < 2) return null
    const by = Math.min(between(random, 15, 25), (own[0]?.value ?? 0) - (own[0]?.range.gainMin ?? 0))
    const last = own.at(-1)
    if (!last || last.range.gainMax - last.value < 10) return null
    return changed(view, [...turned(view, 0, -by), ...turned(view, own.length - 1, by)])
  },
  'source-down': (view, random) => {
    const pickup = pickupOf(view)
    if (!isElectricSource(pickup) || pickup.gear.output !== 'passive-pickup') return null
    const down = between(random, 10, 18)
    return applyFix(withSpecs(view.session, pickup.gear.id, { volumeLoss: down }), turned(view, 0, down))
  },
  'preamp-near-end': (view) => {
    const from = view.stages[0]
    if (!isSoundSource(from) || !isMicrophone(microphoneOf(view))) return null
    const microphone = microphoneOf(view)
    if (!isMicrophone(microphone) || microphone.gear.principle !== 'condenser') return null
    const [first] = gains(view)
    if (!first) return null
    return applyFix(
      withSpecs(view.session, from.gear.id, { level: from.specs.level - (first.range.gainMax - first.value) }),
      turned(view, 0, 99),
    )
  },
  'no-booster': (view) => {
    const from = view.stages[0]
    const microphone = microphoneOf(view)
    const [first] = gains(view)
    if (!isSoundSource(from) || !isMicrophone(microphone) || microphone.gear.principle === 'condenser' || !first)
      return null
    return applyFix(
      withSpecs(view.session, from.gear.id, { level: from.specs.level - (first.range.gainMax - first.value) - 4 }),
      turned(view, 0, 99),
    )
  },
  'system-slider-up': (view, random) => slider(view, between(random, 8, 20)),
  'slider-down': (view, random) => slider(view, -between(random, 15, 35)),
  'compressor-lifts': (view, random) => section(view, 0, { threshold: -45, ratio: between(random, 4, 8), makeUp: 14 }),
  'gate-works': (view, random) => section(view, 1, { threshold: between(random, -34, -28), ratio: 6 }),
  'room-noise': (view, random) => {
    const [first] = view.points
    const from = view.stages[0]
    // From farther away there is somewhere to go.
    return microphoneOf(view) && first && isSoundSource(from) && from.distance >= 0.2
      ? {
          ...view.session,
          room: { ...view.session.room, ambient: dbSpl(Math.round(first.average - between(random, 38, 43))) },
        }
      : null
  },
  'converter-over': (view, random) => {
    const at = view.chain.place && view.points[view.chain.place.index]
    return at?.unit === 'dBFS'
      ? changed(view, turned(view, gains(view).length - 1, -at.peak + between(random, 2, 8)))
      : null
  },
  'early-clip': (view, random) => {
    const [first] = gains(view)
    // Whichever can give back most behind it.
    const [last] = view.chain.controls
      .filter((control) => control !== first && !control.isSystemSlider && control.stage !== first?.stage)
      .concat(view.chain.controls.filter(({ isFader }) => isFader))
      .sort((a, b) => b.value - b.range.gainMin - (a.value - a.range.gainMin))
    const at = view.stages.findIndex(({ id }) => id === first?.stage)
    const headroom = view.points[at]?.headroom
    if (!first || !last || first === last || headroom == null || view.points[at]?.unit !== 'dBu') return null
    const from = view.stages[0]
    const by = headroom + between(random, 2, 7)
    if (last.value - last.range.gainMin < by || (!isSoundSource(from) && !isElectricSource(from))) return null
    // As far as the gain goes; the rest is played louder.
    const up = Math.min(by, first.range.gainMax - first.value)
    return applyFix(withSpecs(view.session, from.gear.id, { level: from.specs.level + by - up }), [
      ...turned(view, 0, up),
      set(view, last.stage, last.setting, last.value - by),
    ])
  },
  'capsule-overload': (view, random) => {
    const from = view.stages[0]
    const left = view.points[0]?.headroom
    if (!isSoundSource(from) || left == null) return null
    const by = left + between(random, 2, 6)
    return applyFix(withSpecs(view.session, from.gear.id, { level: from.specs.level + by }), turned(view, 0, -by))
  },
  'hot-socket': (view) => (view.chain.classes[view.stages.length - 2] === 'line' ? intoInput(view, 'mic') : null),
  'wrong-type': (view) => (view.chain.classes[view.stages.length - 2] === 'mic' ? intoInput(view, 'line') : null),
  'pickup-loaded': (view) =>
    view.chain.classes[view.stages.length - 2] === 'instrument' ? intoInput(view, 'line') : null,
  'hot-pickup': (view, random) => {
    const pickup = pickupOf(view)
    const [first] = gains(view)
    const at = view.points.at(-1)
    if (!isElectricSource(pickup) || pickup.gear.output === 'line' || !first || at?.unit !== 'dBFS') return null
    const by = first.value - first.range.gainMin - at.peak + between(random, 2, 6)
    const padded = withPads(view.session)
    return applyFix(withSpecs(padded, pickup.gear.id, { level: pickup.specs.level + by }), turned(view, 0, -99))
  },
  'plug-in-output': (view, random) => {
    const own = processor(view)
    const at = view.points.at(-1)
    return own && at ? changed(view, [set(view, own.id, 'gain', Math.min(24, -at.peak + between(random, 2, 6)))]) : null
  },
  'buffer-too-small': (view) =>
    system(view, {
      bufferFrames: frames(32),
      loads: [
        { sampleRate: hz(48_000), bufferFrames: frames(32), percent: 96 },
        { sampleRate: hz(48_000), bufferFrames: frames(128), percent: 42 },
      ],
    }),
  'generic-driver': (view) => system(view, { driver: 'shared', sharedPeriod: milliseconds(10) }),
  'direct-and-host': (view, random) => monitored(view, { route: 'direct', alsoHeard: -between(random, 0, 6) }),
  'buffer-too-large': (view) =>
    view.monitor
      ? {
          ...system(view, { bufferFrames: frames(1024) }),
          strips: view.session.strips.map((strip) => ({
            ...strip,
            monitor: { ...strip.monitor, route: 'software' as const },
          })),
        }
      : null,
  'plug-in-delay': (view, random) => monitored(view, { route: 'software', pluginFrames: between(random, 1000, 4000) }),
  'wireless-link': (view, random) => {
    const link = view.stages.find((stage) => isLink(stage))
    return link ? withSpecs(view.session, link.gear.id, { latency: between(random, 14, 30) }) : null
  },
  'loudspeaker-distance': (view, random) =>
    monitored(view, { route: 'direct', speakerDistance: between(random, 5, 9) }),
  'monitored-unpanned': (view, random) => monitored(view, { side: random() < 0.5 ? 'left' : 'right' }),
  'phantom-missing': (view) => {
    const supply = view.chain.own.find(({ attitude }) => attitude === 'needed')?.supply
    return supply?.on ? changed(view, [set(view, supply.stage.id, 'phantom', false)]) : null
  },
  'phantom-on-harmed': (view) => {
    const microphone = microphoneOf(view)
    const use = view.chain.own.find(({ user }) => user.id === microphone?.id)
    if (!isMicrophone(microphone) || !use?.supply?.can || use.blocked) return null
    const ribbon = {
      ...view.session,
      gear: view.session.gear.map((item) =>
        item.id === microphone.gear.id ? ({ ...item, principle: 'ribbon', phantom: 'harmful' } as Gear) : item,
      ),
    }
    return applyFix(ribbon, [set(view, use.supply.stage.id, 'phantom', true)])
  },
  'gain-down': (view) => {
    const [first] = gains(view)
    return first && first.value - first.range.gainMin > 22 ? changed(view, turned(view, 0, -99)) : null
  },
  'wrong-input': (view) => {
    const others = view.session.strips.filter(({ id, kind: is }) => id !== view.strip.id && is !== 'bus')
    const own = view.stages.findLast((stage) => isInterface(stage))
    const port = others.flatMap(({ stages }) => stages).find(({ gear }) => gear === own?.gear.id)?.port
    if (!own || !port) return null
    return editStrip(view.session, view.strip.id, (strip) => ({
      ...strip,
      stages: strip.stages.map((stage) => (stage.id === own.id ? { ...stage, port } : stage)),
    }))
  },
  'rates-differ': (view, random) =>
    system(view, { devices: [{ name: 'Field recorder', sampleRate: hz(random() < 0.5 ? 44_100 : 96_000) }] }),
  'margin-gone': (view) => feedingBack(view, 1, -2),
  'too-many-open': (view) => feedingBack(view, 4, -2),
  'unbalanced-lead': (view, random) => {
    const pickup = pickupOf(view)
    const next = view.stages[1]
    return pickup && next ? changed(view, [set(view, next.id, 'cable', between(random, 8, 15))]) : null
  },
  'treble-in-lead': (view, random) => {
    const pickup = pickupOf(view)
    const next = view.stages[1]
    if (!isElectricSource(pickup) || pickup.gear.output !== 'passive-pickup' || !next) return null
    // A pickup with its volume half down drives its lead from so much.
    const high = withSpecs(view.session, pickup.gear.id, { impedance: 100_000, inductance: undefined })
    return applyFix(high, [set(view, next.id, 'cable', between(random, 8, 15))])
  },
  'off-axis': (view, random) => {
    const microphone = microphoneOf(view)
    if (!isMicrophone(microphone)) return null
    const session = {
      ...view.session,
      gear: view.session.gear.map((item) =>
        item.id === microphone.gear.id ? ({ ...item, pattern: 'cardioid' } as Gear) : item,
      ),
    }
    return applyFix(session, [set(view, microphone.id, 'angle', between(random, 110, 170))])
  },
  'pad-in': (view) => {
    const own = view.stages.findLast((stage) => isInterface(stage))
    if (!isInterface(own)) return null
    const padded = withPads(view.session)
    return applyFix(padded, [set(view, own.id, 'pad', true)])
  },
  'too-far': (view, random) => {
    const from = view.stages[0]
    return isSoundSource(from) && microphoneOf(view) && from.distance < 0.7
      ? changed(view, [set(view, from.id, 'distance', between(random, 2, 4))])
      : null
  },
}
