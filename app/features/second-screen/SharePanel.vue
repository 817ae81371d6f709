<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Role } from '#core/shared-session/presence'
import ChoiceBar from '~/shared/fields/ChoiceBar.vue'
import { newRole, shareSession } from '~/sharing'
import { chosenAddress } from './chosen-address'
import { useRelaySetting } from './use-relay-setting'

/** Before a session is shared: under which address the server is reached, and what the other device may do. */
const { setting, trouble, look, addresses, isLoopback } = useRelaySetting()
const OTHER = 'other'
const picked = ref<string | null>(null)
const typed = ref('')
const chosen = computed(() => picked.value ?? addresses.value[0] ?? OTHER)
const address = computed(() => (chosen.value === OTHER ? typed.value.trim().replace(/\/+$/, '') : chosen.value))
const wrong = computed(() => {
  if (chosen.value === OTHER && typed.value.trim() === '') return ''
  if (!URL.canParse(address.value) || !/^https?:$/.test(new URL(address.value).protocol))
    return 'This is no address. Enter one like http://192.168.1.20:3000.'
  return isLoopback(new URL(address.value).host)
    ? 'Only this computer reaches this address: use it for a second window here.'
    : ''
})
const ROLES: { value: Role; text: string }[] = [
  { value: 'hands', text: 'change the session' },
  { value: 'eyes', text: 'look only' },
]
const told = ref('')
function share() {
  if (!setting.value) return
  if (!URL.canParse(address.value)) {
    told.value = 'Enter the address under which the other device reaches this server.'
    return
  }
  chosenAddress.value = new URL(address.value).origin
  shareSession(setting.value.relay)
}
</script>

<template>
  <div class="space-y-3">
    <div v-if="trouble" role="alert" class="border-l-3 border-ceiling pl-2">
      <p>{{ trouble }}</p>
      <button type="button" class="push mt-1" @click="look">Try again</button>
    </div>
    <p v-else-if="!setting" class="text-muted" role="status">Asking the server…</p>
    <template v-else-if="!setting.on">
      <template v-if="setting.serves === 'this-machine'">
        <p><strong>This server answers this computer alone.</strong> To reach it from a phone, serve your network:</p>
        <ol class="list-decimal space-y-1 pl-5">
          <li>Export what you want to be sure of. Sessions stay in this browser under this address.</li>
          <li>
            Stop the server. Start it with <code class="figure whitespace-nowrap">HOST=0.0.0.0 npm run demo</code>.
          </li>
          <li>Come back here, and open the session on the other device.</li>
        </ol>
        <p class="border-l-3 border-ceiling pl-2" data-caution>
          Everybody on that network can then open Remetra on their device. Your sessions stay in your browser; only who
          has the link sees the one you share. Others on the network can read and change plain HTTP on its way. Do this
          on a network you trust, or serve it over TLS (docs/deploying.md).
        </p>
      </template>
      <p v-else>
        Sharing is switched off at this server (<code class="figure">REMETRA_RELAY=off</code>). Start it without that to
        open a session on another device.
      </p>
    </template>
    <template v-else>
      <p>
        The other device shows this session, live: no account, no installation. It changes with this one, and this
        browser keeps it.
      </p>
      <label class="block"
        >Address of this server, as the other device reaches it
        <select v-model="picked" class="mt-1 block w-full border border-rule bg-sheet px-1" data-address>
          <option v-if="picked === null" :value="null">{{ chosen }}</option>
          <option
            v-for="each in addresses.filter((one) => picked !== null || one !== chosen)"
            :key="each"
            :value="each"
          >
            {{ each }}
          </option>
          <option :value="OTHER">another address…</option>
        </select>
      </label>
      <label v-if="chosen === OTHER" class="block"
        >Another address
        <input
          v-model="typed"
          class="figure mt-1 block w-full border border-rule bg-sheet px-1"
          placeholder="http://192.168.1.20:3000"
          spellcheck="false"
          data-typed-address
        />
      </label>
      <p v-if="wrong" class="border-l-3 border-ceiling pl-2" role="status">{{ wrong }}</p>
      <div>
        <p>The other device may</p>
        <ChoiceBar
          :options="ROLES"
          :chosen="newRole"
          label="The other device may"
          @choose="(role) => (newRole = role)"
        />
      </div>
      <p v-if="told" role="alert" class="text-ceiling">{{ told }}</p>
      <button type="button" class="push-main" data-share @click="share">Show the code</button>
    </template>
  </div>
</template>
