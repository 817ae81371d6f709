import { fileURLToPath } from 'node:url'
import { build } from 'esbuild'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))

/** Builds what the server's worker threads run, as one file beside the server: a thread begins with a file of its own. */
export const buildServerWorker = (serverFolder: string) =>
  build({
    entryPoints: [here('../server/worker/answer.ts')],
    outfile: `${serverFolder}/worker/answer.mjs`,
    alias: { '#core': here('../core') },
    // Packages go into the file too: nothing has to be found from where it lies.
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    logLevel: 'warning',
  })
