import { fileLinks, sessionRepository } from '~/persistence'

/** Which session is kept in which file on disk. */
export const useFileLinks = () => ({
  ...fileLinks,
  /** Keeps what is about to be written over. */
  setAside: (name: string, text: string) => sessionRepository.setAside(name, text),
})
export type { FileLink } from '~/persistence'
