/** The places that are about the open session, in the order of the work, with the key of each. */
export const places = [
  { id: 'path', title: 'Path', key: '1' },
  { id: 'mix', title: 'Mix', key: '2' },
  { id: 'timing', title: 'Timing', key: '3' },
  { id: 'monitoring', title: 'Monitoring', key: '4' },
  { id: 'bench', title: 'Bench', key: '5' },
  { id: 'soundcheck', title: 'Soundcheck', key: '6' },
  { id: 'log', title: 'Log', key: '7' },
  { id: 'faults', title: 'Faults', key: '8' },
  { id: 'trainer', title: 'Trainer', key: '9' },
] as const
export type Place = (typeof places)[number]['id']
