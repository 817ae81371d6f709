import { computed, onMounted, ref, shallowRef } from 'vue'

/** What `GET /api/relay` answers. */
interface RelaySetting {
  on: boolean
  serves: 'network' | 'this-machine'
  relay: string
  hosts: string[]
}

const isSetting = (found: unknown): found is RelaySetting =>
  typeof found === 'object' && found !== null && 'on' in found && 'relay' in found && 'hosts' in found

const isLoopback = (host: string) => /^(localhost|127\.|\[::1\])/.test(host)

/** Whether this server relays, and the addresses under which another device may reach it. */
export function useRelaySetting() {
  const setting = shallowRef<RelaySetting | null>(null)
  const trouble = ref<string | null>(null)

  async function look() {
    trouble.value = null
    try {
      const answer = await fetch('/api/relay')
      const found: unknown = answer.ok ? await answer.json() : null
      if (isSetting(found)) setting.value = found
      else trouble.value = 'This server has no relay. Start the newest version of Remetra.'
    } catch (error) {
      trouble.value = `The server cannot be reached (${error instanceof Error ? error.message.slice(0, 100) : 'unknown reason'}). Start it, then try again.`
    }
  }
  onMounted(look)

  /** Addresses with scheme and port; the one of this page first where others can reach it too. */
  const addresses = computed(() => {
    const { protocol, host, port } = window.location
    const others = (setting.value?.hosts ?? []).map((each) => `${protocol}//${each}${port ? `:${port}` : ''}`)
    const own = `${protocol}//${host}`
    return [...new Set(isLoopback(host) ? [...others, own] : [own, ...others])]
  })
  return { setting, trouble, look, addresses, isLoopback }
}
