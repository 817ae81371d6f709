import type { Bundle } from '#core/edits'
import type { Gear } from '#core/gear'
import type { Pair, Settings } from '#core/model'
import type { Session } from '#core/session'
import { readSession } from '#core/files'
import { shelfGear } from './shelf'

type PlannedStage = [
  gear: string,
  settings?: Record<string, unknown>,
  more?: { port?: string; locked?: ('gain' | 'fader')[]; driven?: boolean },
]
interface PlannedStrip {
  id: string
  name: string
  stages: PlannedStage[]
}

/** A chain that people really use, ready to be filled with one's own gear. */
export interface Template {
  id: string
  title: string
  words: string
  strips: PlannedStrip[]
  pairs?: Pair[]
}

const at = (port: string, more = {}) => ({ port, ...more })
const faderLocked = { locked: ['fader' as const] }

export const templates: readonly Template[] = [
  {
    id: 'condenser',
    title: 'Condenser into the interface',
    words: 'One microphone, one preamp: the shortest path.',
    strips: [
      {
        id: 'voice',
        name: 'Voice',
        stages: [['reader', { distance: 0.2 }], ['sandpiper'], ['saltmarsh', { gain: 32, phantom: true }, at('mic1')]],
      },
    ],
  },
  {
    id: 'channel-strip',
    title: 'Quiet moving coil through a channel strip',
    words: 'Preamp, compressor, de-esser, expander and output gain, then a line input: past the second preamp.',
    strips: [
      {
        id: 'voice',
        name: 'Voice, strip',
        stages: [
          ['reader', { distance: 0.1 }],
          ['mudlark'],
          ['cormorant-preamp', { gain: 48 }],
          ['cormorant-dynamics', { gain: 4 }],
          ['saltmarsh', { gain: 0 }, at('line1')],
        ],
      },
    ],
  },
  {
    id: 'booster',
    title: 'Quiet moving coil with an inline preamp',
    words: 'A fixed clean gain in the cable, fed by phantom power, before a microphone input.',
    strips: [
      {
        id: 'voice',
        name: 'Voice, inline preamp',
        stages: [
          ['reader', { distance: 0.1 }],
          ['mudlark'],
          ['bilge-lift'],
          ['saltmarsh', { gain: 34, phantom: true }, at('mic1')],
        ],
      },
    ],
  },
  {
    id: 'pickup',
    title: 'Electric guitar, two ways',
    words: 'Into an instrument input; and into a line input, to see what is lost.',
    strips: [
      {
        id: 'guitar',
        name: 'Guitar, instrument',
        stages: [['driftwood-guitar'], ['saltmarsh', { gain: 12, cable: 6 }, at('inst1')]],
      },
      {
        id: 'guitar-line',
        name: 'Guitar, line',
        stages: [['driftwood-guitar'], ['saltmarsh', { gain: 20, cable: 6 }, at('line1')]],
      },
    ],
  },
  {
    id: 'keys',
    title: 'Stage keys, stereo',
    words: 'Active outputs into a pair of line inputs, linked.',
    strips: [
      { id: 'keys-l', name: 'Keys L', stages: [['marram-keys-left'], ['saltmarsh', { gain: 0 }, at('line1')]] },
      { id: 'keys-r', name: 'Keys R', stages: [['marram-keys-right'], ['saltmarsh', { gain: 0 }, at('line2')]] },
    ],
    pairs: [{ left: 'keys-l', right: 'keys-r', monitoring: 'panned' }],
  },
  {
    id: 'ribbon',
    title: 'Ribbon with an outboard preamp',
    words: 'A quiet ribbon needs much clean gain and no phantom power; the interface takes it at line level.',
    strips: [
      {
        id: 'guitar',
        name: 'Parlour guitar',
        stages: [
          ['parlour-guitar', { distance: 0.4 }],
          ['old-punt'],
          ['grebe', { gain: 54, phantom: false }],
          ['saltmarsh', { gain: 0 }, at('line1')],
        ],
      },
    ],
  },
  {
    id: 'desk',
    title: 'Desk, group to the interface',
    words: 'Desk channel with gain and fader, a group, a line input.',
    strips: [
      {
        id: 'voice',
        name: 'Voice, desk',
        stages: [
          ['reader', { distance: 0.2 }],
          ['sandpiper'],
          ['estuary-mic', { gain: 40, fader: 0, phantom: true, tap: 'post' }, faderLocked],
          ['estuary-group', { gain: 0 }],
          ['saltmarsh', { gain: 0 }, at('line1')],
        ],
      },
    ],
  },
  {
    id: 'desk-into-two',
    title: 'Desk into an interface without line inputs',
    words: 'Unchanged; through DI boxes into microphone inputs; with a pad.',
    strips: [
      {
        id: 'as-it-stands',
        name: 'As it stands',
        stages: [['estuary-desk-out'], ['shingle', { gain: 0 }, at('inst1')]],
      },
      {
        id: 'with-di',
        name: 'With a DI box',
        stages: [['estuary-desk-out'], ['bollard'], ['shingle', { gain: 0 }, at('mic1')]],
      },
      {
        id: 'with-pad',
        name: 'With a pad',
        stages: [['estuary-desk-out'], ['reed-pad'], ['shingle', { gain: 0 }, at('inst2')]],
      },
    ],
  },
  {
    id: 'two-units',
    title: 'Two units on an optical link',
    words:
      'An outboard preamp into a first converter, its seventh channel into a second unit: one clock, and the recorder’s channel number.',
    strips: [
      {
        id: 'squeezebox',
        name: 'Squeezebox',
        stages: [
          ['squeezebox', { distance: 0.8 }],
          ['sandpiper'],
          ['grebe', { gain: 32, phantom: true }],
          ['lamprey', { gain: 0 }, at('line7')],
          ['optical-lead'],
          ['bittern', {}, at('opt7')],
        ],
      },
    ],
  },
  {
    id: 'wireless',
    title: 'Wireless microphone to a desk',
    words: 'The receiver at microphone level, with its own latency.',
    strips: [
      {
        id: 'guide',
        name: 'Guide, wireless',
        stages: [
          ['reader', { distance: 0.08 }],
          ['pebble-hand'],
          ['curlew-link'],
          ['estuary-mic', { gain: 32, fader: 0 }, faderLocked],
          ['saltmarsh', { gain: 0 }, at('line1')],
        ],
      },
    ],
  },
  {
    id: 'usb',
    title: 'USB microphone',
    words: 'Its own gain knob, then the computer’s input slider, which is no gain to work with.',
    strips: [
      {
        id: 'voice',
        name: 'Voice, USB',
        stages: [
          ['reader', { distance: 0.2 }],
          ['razorbill-capsule'],
          ['razorbill-unit', { gain: 22 }, at('capsule')],
          ['system-slider', { gain: -4 }],
        ],
      },
    ],
  },
  {
    id: 'five-gains',
    title: 'Deck through a desk: five gains',
    words: 'Deck volume, channel gain, channel fader, master, interface. The faders are locked at their zero marks.',
    strips: [
      {
        id: 'deck',
        name: 'Deck',
        stages: [
          ['breakwater-deck'],
          ['deck-volume', { gain: 0 }],
          ['estuary-line', { gain: 0, fader: 0 }, faderLocked],
          ['estuary-master', { gain: 0 }, { locked: ['gain'] }],
          ['saltmarsh', { gain: 0 }, at('line1')],
        ],
      },
    ],
  },
  {
    id: 'host',
    title: 'In the host, to a file',
    words: 'Plug-ins in a row with their own output gains, a track fader, a file: fixed and floating point.',
    strips: [
      {
        id: 'bell',
        name: 'Tide bell',
        stages: [
          ['tide-take'],
          ['brine-squeeze', { gain: 6 }],
          ['lantern-eq', { gain: 0 }],
          ['weir-limit'],
          ['track-fader', { gain: 0 }],
        ],
      },
    ],
  },
]

/** A template as strips with copies of their gear from the shelf. */
export function templateBundle(template: Template): Bundle {
  const shelf = new Map(shelfGear().map((item) => [item.id, item]))
  const used = [...new Set(template.strips.flatMap((strip) => strip.stages.map(([gear]) => gear)))]
  const gear = used.map((id) => ({ ...shelf.get(id), shelf: id }) as Gear)
  const session = asSession(template, gear)
  return { gear: session.gear, strips: session.strips, pairs: session.pairs }
}

/** A template as a session of its own. */
export const templateSession = (template: Template): Session => asSession(template, templateBundle(template).gear)

function asSession({ id, title, strips, pairs }: Template, gear: Gear[]): Session {
  const reading = readSession({
    format: 'remetra.session',
    version: 1,
    id,
    name: title,
    room: { ambient: 28 },
    gear,
    ...(pairs && { pairs }),
    strips: strips.map((strip) => ({
      id: strip.id,
      name: strip.name,
      stages: strip.stages.map(([box, settings = {}, more = {}], i) => ({
        id: `${strip.id}-${i + 1}`,
        gear: box,
        settings: settings as Settings,
        ...more,
      })),
    })),
  })
  if (!reading.ok)
    throw new Error(
      `The template ${id} is faulty: ${reading.faults.map(({ path, message }) => `${path}: ${message}`).join('; ')}`,
    )
  return reading.session
}
