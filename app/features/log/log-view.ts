import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import type { Table } from '#core/log/sheets'
import { runSheetTable } from '#core/log/run-sheet-table'
import { recallTable, stageBoxTable, takeTable } from '#core/log/sheets'
import type { Session } from '#core/session'
import { runSheet } from '#core/soundcheck/run-sheet'
import type { Step } from '#core/soundcheck/step'
import { useLogStore } from '~/stores/log'
import { useSessionStore } from '~/stores/session'
import { useSoundcheckStore } from '~/stores/soundcheck'

export const logPages = ['takes', 'recall', 'compare', 'sheets'] as const
export type LogPage = (typeof logPages)[number]
export const logSheets = ['recall', 'run-sheet', 'stage-box', 'takes'] as const
export type LogSheet = (typeof logSheets)[number]
export const sheetTitles: Record<LogSheet, string> = {
  'recall': 'Recall sheet',
  'run-sheet': 'Run sheet',
  'stage-box': 'Stage box list',
  'takes': 'Take log',
}

/** What of the log is looked at: the page, the sheet, and the states of the session that it is about. */
export const useLogViewStore = defineStore('log-view', () => {
  const store = useSessionStore()
  const log = useLogStore()
  const soundcheck = useSoundcheckStore()
  const page = ref<LogPage>('takes')
  const sheet = ref<LogSheet>('recall')
  /** Id of a mark; `null` for the session as it stands. */
  const wantedMark = ref<string | null>(null)
  const sheetOf = ref<string | null>(null)

  const marks = computed(() => log.log.marks.filter(({ struck }) => !struck).reverse())
  const mark = computed(() => marks.value.find(({ id }) => id === wantedMark.value) ?? marks.value[0] ?? null)

  const sessionOf = (id: string) => log.open(id)?.session ?? null
  /** The session of a mark, or as it stands, with its evaluation. */
  function stateOf(id: string | null) {
    if (id === null)
      return store.committed && store.evaluation ? { session: store.committed, evaluation: store.evaluation } : null
    const session = sessionOf(id)
    return session ? { session, evaluation: evaluateSession(session) } : null
  }
  const sheetSession = computed(() => stateOf(sheetOf.value)?.session ?? store.committed)
  const sheetMark = computed(() => log.log.marks.find(({ id }) => id === sheetOf.value) ?? null)
  const title = computed(() => {
    const of = sheetMark.value
    return `${sheetTitles[sheet.value]}: ${sheetSession.value?.name ?? ''}${of && sheet.value !== 'takes' ? `, “${of.name}”` : ''}`
  })
  /** As it stands with its plan; that of a mark as it stood. */
  function stepsOf(session: Session): Step[] {
    if (session === store.committed) return soundcheck.steps
    return runSheet(session, evaluateSession(session))
  }
  const TABLES: Record<LogSheet, (session: Session) => Table> = {
    'recall': recallTable,
    'run-sheet': (session) => runSheetTable(session, stepsOf(session)),
    'stage-box': stageBoxTable,
    'takes': (session) => takeTable(log.log, session),
  }
  const table = computed<Table>(() => {
    const session = sheetSession.value
    return session ? TABLES[sheet.value](session) : []
  })

  return {
    page,
    sheet,
    sheetOf,
    marks,
    mark,
    wantedMark,
    sessionOf,
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
