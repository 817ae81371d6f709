import { isIP } from 'node:net'
import { networkInterfaces } from 'node:os'
import { RELAY_PATH } from '#core/relay/room-link'
import { namedHosts } from '../utils/caller'

/** How sessions can be opened on another device over this server. */
export interface RelaySetting {
  /** Whether the relay runs. */
  on: boolean
  /** Who reaches this server: a network, or this machine alone. */
  serves: 'network' | 'this-machine'
  /** The path of the relay: with the name of this process, where there are several. */
  relay: string
  /** Names and addresses of this server, without scheme and port, under which another device may reach it. */
  hosts: string[]
}

const isLoopback = (host: string) => host === 'localhost' || host === '::1' || /^127\./.test(host)

/** @throws an error in words where the environment names the relay wrongly */
export function relayPath(name = process.env.REMETRA_RELAY_NAME): string {
  const path = name ? `/api/relay/${name}` : '/api/relay'
  if (!RELAY_PATH.test(path))
    throw new Error(`REMETRA_RELAY_NAME "${name}" is no name of a relay. Give 1 to 32 of a to z, 0 to 9 and -.`)
  return path
}

/** As the environment sets it: on where a network is served, unless REMETRA_RELAY says otherwise. */
export function relaySetting(environment = process.env): RelaySetting {
  const host = environment.NITRO_HOST || environment.HOST || ''
  const serves = isLoopback(host) ? 'this-machine' : 'network'
  const asked = environment.REMETRA_RELAY
  const isOn = asked === 'on' || (asked !== 'off' && serves === 'network')
  return {
    on: isOn,
    serves,
    relay: relayPath(environment.REMETRA_RELAY_NAME),
    hosts: [...namedHosts(), ...(serves === 'network' ? addresses(host) : [])],
  }
}

/** The one address that is served, or all of this machine: those of the fourth version first, for they are short. */
function addresses(host: string): string[] {
  if (isIP(host) !== 0 && host !== '0.0.0.0' && host !== '::') return [bracketed(host)]
  const all = Object.values(networkInterfaces())
    .flat()
    .filter((each) => each !== undefined && !each.internal && !each.address.startsWith('fe80:'))
    .map((each) => bracketed(each?.address ?? ''))
  return all.sort((a, b) => Number(a.startsWith('[')) - Number(b.startsWith('[')))
}
const bracketed = (address: string) => (isIP(address) === 6 ? `[${address}]` : address)
