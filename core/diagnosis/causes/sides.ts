import type { Cause } from '../cause'
import { says } from '../cause'

export const oneInputStereoTrack: Cause = {
  title: 'One input recorded to one side of a stereo track',
  prior: 10,
  symptoms: { 'one-side': 0.95 },
  shows: { 'look-at-track': { stereo: 0.96 }, 'file-channels': { empty: 0.96 } },
  evidence: (view) => {
    const paired = view.session.pairs?.some(({ left, right }) => left === view.strip.id || right === view.strip.id)
    return paired
      ? [says('The strip is one side of a stereo pair.', 0.3)]
      : [says('The strip is one source: a stereo track would leave one side empty.', 1.3)]
  },
  byHand: 'Make the track mono, or take both inputs of the pair.',
  after: 'Record some seconds and look at both channels.',
}

export const monitoredUnpanned: Cause = {
  title: 'A mono source is monitored on one side',
  prior: 8,
  symptoms: { 'one-side': 0.95 },
  shows: { 'look-at-track': { panned: 0.9 }, 'file-channels': { both: 0.97 } },
  present: (view) => view.monitor?.ears === 'left' || view.monitor?.ears === 'right',
  evidence: (view) => {
    const ears = view.monitor?.ears
    if (!ears) return []
    return ears === 'both'
      ? [says('It is heard in the middle, as the session has it.', 0.4)]
      : [says(`It is heard on the ${ears} only, as the session has it.`, 20)]
  },
  fixes: (view) => [
    {
      says: 'Monitor it in mono, in the middle.',
      changes: [{ do: 'monitor', strip: view.strip.id, set: {}, unset: ['side'] }],
    },
  ],
  byHand: 'Put the pan of the direct mix or of the track in the middle, or press its mono switch.',
  after: 'Listen once to both sides.',
}

export const plugHalfIn: Cause = {
  title: 'A plug is half in, or has the wrong number of contacts',
  prior: 6,
  symptoms: { 'one-side': 0.85, 'nothing': 0.3, 'thin': 0.3, 'hum': 0.1 },
  shows: { 'plug-home': { goes: 0.95 }, 'file-channels': { both: 0.9 }, 'where-it-dies': { ears: 0.7, input: 0.3 } },
  byHand: 'Push the plug fully in; a stereo plug for headphones, a mono or balanced one for a line.',
  after: 'Listen to both sides, and move the plug gently: nothing may crackle.',
  caution: 'Volume down while plugs are moved.',
}

export const balanceControl: Cause = {
  title: 'A balance control is off centre',
  prior: 4,
  symptoms: { 'one-side': 0.9 },
  shows: { 'balance-control': { off: 0.96 }, 'file-channels': { both: 0.97 } },
  byHand: 'Put every balance control in the middle: unit, headphone amplifier, system.',
  after: 'Listen once to both sides.',
}
