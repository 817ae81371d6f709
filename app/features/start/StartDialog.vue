<script setup lang="ts">
import { computed, onMounted, reactive, ref, shallowRef, watch } from 'vue'
import { useRouter } from '#imports'
import type { BusUse, Loudness, Recordable, SourceKind, StartAnswers } from '#core/edits'
import {
  MOST_SOURCES,
  bussesFor,
  canTakeInline,
  busUses,
  chains,
  kindAt,
  loudKindOf,
  loudnesses,
  loudnessesOf,
  microphones,
  namesIn,
  isByMicrophone,
  recordables,
  startSession,
} from '#core/edits'
import { readTypedNumber, settingFields } from '#core/model'
import ModalDialog from '~/shared/ui/ModalDialog.vue'
import { latePart } from '~/stores/late-part'
import { useLibraryStore } from '~/stores/library'
import type { Template } from '~/stores/templates'
import { loadTemplates } from '~/stores/templates'
import { useViewStore } from '~/stores/view'

/** How a session of one's own begins: a few questions, each of which may be left alone; or a template; or stage by stage. */
const emit = defineEmits<{ close: [] }>()
const library = useLibraryStore()
const view = useViewStore()
const router = useRouter()

const answers = reactive<StartAnswers & { into: BusUse[] }>({ into: [] })
const distance = ref('')
const metres = computed(() => {
  const read = readTypedNumber(settingFields.distance, distance.value)
  return distance.value.trim() === '' || !byMicrophone.value ? null : read
})
const tooFar = computed(() => (metres.value && !metres.value.ok ? metres.value.message : null))
const tooMany = computed(() => {
  const many = namesIn(answers.names).length
  return many > MOST_SOURCES ? `${many} names: ${MOST_SOURCES} can start together. Add the others as strips.` : null
})
/** What each name was said to be, by the name; the others are told by their names or by what is recorded. */
const said = reactive(new Map<string, SourceKind>())
const named = computed(() =>
  namesIn(answers.names)
    .slice(0, MOST_SOURCES)
    .map((name, i) => ({ name, kind: said.get(name) ?? kindAt(answers, name, i) })),
)
const sources = Object.entries(recordables).flatMap(([key, { words }]) =>
  key === 'many' ? [] : [{ value: key as SourceKind, words }],
)
const choose = (name: string, event: Event) => said.set(name, (event.target as HTMLSelectElement).value as SourceKind)
/** How loud each name was said to be; the others are as all are. */
const saidLoud = reactive(new Map<string, Loudness>())
const loudOf = (name: string) => saidLoud.get(name) ?? answers.loudness ?? ''
function chooseLoud(name: string, event: Event) {
  const { value } = event.target as HTMLSelectElement
  if (value === '') saidLoud.delete(name)
  else saidLoud.set(name, value as Loudness)
}
const loudWords = (kind: Recordable) => {
  const loud = loudKindOf(kind)
  return (loud ? loudnessesOf(loud) : []).map((value) => ({
    value,
    words: `${loudnesses[value].words}, ${loudnesses[value].level} dB SPL at 1 m`,
  }))
}
/** Of several names each is asked by itself; one, or none yet, here. */
const loudOfAll = computed(() => loudWords(named.value[0]?.kind ?? answers.what ?? 'voice'))
// How loud a voice is says nothing of a piano.
watch(loudOfAll, (fitting) => {
  if (!fitting.some(({ value }) => value === answers.loudness)) answers.loudness = undefined
})
/** Questions before what all are asked: two, and up to three more of what stands before a microphone. */
const after = computed(() => 2 + (byMicrophone.value ? 2 + (named.value.length < 2 ? 1 : 0) : 0))
const sessionName = ref('')
const busses = computed(() => bussesFor(answers))
const options = <T extends string>(list: Record<T, string>) => Object.entries(list) as [T, string][]
const whats = options(
  Object.fromEntries(Object.entries(recordables).map(([key, { words }]) => [key, words])) as Record<
    keyof typeof recordables,
    string
  >,
)
const mics = options(
  Object.fromEntries(Object.entries(microphones).map(([key, { words }]) => [key, words])) as Record<
    keyof typeof microphones,
    string
  >,
)
const ways = options(chains)
const listening = options({
  direct: 'Direct monitoring, inside the interface',
  software: 'Software monitoring, through the host',
})
const byMicrophone = computed(() =>
  named.value.length > 0
    ? named.value.some(({ kind }) => isByMicrophone(kind))
    : isByMicrophone(answers.what ?? 'voice'),
)

const ready = shallowRef<Awaited<ReturnType<typeof loadTemplates>> | null>(null)
onMounted(async () => {
  ready.value = await latePart(loadTemplates)
})

async function go(key: string) {
  emit('close')
  await router.push(`/path/${key}`)
  view.begins = true
}
async function begin() {
  if (tooFar.value || tooMany.value) return
  const kinds = named.value.map(({ name }) => said.get(name))
  const loud = named.value.map(({ name }) => saidLoud.get(name))
  const given = { ...answers, kinds, loudnesses: loud, ...(metres.value?.ok && { distance: metres.value.value }) }
  await go(await library.startPlanned(startSession('new', sessionName.value.trim() || 'New session', given)))
}
const stageByStage = async () => go(await library.startBlank())
async function fromTemplate(template: Template) {
  if (ready.value) await go(await library.startFrom(ready.value.templateSession(template)))
}
</script>

<template>
  <ModalDialog title="Start your own" closing="Cancel" @close="emit('close')">
    <form class="max-w-full space-y-3 pt-3 card:w-[40rem]" data-start @submit.prevent="begin">
      <p class="text-muted">
        Skip what you do not know: usual figures are used, marked as assumed, until you enter your own.
      </p>
      <label class="block"
        ><span class="font-semibold">What is the session called? </span
        ><input
          v-model="sessionName"
          type="text"
          maxlength="100"
          placeholder="New session"
          class="w-full border border-rule bg-paper px-2 py-1"
      /></label>
      <fieldset>
        <legend class="font-semibold">1 What do you record?</legend>
        <div class="grid gap-x-4 card:grid-cols-2">
          <label v-for="([value, words], i) in whats" :key="value" class="answer">
            <input
              v-model="answers.what"
              type="radio"
              name="what"
              :value="value"
              :data-first="i === 0 ? '' : undefined"
            />
            {{ words }}
          </label>
        </div>
      </fieldset>
      <label class="block"
        ><span class="font-semibold">2 What is it called? </span
        ><input
          v-model="answers.names"
          type="text"
          maxlength="6000"
          placeholder="Name; several with commas between"
          class="w-full border border-rule bg-paper px-2 py-1"
          :aria-invalid="tooMany !== null"
          :aria-describedby="tooMany ? 'start-names-why' : undefined"
      /></label>
      <ul v-if="named.length > 1" class="grid gap-x-4 gap-y-1 card:grid-cols-2" aria-label="What each of them is">
        <li v-for="({ name, kind }, i) in named" :key="`${i} ${name}`">
          <label class="flex items-baseline justify-between gap-2">
            <span class="min-w-0 truncate" :title="name">{{ name }}</span>
            <select
              class="min-h-6 max-w-[70%] min-w-0 border-b border-dotted border-rule bg-sheet py-0.5 hover:border-change pointer-coarse:min-h-11"
              :aria-label="`What ${name} is`"
              :value="kind === 'many' ? 'voice' : kind"
              @change="choose(name, $event)"
            >
              <option v-for="{ value, words } in sources" :key="value" :value="value">{{ words }}</option>
            </select>
          </label>
          <label v-if="loudWords(kind).length > 0" class="flex items-baseline justify-between gap-2">
            <span class="text-muted">how loud</span>
            <select
              class="min-h-6 max-w-[70%] min-w-0 border-b border-dotted border-rule bg-sheet py-0.5 hover:border-change pointer-coarse:min-h-11"
              :aria-label="`How loud ${name} is`"
              :value="loudOf(name)"
              @change="chooseLoud(name, $event)"
            >
              <option value="">not known</option>
              <option v-for="{ value, words } in loudWords(kind)" :key="value" :value="value">{{ words }}</option>
            </select>
          </label>
        </li>
      </ul>
      <p v-if="tooMany" id="start-names-why" role="alert" class="text-ceiling">{{ tooMany }}</p>
      <template v-if="byMicrophone">
        <fieldset>
          <legend class="font-semibold">3 Which kind of microphone?</legend>
          <div class="grid gap-x-4 card:grid-cols-3">
            <label v-for="[value, words] in mics" :key="value" class="answer">
              <input v-model="answers.microphone" type="radio" name="microphone" :value="value" /> {{ words }}
            </label>
            <label v-if="canTakeInline(answers)" class="answer card:col-span-3">
              <input v-model="answers.inline" type="checkbox" /> An inline preamp behind it, which needs 48 V
            </label>
          </div>
        </fieldset>
        <label class="flex items-baseline gap-1.5"
          ><span class="font-semibold">4 How far from it?</span
          ><input
            v-model="distance"
            type="text"
            inputmode="decimal"
            placeholder="0.3"
            class="figure w-20 border border-rule bg-paper px-2 py-1 text-right"
            :aria-invalid="tooFar !== null"
            :aria-describedby="tooFar ? 'start-distance-why' : undefined"
          />
          m</label
        >
        <p v-if="tooFar" id="start-distance-why" role="alert" class="text-ceiling">{{ tooFar }}</p>
        <label v-if="named.length < 2" class="flex flex-wrap items-baseline gap-1.5"
          ><span class="font-semibold">5 How loud is it?</span>
          <select
            v-model="answers.loudness"
            class="min-h-6 min-w-0 border-b border-dotted border-rule bg-sheet py-0.5 hover:border-change pointer-coarse:min-h-11"
          >
            <option :value="undefined">not known: use a usual level</option>
            <option v-for="{ value, words } in loudOfAll" :key="value" :value="value">{{ words }}</option>
          </select></label
        >
      </template>
      <fieldset>
        <legend class="font-semibold">{{ after + 1 }} Into what?</legend>
        <div class="grid gap-x-4 card:grid-cols-2">
          <label v-for="[value, words] in ways" :key="value" class="answer">
            <input v-model="answers.chain" type="radio" name="chain" :value="value" /> {{ words }}
          </label>
        </div>
      </fieldset>
      <fieldset>
        <legend class="font-semibold">{{ after + 2 }} How does the performer listen?</legend>
        <div class="grid gap-x-4 card:grid-cols-2">
          <label v-for="[value, words] in listening" :key="value" class="answer">
            <input v-model="answers.hears" type="radio" name="hears" :value="value" /> {{ words }}
          </label>
        </div>
      </fieldset>
      <fieldset>
        <legend class="font-semibold">{{ after + 3 }} Where does it go, besides the recorder?</legend>
        <label v-for="use in busses" :key="use" class="answer">
          <input v-model="answers.into" type="checkbox" name="into" :value="use" />
          <span
            >{{ busUses[use].title }} <span class="text-muted">{{ busUses[use].words }}</span></span
          >
        </label>
      </fieldset>
      <p class="flex flex-wrap gap-3">
        <button type="submit" class="push-main">Begin, planned</button>
        <button type="button" class="push" @click="stageByStage">Stage by stage instead</button>
      </p>
      <details>
        <summary class="cursor-pointer font-semibold">Or from a template, with invented gear to be replaced</summary>
        <ul class="max-h-72 overflow-y-auto" tabindex="0" aria-label="Templates to start from">
          <li v-for="template in ready?.templates" :key="template.id">
            <button
              type="button"
              class="block w-full px-1 py-1.5 text-left hover:bg-change-soft focus:bg-change-soft"
              :data-start-template="template.id"
              @click="fromTemplate(template)"
            >
              <span class="font-semibold">{{ template.title }}</span>
              <span class="block text-muted">{{ template.words }}</span>
            </button>
          </li>
        </ul>
      </details>
    </form>
  </ModalDialog>
</template>

<style scoped>
.answer {
  display: flex;
  align-items: center;
  gap: 0.4rem;
  min-height: 1.5rem;
  @media (pointer: coarse) {
    min-height: 44px;
  }
}
</style>
