<script setup lang="ts">
import { computed, onMounted } from 'vue'
import type { Signal } from '#core/signals/signal'
import DeviceChoice from './DeviceChoice.vue'
import { usePlayRecord } from './use-play-record'

/** The signal played and recorded here in one go; the recording then goes the same way as a file. */
const props = defineProps<{ signal: Signal | null; sampleRate: number; name: string; playOnly?: boolean }>()
const emit = defineEmits<{ file: [file: File] }>()
const work = usePlayRecord()
const { devices, device, outputs, output, state, trouble, told } = work
onMounted(work.look)

const WORDS = {
  idle: '',
  opening: 'Opening the input…',
  rising: 'It rises slowly…',
  playing: 'Playing…',
  recording: 'Recording…',
} as const
const level = computed(() => (props.signal && 'level' in props.signal ? props.signal.level : null))
async function run() {
  if (props.playOnly && props.signal) return work.play(props.signal)
  const file = await work.run(props.signal, props.sampleRate, `${props.name}, through the browser.wav`)
  if (file) emit('file', file)
}
</script>

<template>
  <details class="mt-2 border border-line px-2.5 py-1" data-play-record>
    <summary>{{ playOnly ? 'Play it here' : signal ? 'Play and record it here' : 'Record it here' }}</summary>
    <p class="mt-1 border-l-3 border-ceiling pl-2">
      <template v-if="signal">
        Headphones off your ears, loudspeakers off{{ level === null ? '' : `: the signal comes at ${level} dBFS` }}. It
        starts quietly and rises; stop it if anything is louder than you expect.
      </template>
      <template v-else>Nothing is played. The input is recorded for ten seconds.</template>
    </p>
    <p class="mt-1 flex flex-wrap items-center gap-x-3 gap-y-1">
      <DeviceChoice
        v-model:output="output"
        v-model:input="device"
        :outputs="signal ? outputs : []"
        :inputs="playOnly ? [] : devices"
      />
      <button v-if="state === 'idle'" type="button" class="push" data-run @click="run">
        {{ playOnly ? 'Play' : signal ? 'Play and record' : 'Record' }}
      </button>
      <button v-else type="button" class="push" @click="work.stop">Stop</button>
      <span role="status">{{ WORDS[state] }}</span>
    </p>
    <p v-if="trouble" role="alert" class="mt-1 text-ceiling">{{ trouble }}</p>
    <p v-if="told" role="status" class="mt-1">{{ told }}</p>
    <p class="mt-1 pb-1 text-xs text-muted">
      It passes the browser and the system mixer, with their sample rate, volume and bit depth{{
        playOnly
          ? '. Played by your host it is certain.'
          : ', and playing and recording do not begin together, so a lag against the played file is not told here. What your host records is the better file.'
      }}
    </p>
  </details>
</template>
