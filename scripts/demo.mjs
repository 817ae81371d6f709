// Installs, builds and serves Remetra; it opens on the demo session. PORT and HOST choose the address.
import { build, installToServe, serve } from './steps.mjs'

await installToServe()
console.log('Building…')
if ((await build()) !== 0) process.exit(1)
const { address, child } = await serve(process.env.PORT ?? 3000, process.env.HOST || '127.0.0.1').catch((error) => {
  console.error(error.message)
  process.exit(1)
})
console.log(`\nRemetra is at ${address}\nPress Ctrl+C to stop it.`)
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal))
child.on('exit', (code) => process.exit(code ?? 0))
