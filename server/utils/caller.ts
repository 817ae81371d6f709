import { isIP } from 'node:net'

/** Names under which this server is called: the machine itself, addresses, and what the owner names. */
const LOOPBACK = ['localhost', '127.0.0.1', '[::1]']
const names = () =>
  [process.env.HOST ?? '', ...(process.env.REMETRA_NAMES ?? '').split(',')]
    .map((name) => name.trim().toLowerCase())
    .filter((name) => name !== '')
const allowed = new Set([...LOOPBACK, ...names()])

const hostOf = (host: string) => host.toLowerCase().replace(/:\d+$/, '')
const isAddress = (host: string) => isIP(host.replace(/^\[|\]$/g, '')) !== 0

/** Names that this server was told to answer to. */
export const namedHosts = (): string[] => names().filter((name) => !LOOPBACK.includes(name) && !isAddress(name))

/** @returns the name, without its port, where it is none of this server; an address that was typed as numbers cannot be made to point elsewhere */
export function foreignName(hostHeader: string | undefined): string | null {
  const host = hostOf(hostHeader ?? '')
  return allowed.has(host) || isAddress(host) ? null : host
}

/** Whether a page of that origin was served from here. */
export function isOwnOrigin(origin: string, hostHeader: string | undefined): boolean {
  const from = URL.canParse(origin) ? new URL(origin).host.toLowerCase() : origin
  return from === (hostHeader ?? '').toLowerCase()
}
