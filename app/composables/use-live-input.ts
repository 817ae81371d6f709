import { onScopeDispose, ref, shallowRef } from 'vue'
import type { LiveDevice, LiveEvent, OpenedInput } from '~/audio/live-input'
import { LiveInput, NoInput, liveDevices, onDevices } from '~/audio/live-input'

/** Frames that do not come for so long are told, ms. */
const STALLED = 1500

const TOLD: Partial<Record<LiveEvent, string>> = {
  'gone':
    'The input is gone: it was unplugged, or its driver stopped. The readings are kept. Plug it in again; the gauge goes on by itself.',
  'suspended': 'The browser paused the gauge because its tab is hidden. The readings are kept.',
  'muted': 'This input gives no sound: check for a mute switch, or another program that uses it.',
  'rate-changed':
    'The sample rate of the input was changed elsewhere. The gauge was restarted with it; play the passage again.',
}

/** Who takes what comes in. */
export interface Listener {
  /** An input was opened: its frames come to the port. */
  begin: (opened: OpenedInput, frames: MessagePort) => void
  /** It was closed, by hand or because it went. */
  end: () => void
}

/** An input of this computer as it is opened, lost, found again and closed. Everything is let go with the place. */
export function useLiveInput({ begin, end }: Listener) {
  const opened = shallowRef<OpenedInput | null>(null)
  const devices = shallowRef<LiveDevice[]>([])
  const device = ref<string | null>(null)
  const trouble = ref<string | null>(null)
  const opening = ref(false)
  const asleep = ref(false)
  let input: LiveInput | null = null
  let turn = 0
  let heard = 0
  /** The device that is waited for, after it went. */
  let waiting: { device: string | null } | null = null

  /** @returns whether it is open; where not, `trouble` says why */
  async function open(chosen: string | null = device.value): Promise<boolean> {
    const mine = ++turn
    await letGo()
    trouble.value = null
    opening.value = true
    const { port1, port2 } = new MessageChannel()
    try {
      const next = await LiveInput.open(chosen, port1, (event) => void hear(event, chosen))
      if (mine !== turn) {
        await next.close()
        return false
      }
      input = next
      opened.value = next.opened
      device.value = chosen
      heard = Date.now()
      begin(next.opened, port2)
      devices.value = await liveDevices()
      return true
    } catch (error) {
      if (mine === turn)
        trouble.value =
          error instanceof NoInput ? error.message : 'The input cannot be opened here. Readings can be typed.'
      return false
    } finally {
      if (mine === turn) opening.value = false
    }
  }

  async function hear(event: LiveEvent, chosen: string | null) {
    asleep.value = event === 'suspended'
    trouble.value = TOLD[event] ?? null
    if (event === 'gone') await letGo({ waitingFor: { device: chosen } })
    if (event === 'rate-changed') {
      const told = trouble.value
      if (await open(chosen)) trouble.value = told
    }
  }

  async function letGo({ waitingFor = null }: { waitingFor?: typeof waiting } = {}) {
    waiting = waitingFor
    opened.value = null
    asleep.value = false
    end()
    const before = input
    input = null
    await before?.close()
  }
  const close = async () => {
    turn++
    await letGo()
  }

  const stopDevices = onDevices(() => {
    void liveDevices().then((found) => {
      devices.value = found
      if (waiting && (waiting.device === null || found.some(({ id }) => id === waiting?.device)))
        void open(waiting.device)
    })
  })
  const watching = setInterval(() => {
    if (opened.value && !asleep.value && Date.now() - heard > STALLED && document.visibilityState === 'visible')
      trouble.value = 'No signal from the input. If this continues, open it again.'
  }, STALLED)

  onScopeDispose(() => {
    clearInterval(watching)
    stopDevices()
    void close()
  })

  return {
    opened,
    devices,
    device,
    trouble,
    opening,
    asleep,
    open,
    close,
    /** Frames came. */
    arrived: () => {
      heard = Date.now()
    },
    /** Looks which inputs there are. */
    look: async () => {
      devices.value = await liveDevices()
    },
    wake: async () => {
      await input?.resume()
    },
  }
}
