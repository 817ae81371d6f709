import type { Gear } from '#core/session'

/** A property of a box that is chosen from a few, not measured. */
export interface Choice {
  key: string
  label: string
  value: string
  options: readonly { value: string; text: string }[]
}

const attitudes = [
  { value: 'needed', text: 'needs 48 V' },
  { value: 'harmless', text: 'does not mind 48 V' },
  { value: 'harmful', text: 'is harmed by 48 V' },
]
const supplies = [
  { value: 'true', text: 'can give 48 V' },
  { value: 'false', text: 'gives no 48 V' },
]
const arithmetics = [
  { value: 'float', text: 'floating point' },
  { value: 'fixed', text: 'fixed point' },
]
const options = (table: Record<string, string>) => Object.entries(table).map(([value, text]) => ({ value, text }))

/** The choices that make a box what it is. */
export function choicesOf(gear: Gear): Choice[] {
  switch (gear.kind) {
    case 'microphone':
      return [
        {
          key: 'principle',
          label: 'Principle',
          value: gear.principle,
          options: options({ 'condenser': 'condenser', 'moving-coil': 'moving coil', 'ribbon': 'ribbon' }),
        },
        { key: 'phantom', label: 'Phantom power', value: gear.phantom, options: attitudes },
      ]
    case 'electric-source':
      return [
        {
          key: 'output',
          label: 'Output',
          value: gear.output,
          options: options({
            'passive-pickup': 'passive pickup',
            'active-pickup': 'active pickup',
            'line': 'line output',
          }),
        },
      ]
    case 'di-box':
      return [{ key: 'phantom', label: 'Phantom power', value: gear.phantom, options: attitudes }]
    case 'preamp':
      return [{ key: 'phantom', label: 'Phantom power', value: String(gear.phantom), options: supplies }]
    case 'desk-channel':
      return [
        {
          key: 'input',
          label: 'Channel input',
          value: gear.input,
          options: options({ mic: 'microphone input', line: 'line input' }),
        },
        { key: 'phantom', label: 'Phantom power', value: String(gear.phantom), options: supplies },
      ]
    case 'fader':
      return [
        {
          key: 'place',
          label: 'Place',
          value: gear.place,
          options: options({ desk: 'analogue, at the desk', system: 'operating system’s slider', host: 'in the host' }),
        },
        ...(gear.place === 'desk'
          ? []
          : [{ key: 'arithmetic', label: 'Arithmetic', value: gear.arithmetic, options: arithmetics }]),
      ]
    case 'processor':
      return [
        {
          key: 'domain',
          label: 'Domain',
          value: gear.domain,
          options: options({ analogue: 'analogue', digital: 'plug-in' }),
        },
        ...(gear.domain === 'analogue'
          ? []
          : [{ key: 'arithmetic', label: 'Arithmetic', value: gear.arithmetic, options: arithmetics }]),
      ]
    case 'link':
      return [
        {
          key: 'medium',
          label: 'Medium',
          value: gear.medium,
          options: options({ wireless: 'wireless', optical: 'optical', network: 'network' }),
        },
        ...(gear.medium === 'wireless'
          ? [
              {
                key: 'level',
                label: 'Receiver output',
                value: gear.level,
                options: options({ mic: 'microphone level', line: 'line level' }),
              },
            ]
          : []),
      ]
    default:
      return []
  }
}
