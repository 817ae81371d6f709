import { computed, nextTick, ref, shallowRef } from 'vue'
import { freeGearId } from '#core/checks/remedies'
import type { Gear } from '#core/gear'
import type { StructureChange } from '#core/edits'
import { applyChanges, fitStrip } from '#core/edits'
import { traitsOf, socketOf, isInterface } from '#core/gear'
import { isBus, nextName } from '#core/model'
import { useSessionStore } from '~/stores/session'
import { useShelfStore } from '~/stores/shelf'
import { useViewStore } from '~/stores/view'
import { useStageEdit } from './use-stage-edit'

/** Where a box is to be chosen for. */
export type Picking = { do: 'insert'; index: number } | { do: 'replace'; stage: string }

const picking = ref<Picking | null>(null)
const updating = ref<Gear | null>(null)
const addingStrip = ref(false)
/** The stage whose data sheet is being read, with what was brought of it. */
const pasting = shallowRef<{ stage: string; brought: string | File | null } | null>(null)
/** Why the last change of the chain was not taken, or what it led to. */
const told = ref<string | null>(null)

/** The name of a stage that has just been put in: the next thing that one types. */
async function focusStage(stage: string) {
  await nextTick()
  document.querySelector<HTMLElement>(`#stage-${CSS.escape(stage)} input`)?.focus()
}

/** What stands in the strip and in which order: insert, replace, remove, move. Every one of them can be undone. */
export function useChainEdit() {
  const store = useSessionStore()
  const view = useViewStore()
  const shelf = useShelfStore()
  const edit = useStageEdit()

  const strip = computed(() => view.strip?.id ?? '')
  const stages = computed(() => view.strip?.stages ?? [])
  const indexOf = (stage: string) => stages.value.findIndex((each) => each.id === stage)

  function change(label: string, changes: StructureChange[]): boolean {
    told.value = edit.changes(label, changes)
    return told.value === null
  }

  function remove(stage: string) {
    const at = indexOf(stage)
    if (change('Remove a stage', [{ do: 'remove', strip: strip.value, stage }]))
      view.selectStage(stages.value[Math.max(0, at - 1)]?.id ?? '')
  }
  const moveTo = (stage: string, to: number) => change('Move a stage', [{ do: 'move', strip: strip.value, stage, to }])
  const move = (stage: string, by: 1 | -1) => {
    const to = indexOf(stage) + by
    if (to >= 0 && to < stages.value.length) moveTo(stage, to)
  }

  /** The gear of the session as the strip has it, with what each stage gives. */
  const gearOf = (stage: { gear: string } | undefined): Gear | undefined =>
    store.session?.gear.find((item) => item.id === stage?.gear)

  /** What a box must take from before it to stand where it is being picked for; `null`: it must be a source. */
  const needed = computed(() => {
    const { value } = picking
    const at = value?.do === 'insert' ? value.index : value ? indexOf(value.stage) : 0
    const before = stages.value[at - 1]
    const gear = gearOf(before)
    if (gear) return traitsOf(gear).domains(gear, before?.port).gives
    // A bus goes on taking what flows into it.
    const first = gearOf(stages.value[0])
    return view.strip && isBus(view.strip) && first ? traitsOf(first).domains(first, stages.value[0]?.port).takes : null
  })
  /** The port of a box by which it can stand there: the first free one; `undefined` where it has no ports, `null` where it does not fit. */
  function portFor(gear: Gear): string | null | undefined {
    const traits = traitsOf(gear)
    if (!traits.inStrip) return null
    if (!isInterface(gear)) return traits.domains(gear).takes === needed.value ? undefined : null
    const taken = new Set(
      store.session?.strips.flatMap((each) =>
        each.stages.filter((stage) => stage.gear === gear.id).map((stage) => socketOf(gear, stage.port)),
      ),
    )
    const fitting = [...gear.inputs, ...gear.outputs.filter(({ type }) => type !== 'headphone')].filter(
      (input) => traits.domains(gear, input.id).takes === needed.value,
    )
    return (fitting.find((input) => !taken.has(socketOf(gear, input.id))) ?? fitting[0])?.id ?? null
  }

  /** Puts the chosen box where it was picked for; one from the shelf or a blank one comes as a copy. What it makes unfit is fixed. */
  function pick(gear: Gear, from: 'session' | 'shelf' | 'blank') {
    const { value } = picking
    const session = store.committed
    const port = portFor(gear)
    if (!value || !session || port === null) return
    const { shelf: _origin, ...plain } = gear
    const id = from === 'session' ? gear.id : freeGearId(session, gear.id)
    const names = new Set(session.gear.map(({ name }) => name))
    const own = {
      ...plain,
      id,
      ...(from === 'shelf' && { shelf: gear.id }),
      ...(from === 'session' && _origin && { shelf: _origin }),
      ...(from === 'blank' && { name: nextName(gear.name, names) }),
    } as Gear
    const placed = { gear: own, ...(port !== undefined && { port }) }
    const structure: StructureChange =
      value.do === 'insert'
        ? { do: 'insert', strip: strip.value, index: value.index, ...placed }
        : { do: 'replace', strip: strip.value, stage: value.stage, ...placed }
    let fitted: string[] = []
    const word = value.do === 'insert' ? 'Inserted' : 'Put in'
    const wrong = store.edit(value.do === 'insert' ? `Insert ${own.name}` : `Replace by ${own.name}`, (each) => {
      const fitting = fitStrip(applyChanges(each, [structure]), strip.value)
      fitted = fitting.told
      return fitting.session
    })
    told.value = wrong ?? [`${word}: “${own.name}”.`, ...fitted].join(' ')
    picking.value = null
    if (wrong !== null) return
    const stage = stages.value[value.do === 'insert' ? value.index : Math.max(0, indexOf(value.stage))]?.id ?? ''
    view.selectStage(stage)
    void focusStage(stage)
  }

  async function keepOnShelf(gear: Gear) {
    await shelf.open()
    const id = await shelf.keepCopy(gear)
    edit.session('Keep on the shelf', (session) => ({
      ...session,
      gear: session.gear.map((item) => (item.id === gear.id ? { ...item, shelf: id } : item)),
    }))
    told.value = `“${gear.name}” is on the shelf.`
  }

  return {
    picking,
    updating,
    addingStrip,
    pasting,
    told,
    needed,
    portFor,
    pick,
    remove,
    move,
    moveTo,
    indexOf,
    keepOnShelf,
    openInsert: (index: number) => {
      picking.value = { do: 'insert', index }
    },
    openReplace: (stage: string) => {
      picking.value = { do: 'replace', stage }
    },
    openUpdate: (gear: Gear) => {
      updating.value = gear
    },
    toggleDriven: (stage: string) =>
      edit.stage('Overdriven on purpose', stage, ({ driven, ...rest }) => (driven ? rest : { ...rest, driven: true })),
  }
}
