import type { Gear, GearKind } from './gear'

/** Where a signal can be: in air, on a wire, in numbers. */
export type Domain = 'sound' | 'analogue' | 'digital'

/** What a kind is called: as a heading, and in a sentence. */
export const kindWords: Readonly<Record<GearKind, { title: string; name: string }>> = {
  'sound-source': { title: 'Source', name: 'a sound source' },
  'electric-source': { title: 'Electric source', name: 'an electric source' },
  'playback': { title: 'Playback', name: 'a playback' },
  'microphone': { title: 'Microphone', name: 'a microphone' },
  'pad': { title: 'Pad', name: 'a pad' },
  'di-box': { title: 'DI box', name: 'a DI box' },
  'booster': { title: 'Booster', name: 'a booster' },
  'preamp': { title: 'Preamp', name: 'a preamp' },
  'processor': { title: 'Processor', name: 'a processor' },
  'desk-channel': { title: 'Desk channel', name: 'a desk channel' },
  'fader': { title: 'Fader', name: 'a fader' },
  'link': { title: 'Link', name: 'a link' },
  'interface': { title: 'Interface input', name: 'an interface input' },
  'headphones': { title: 'Headphones', name: 'a pair of headphones' },
}
export const gearKinds = Object.keys(kindWords) as GearKind[]

export interface Domains {
  /** What it takes its signal from; `null` for a source. */
  takes: Domain | null
  gives: Domain
}

const through = (domain: Domain): Domains => ({ takes: domain, gives: domain })

/** From which domain into which a box takes the signal, at a port where it has several. */
export function domainsOf(gear: Gear, port?: string): Domains {
  switch (gear.kind) {
    case 'sound-source':
      return { takes: null, gives: 'sound' }
    case 'electric-source':
      return { takes: null, gives: 'analogue' }
    case 'playback':
      return { takes: null, gives: 'digital' }
    case 'microphone':
      return { takes: 'sound', gives: 'analogue' }
    case 'processor':
      return through(gear.domain)
    case 'fader':
      return through(gear.place === 'desk' ? 'analogue' : 'digital')
    case 'link':
      return through(gear.medium === 'wireless' ? 'analogue' : 'digital')
    case 'interface':
      return {
        takes: gear.inputs.find((input) => input.id === port)?.type === 'digital' ? 'digital' : 'analogue',
        gives: 'digital',
      }
    // Headphones take a wire's signal and give sound: nothing in a strip stands behind that.
    case 'headphones':
      return { takes: 'analogue', gives: 'sound' }
    default:
      return through('analogue')
  }
}

/** Whether a box can stand in a strip: headphones hang on an output, which the monitor names. */
export const standsInStrip = (kind: GearKind): boolean => kind !== 'headphones'
