import { ref } from 'vue'
import type { Fault, GearFileReading } from '#core/files'
import type { Gear } from '#core/gear'
import { readGearFile, writeGearFile } from '#core/files'
import { useShelfStore } from '~/stores/shelf'
import { chooseFile as choose, saveFile } from '~/composables/file-access'
import { readGearCsv, writeGearCsv } from './gear-csv'

/** Gear files in and out of the shelf, as JSON and as a table (CSV). */
export function useShelfExchange() {
  const shelf = useShelfStore()
  const refusal = ref<{ name: string; faults: Fault[] } | null>(null)
  const told = ref<string | null>(null)

  function read(name: string, text: string): GearFileReading {
    if (!/\.csv$/i.test(name)) {
      try {
        return readGearFile(JSON.parse(text.replace(/^\uFEFF/, '')))
      } catch (error) {
        return {
          ok: false,
          faults: [
            {
              path: '',
              code: 'not-json',
              message: `The file is not JSON (${error instanceof Error ? error.message.slice(0, 120) : 'unreadable'}). Choose a gear file, or a table with the ending .csv.`,
            },
          ],
        }
      }
    }
    return readGearCsv(text)
  }

  async function importText(name: string, text: string) {
    const reading = read(name, text)
    refusal.value = reading.ok ? null : { name, faults: reading.faults }
    if (!reading.ok) return
    const { added, same } = await shelf.take(reading.items)
    told.value = `${added} ${added === 1 ? 'item' : 'items'} added${same > 0 ? `, ${same} already there` : ''}.`
  }
  async function chooseFile() {
    const file = await choose({ extensions: ['.json', '.csv'], description: 'Gear file', id: 'remetra-gear' })
    if (file) await importText(file.name, await file.text())
  }
  async function save(items: readonly Gear[], kind: 'json' | 'csv') {
    const text = kind === 'json' ? writeGearFile(items) : writeGearCsv(items)
    await saveFile(
      text,
      kind === 'json' ? 'application/json' : 'text/csv',
      `remetra-shelf.gear.${kind}`,
      'remetra-gear',
    )
  }
  return { refusal, told, chooseFile, importText, save }
}
