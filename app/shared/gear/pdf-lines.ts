import type { PlacedText, SheetLine } from '#core/files'
import { linesOfPage } from '#core/files'

/** Pages that are read; a data sheet has a few. */
const MOST_PAGES = 60

/** The lines of text in a PDF. The package that reads it is fetched with the first one. @throws Error in words */
export async function linesOfPdf(file: Blob): Promise<SheetLine[]> {
  const { getDocument, PDFWorker } = await import('pdfjs-dist')
  const port = new Worker(new URL('../../workers/pdf.worker.ts', import.meta.url), { type: 'module' })
  const worker = PDFWorker.create({ port })
  const loading = getDocument({
    data: new Uint8Array(await file.arrayBuffer()),
    worker,
    // The policy of the page forbids what these would load or generate.
    useWasm: false,
    useWorkerFetch: false,
    disableFontFace: true,
  })
  try {
    const pdf = await loading.promise
    const lines: SheetLine[] = []
    for (let number = 1; number <= Math.min(pdf.numPages, MOST_PAGES); number++) {
      const { items } = await (await pdf.getPage(number)).getTextContent()
      lines.push(...linesOfPage(items.flatMap(placed), number))
    }
    return lines
  } catch (error) {
    throw new Error(`This PDF cannot be read: ${error instanceof Error ? error.message : 'unknown reason'}`, {
      cause: error,
    })
  } finally {
    await loading.destroy()
    worker.destroy()
    port.terminate()
  }
}

function placed(item: object): PlacedText[] {
  if (!('str' in item)) return []
  const { str, transform, width, height } = item as { str: string; transform: number[]; width: number; height: number }
  return [
    { text: str, x: transform[4] ?? 0, y: transform[5] ?? 0, width, height: height || Math.abs(transform[3] ?? 0) },
  ]
}
