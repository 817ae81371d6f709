import { fileURLToPath } from 'node:url'
import { build } from 'vite'

/** Builds what the server's worker threads run, as one file beside the server: a thread begins with a file of its own. */
export const buildServerWorker = (serverFolder: string) =>
  build({
    configFile: false,
    logLevel: 'warn',
    publicDir: false,
    resolve: { alias: { '#core': fileURLToPath(new URL('../core', import.meta.url)) } },
    // Packages go into the file too: nothing has to be found from where it lies.
    ssr: { noExternal: true },
    build: {
      ssr: fileURLToPath(new URL('../server/worker/answer.ts', import.meta.url)),
      outDir: `${serverFolder}/worker`,
      emptyOutDir: true,
      target: 'node20',
      rollupOptions: { output: { entryFileNames: 'answer.mjs' } },
    },
  })
