import { computed, ref } from 'vue'
import { freeGearId } from '#core/chain/remedies'
import type { Gear, StructureChange } from '#core/session'
import { traitsOf } from '#core/session'
import { useSessionStore } from '~/stores/session'
import { useShelfStore } from '~/stores/shelf'
import { useViewStore } from '~/stores/view'
import { useStageEdit } from './use-stage-edit'

/** Where a box is to be chosen for. */
export type Picking = { do: 'insert'; index: number } | { do: 'replace'; stage: string }

const picking = ref<Picking | null>(null)
const updating = ref<Gear | null>(null)
const addingStrip = ref(false)
/** Why the last change of the chain was not taken, or what it led to. */
const told = ref<string | null>(null)

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
    return gear ? traitsOf(gear).domains(gear, before?.port).gives : null
  })
  /** The port of a box by which it can stand there: the first free one; `undefined` where it has no ports, `null` where it does not fit. */
  function portFor(gear: Gear): string | null | undefined {
    const traits = traitsOf(gear)
    if (!traits.inStrip) return null
    if (gear.kind !== 'interface') return traits.domains(gear).takes === needed.value ? undefined : null
    const taken = new Set(
      store.session?.strips.flatMap((each) =>
        each.stages.filter((stage) => stage.gear === gear.id).map((stage) => stage.port),
      ),
    )
    const fitting = gear.inputs.filter((input) => traits.domains(gear, input.id).takes === needed.value)
    return (fitting.find((input) => !taken.has(input.id)) ?? fitting[0])?.id ?? null
  }

  /** Puts the chosen box where it was picked for; one from the shelf comes as a copy. */
  function pick(gear: Gear, from: 'session' | 'shelf') {
    const { value } = picking
    const session = store.committed
    const port = portFor(gear)
    if (!value || !session || port === null) return
    const { shelf: _origin, ...plain } = gear
    const own = from === 'session' ? gear : ({ ...plain, id: freeGearId(session, gear.id), shelf: gear.id } as Gear)
    const placed = { gear: own, ...(port !== undefined && { port }) }
    const done =
      value.do === 'insert'
        ? change(`Insert ${gear.name}`, [{ do: 'insert', strip: strip.value, index: value.index, ...placed }])
        : change(`Replace by ${gear.name}`, [{ do: 'replace', strip: strip.value, stage: value.stage, ...placed }])
    picking.value = null
    if (done) view.selectStage(stages.value[value.do === 'insert' ? value.index : indexOf(value.stage)]?.id ?? '')
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
