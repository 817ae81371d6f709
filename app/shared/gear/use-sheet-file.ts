import Papa from 'papaparse'
import { ref, shallowRef } from 'vue'
import type { SheetLine } from '#core/files'
import { cellSign, linesOfCells, linesOfText } from '#core/files'
import { latePart } from '~/stores/late-part'

/** A data sheet is a few pages; a larger file is something else, bytes. */
const MOST_BYTES = 30 * 1024 * 1024

function linesOf(text: string): SheetLine[] {
  const delimiter = cellSign(text)
  return delimiter === null ? linesOfText(text) : linesOfCells(Papa.parse<string[]>(text, { delimiter }).data)
}

/** The lines of a data sheet that was pasted, or came as a file: text, a table or a PDF. */
export function useSheetFile() {
  const lines = shallowRef<SheetLine[]>([])
  const fileName = ref<string | null>(null)
  const busy = ref(false)
  const trouble = ref<string | null>(null)

  function paste(text: string) {
    fileName.value = null
    trouble.value = null
    lines.value = linesOf(text)
  }
  async function open(file: File) {
    trouble.value = null
    busy.value = true
    try {
      lines.value = await read(file)
      fileName.value = file.name
    } catch (error) {
      trouble.value = error instanceof Error ? error.message : 'The file cannot be read.'
    } finally {
      busy.value = false
    }
  }
  return { lines, fileName, busy, trouble, paste, open }
}

async function read(file: File): Promise<SheetLine[]> {
  if (file.size > MOST_BYTES)
    throw new Error(`“${file.name}” is larger than 30 MB. Paste the lines that matter instead.`)
  const isPdf = (await file.slice(0, 5).text()) === '%PDF-'
  const lines = isPdf ? await pdfLines(file) : linesOf(await file.text())
  if (lines.length === 0)
    throw new Error(
      isPdf
        ? `There is no text in “${file.name}”: its pages are pictures. Paste or type the figures.`
        : `“${file.name}” is empty.`,
    )
  return lines
}

/** The reader of PDF files comes with the first one, and may not come at all. */
async function pdfLines(file: File): Promise<SheetLine[]> {
  const linesOfPdf = await latePart(async () => {
    const [part] = await Promise.all([import('./pdf-lines'), import('pdfjs-dist')])
    return part.linesOfPdf
  })
  if (!linesOfPdf) throw new Error('The reader of PDF files did not come from the server. Paste the lines instead.')
  return linesOfPdf(file)
}
