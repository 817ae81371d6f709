import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import type { Table } from '#core/log/sheets'
import { recallTable, stageBoxTable, takeTable } from '#core/log/sheets'
import { useLogStore } from './log'
import { useSessionStore } from './session'

export const logPages = ['takes', 'recall', 'compare', 'sheets'] as const
export type LogPage = (typeof logPages)[number]
export const logSheets = ['recall', 'stage-box', 'takes'] as const
export type LogSheet = (typeof logSheets)[number]
export const sheetTitles: Record<LogSheet, string> = {
  'recall': 'Recall sheet',
  'stage-box': 'Stage box list',
  'takes': 'Take log',
}

/** What of the log is looked at: the page, the sheet, and the states of the session that it is about. */
export const useLogViewStore = defineStore('log-view', () => {
  const store = useSessionStore()
  const log = useLogStore()
  const page = ref<LogPage>('takes')
  const sheet = ref<LogSheet>('recall')
  /** Id of a mark; `null` for the session as it stands. */
  const wantedMark = ref<string | null>(null)
  const sheetOf = ref<string | null>(null)

  const marks = computed(() => log.log.marks.filter(({ struck }) => !struck).reverse())
  const mark = computed(() => marks.value.find(({ id }) => id === wantedMark.value) ?? marks.value[0] ?? null)

  /** The session of a mark, or as it stands, with its evaluation. */
  function stateOf(id: string | null) {
    if (id === null)
      return store.committed && store.evaluation ? { session: store.committed, evaluation: store.evaluation } : null
    const session = log.open(id)?.session
    return session ? { session, evaluation: evaluateSession(session) } : null
  }
  const sheetSession = computed(() => stateOf(sheetOf.value)?.session ?? store.committed)
  const sheetMark = computed(() => log.log.marks.find(({ id }) => id === sheetOf.value) ?? null)
  const title = computed(() => {
    const of = sheetMark.value
    return `${sheetTitles[sheet.value]}: ${sheetSession.value?.name ?? ''}${of && sheet.value !== 'takes' ? `, “${of.name}”` : ''}`
  })
  const table = computed<Table>(() => {
    if (!sheetSession.value) return []
    if (sheet.value === 'recall') return recallTable(sheetSession.value)
    return sheet.value === 'stage-box' ? stageBoxTable(sheetSession.value) : takeTable(log.log, sheetSession.value)
  })

  return {
    page,
    sheet,
    sheetOf,
    marks,
    mark,
    stateOf,
    sheetSession,
    sheetMark,
    title,
    table,
    show: (next: LogPage, id: string | null = null) => {
      page.value = next
      if (id !== null) wantedMark.value = id
    },
    chooseMark: (id: string) => {
      wantedMark.value = id
    },
  }
})
