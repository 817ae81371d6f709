import { dbfs } from '../units'

/** Fixed point clips at 0 dBFS, floating point nowhere. */
export const digitalCeiling = (arithmetic: 'fixed' | 'float') => (arithmetic === 'fixed' ? dbfs(0) : null)
