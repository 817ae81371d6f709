import { fileLinks } from '~/persistence'

/** Which session is kept in which file on disk. */
export const useFileLinks = () => fileLinks
export type { FileLink } from '~/persistence'
