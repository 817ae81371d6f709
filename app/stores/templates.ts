/** The ready-made chains, fetched when they are first asked for. */
export const loadTemplates = () => import('#demo/templates')

export type { Template } from '#demo/templates'
