import { SESSION_FORMAT, SESSION_VERSION } from '#core/session'

const channel = (id: string, input: 'mic' | 'line', more: object = {}) => ({
  id,
  kind: 'desk-channel',
  name: `Desk ${id}`,
  desk: 'desk',
  input,
  specs: {
    gainMin: 0,
    gainMax: 60,
    maxInput: 20,
    maxOutput: 22,
    ein: -127,
    inputImpedance: input === 'mic' ? 2000 : 10_000,
    outputImpedance: 75,
    ...more,
  },
})
const group = (id: string) => ({
  id,
  kind: 'fader',
  name: `Desk ${id}`,
  place: 'desk',
  specs: { gainMin: -90, gainMax: 10, maxInput: 22, maxOutput: 22, inputImpedance: 10_000, outputImpedance: 75 },
})

/** Two singers and a player on a desk, to a stream and into the room: docs/two-mixes.md works every figure out by hand. */
export const twoMixes = () => ({
  format: SESSION_FORMAT,
  version: SESSION_VERSION,
  id: 'two-mixes',
  name: 'Two mixes',
  room: { layout: { sourceToListener: 5, microphoneToLoudspeaker: 6, loudspeakerToListener: 5, wanted: 6 } } as object,
  target: 'peaks-18-12',
  gear: [
    { id: 'alto', kind: 'sound-source', name: 'Alto', specs: { level: 70, distance: 1, crest: 14, surge: 6 } },
    { id: 'bass', kind: 'sound-source', name: 'Bass', specs: { level: 76, distance: 1, crest: 14, surge: 4 } },
    {
      id: 'player',
      kind: 'electric-source',
      name: 'Player',
      output: 'line',
      specs: { level: -10, crest: 12, surge: 0, impedance: 100 },
    },
    ...['mic-a', 'mic-b'].map((id) => ({
      id,
      kind: 'microphone',
      name: id,
      principle: 'moving-coil',
      phantom: 'harmless',
      specs: { sensitivity: 2, impedance: 300, maxSpl: 150 },
    })),
    channel('ch-a', 'mic'),
    channel('ch-b', 'mic'),
    channel('ch-p', 'line', { gainMin: -20, gainMax: 20, maxInput: 40, ein: -110 }),
    group('group'),
    group('aux'),
    {
      id: 'unit',
      kind: 'interface',
      name: 'Unit',
      inputs: [
        {
          id: 'line1',
          type: 'line',
          specs: { gainMin: 0, gainMax: 20, gainStep: 1, fullScale: 18, dynamicRange: 110, impedance: 10_000 },
        },
      ],
    },
    {
      id: 'limiter',
      kind: 'processor',
      name: 'Limiter',
      domain: 'digital',
      arithmetic: 'float',
      blocks: [{ type: 'limiter', ceiling: -2 }],
      specs: {},
    },
    {
      id: 'boxes',
      kind: 'loudspeaker',
      name: 'Boxes',
      specs: {
        sensitivity: 100,
        maxSpl: 126,
        maxInput: 20,
        inputImpedance: 20_000,
        gainMin: -60,
        gainMax: 6,
        count: 2,
      },
    },
  ] as Record<string, unknown>[],
  strips: [
    {
      id: 'alto',
      name: 'Alto',
      stages: [
        { id: 'a1', gear: 'alto', settings: { distance: 0.1 } },
        { id: 'a2', gear: 'mic-a' },
        { id: 'a3', gear: 'ch-a', settings: { gain: 45, fader: 0 } },
      ],
      feeds: [{ to: 'stream' }, { to: 'room', gain: -10 }],
    },
    {
      id: 'bass',
      name: 'Bass',
      stages: [
        { id: 'b1', gear: 'bass', settings: { distance: 0.1 } },
        { id: 'b2', gear: 'mic-b' },
        { id: 'b3', gear: 'ch-b', settings: { gain: 40, fader: 0 } },
      ],
      feeds: [
        { to: 'stream', gain: -2 },
        { to: 'room', gain: -10 },
      ],
    },
    {
      id: 'player',
      name: 'Player',
      stages: [
        { id: 'p1', gear: 'player' },
        { id: 'p2', gear: 'ch-p', settings: { gain: 0, fader: 0 } },
      ],
      feeds: [{ to: 'stream', gain: -6 }, { to: 'room' }],
    },
    {
      id: 'stream',
      name: 'Stream',
      kind: 'bus',
      loudness: -16,
      stages: [
        { id: 's1', gear: 'group', settings: { gain: 0 } },
        { id: 's2', gear: 'unit', port: 'line1', settings: { gain: 4 } },
        { id: 's3', gear: 'limiter' },
      ],
    },
    {
      id: 'room',
      name: 'Room',
      kind: 'bus',
      stages: [
        { id: 'r1', gear: 'aux', settings: { gain: 0 } },
        { id: 'r2', gear: 'boxes', settings: { gain: 0, distance: 5 } },
      ],
    },
  ] as Record<string, unknown>[],
})
