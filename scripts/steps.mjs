// What the set-up scripts share. Plain Node: they run before anything is installed.
import { spawn, spawnSync } from 'node:child_process'
import { existsSync } from 'node:fs'
import { createServer } from 'node:net'
import { fileURLToPath } from 'node:url'

export const root = fileURLToPath(new URL('..', import.meta.url))

/** Runs a command with its output shown. Resolves to its exit code. */
export function run(command, args, options = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd: root, stdio: ['ignore', 'inherit', 'inherit'], ...options })
    child.on('error', (error) => {
      console.error(`${command}: ${error.message}`)
      resolve(1)
    })
    child.on('exit', (code) => resolve(code ?? 1))
  })
}

/** Runs a command and keeps what it prints. Resolves to its exit code and that. */
export function runQuietly(command, args) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] })
    const printed = []
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (data) => printed.push(data))
    child.on('error', (error) => resolve({ code: 1, printed: error.message }))
    child.on('close', (code) => resolve({ code: code ?? 1, printed: Buffer.concat(printed).toString() }))
  })
}

/** Does all tasks, in their order, at most so many at once. */
export async function together(atOnce, tasks) {
  const waiting = [...tasks]
  const next = async () => {
    for (let task = waiting.shift(); task; task = waiting.shift()) await task()
  }
  await Promise.all(Array.from({ length: atOnce }, next))
}

/** Stops the script, saying which step failed. */
export async function need(what, command, args, options) {
  const code = await run(command, args, options)
  if (code !== 0) {
    console.error(`\n${what} failed (exit code ${code}).`)
    process.exit(1)
  }
}

// `npm install`, not `npm ci`: optional binaries of other platforms may be missing from the lock, and `ci` would refuse.
export const install = (...further) =>
  need('Installing packages', 'npm', ['install', '--no-audit', '--no-fund', '--loglevel=error', ...further])

/** What serving needs. Where the tools of the desk are installed already they stay: leaving them out would remove them. */
export const installToServe = () => (existsSync(`${root}node_modules/vitest`) ? install() : install('--omit=dev'))
export const prepare = () =>
  need('Preparing Nuxt', 'npx', ['nuxt', 'prepare'], { stdio: ['ignore', 'ignore', 'inherit'] })
export const build = () => run('npx', ['nuxt', 'build'], { stdio: ['ignore', 'ignore', 'inherit'] })

/**
 * The Chromium that the browser tests drive: Debian's, installed where it is missing and this may be done. Its headless shell is the same
 * engine without the browser's own windows, and takes two thirds of the time.
 */
export const chromium = () =>
  browser('CHROMIUM', 'chromium-headless-shell', ['chromium-headless-shell', 'chromium', 'chromium-browser'])

/** The second engine: Debian's Firefox, of the releases that stay. */
export const firefox = () => browser('FIREFOX', 'firefox-esr', ['firefox-esr', 'firefox'])

/** A browser by the variable that names it, or by its commands; its Debian package is installed where there is none. */
async function browser(variable, debianPackage, commands) {
  const find = () => process.env[variable] ?? commands.map(pathOf).find(Boolean)
  const found = find()
  if (found) return found
  console.log(`Installing ${debianPackage}…`)
  const sudo = process.getuid?.() === 0 ? [] : ['sudo']
  for (const args of [['update'], ['install', '-y', '--no-install-recommends', debianPackage]]) {
    const [command, ...rest] = [...sudo, 'apt-get', ...args]
    await need(`Installing ${debianPackage}`, command, rest, {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    })
  }
  const installed = find()
  if (installed) return installed
  console.error(`No ${debianPackage} was found. Install one and set ${variable} to its path.`)
  process.exit(1)
}

const pathOf = (command) => spawnSync('sh', ['-c', `command -v ${command}`], { encoding: 'utf8' }).stdout.trim()

export const built = () => existsSync(`${root}.output/server/index.mjs`)

/** A port that is free now. */
export function freePort() {
  return new Promise((resolve, reject) => {
    const server = createServer()
    server.on('error', reject)
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address()
      server.close(() => resolve(port))
    })
  })
}

/** Starts the built server and waits until it answers. */
export async function serve(port = undefined, host = '127.0.0.1') {
  const chosen = port ?? (await freePort())
  const child = spawn(process.execPath, ['.output/server/index.mjs'], {
    cwd: root,
    stdio: ['ignore', 'ignore', 'pipe'],
    env: { ...process.env, PORT: String(chosen), HOST: host, NODE_ENV: 'production' },
  })
  let log = ''
  child.stderr.on('data', (text) => {
    log += text
    process.stderr.write(text)
  })
  // An address that means "all of them" is not one to call.
  const address = `http://${['0.0.0.0', '::'].includes(host) ? '127.0.0.1' : host}:${chosen}`
  for (let attempt = 0; attempt < 100; attempt++) {
    if (child.exitCode !== null)
      throw new Error(`The server stopped at once (exit code ${child.exitCode}). Is port ${chosen} taken?`)
    if (await answers(address)) return { address, child, log: () => log, stop: () => child.kill() }
    await new Promise((resolve) => setTimeout(resolve, 100))
  }
  child.kill()
  throw new Error(`The server did not answer at ${address}.`)
}

async function answers(address) {
  try {
    return (await fetch(`${address}/api/schema/session`)).ok
  } catch (error) {
    if (error instanceof TypeError) return false // not listening yet
    throw error
  }
}
