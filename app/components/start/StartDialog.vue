<script setup lang="ts">
import { computed, onMounted, reactive, ref, shallowRef } from 'vue'
import { useRouter } from '#imports'
import type { BusUse, SourceKind, StartAnswers } from '#core/session'
import {
  MOST_SOURCES,
  bussesFor,
  busUses,
  chains,
  kindAt,
  microphones,
  namesIn,
  readTypedNumber,
  recordables,
  settingFields,
  startSession,
} from '#core/session'
import ModalDialog from '~/components/shell/ModalDialog.vue'
import { latePart } from '~/stores/late-part'
import { useLibraryStore } from '~/stores/library'
import type { Template } from '~/stores/templates'
import { loadTemplates } from '~/stores/templates'

/** How a session of one's own begins: a few questions, each of which may be left alone; or a template; or stage by stage. */
const emit = defineEmits<{ close: [] }>()
const library = useLibraryStore()
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
  return many > MOST_SOURCES ? `${many} names: ${MOST_SOURCES} can begin together. Add the others as strips.` : null
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
const listening = options({ direct: 'Direct, inside the interface', software: 'Through the host' })
const byMicrophone = computed(() =>
  named.value.length > 0
    ? named.value.some(({ kind }) => recordables[kind].source === 'sound-source')
    : recordables[answers.what ?? 'voice'].source === 'sound-source',
)

const ready = shallowRef<Awaited<ReturnType<typeof loadTemplates>> | null>(null)
onMounted(async () => {
  ready.value = await latePart(loadTemplates)
})

async function go(key: string) {
  emit('close')
  await router.push(`/path/${key}`)
}
async function begin() {
  if (tooFar.value || tooMany.value) return
  const kinds = named.value.map(({ name }) => said.get(name))
  const given = { ...answers, kinds, ...(metres.value?.ok && { distance: metres.value.value }) }
  await go(await library.startPlanned(startSession('new', 'New session', given)))
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
        Leave alone what you do not know: usual figures stand in, marked as assumed, until you give your own.
      </p>
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
              :value="kind === 'many' ? 'voice' : kind"
              @change="choose(name, $event)"
            >
              <option v-for="{ value, words } in sources" :key="value" :value="value">{{ words }}</option>
            </select>
          </label>
        </li>
      </ul>
      <p v-if="tooMany" id="start-names-why" role="alert" class="text-ceiling">{{ tooMany }}</p>
      <template v-if="byMicrophone">
        <fieldset>
          <legend class="font-semibold">3 With which kind of microphone?</legend>
          <div class="grid gap-x-4 card:grid-cols-3">
            <label v-for="[value, words] in mics" :key="value" class="answer">
              <input v-model="answers.microphone" type="radio" name="microphone" :value="value" /> {{ words }}
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
      </template>
      <fieldset>
        <legend class="font-semibold">{{ byMicrophone ? 5 : 3 }} Into what?</legend>
        <div class="grid gap-x-4 card:grid-cols-2">
          <label v-for="[value, words] in ways" :key="value" class="answer">
            <input v-model="answers.chain" type="radio" name="chain" :value="value" /> {{ words }}
          </label>
        </div>
      </fieldset>
      <fieldset>
        <legend class="font-semibold">{{ byMicrophone ? 6 : 4 }} How does the performer listen?</legend>
        <div class="grid gap-x-4 card:grid-cols-2">
          <label v-for="[value, words] in listening" :key="value" class="answer">
            <input v-model="answers.hears" type="radio" name="hears" :value="value" /> {{ words }}
          </label>
        </div>
      </fieldset>
      <fieldset>
        <legend class="font-semibold">{{ byMicrophone ? 7 : 5 }} Where does it go, besides the recorder?</legend>
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
