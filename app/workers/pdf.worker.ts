/** Reads PDF files, off the page’s own thread. */
import 'pdfjs-dist/build/pdf.worker.min.mjs'
