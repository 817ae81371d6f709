// How fast and in how much memory a recording's levels are measured, against Debian's ffmpeg on the same file in the same run.
import { execFileSync, spawnSync } from 'node:child_process'
import { closeSync, existsSync, mkdirSync, openSync, rmSync, statSync, writeSync } from 'node:fs'
import { performance } from 'node:perf_hooks'
import { root } from './steps.mjs'

const folder = `${root}.cache/bench`

const ROUNDS = 4
/** Seconds after which the programme comes again. */
const PHRASE = 30

/** Programme that swells and falls, 24 bits, stereo: tones with noise, written a second at a time. */
export function makeRecording(seconds, rate, name) {
  const path = `${folder}/${name}`
  const frames = seconds * rate
  if (existsSync(path) && statSync(path).size === 44 + 6 * frames) return path
  mkdirSync(folder, { recursive: true })
  const head = Buffer.alloc(44)
  head.write('RIFF', 0)
  head.writeUInt32LE(36 + 6 * frames, 4)
  head.write('WAVEfmt ', 8)
  for (const [at, value] of [
    [16, 16],
    [24, rate],
    [28, 6 * rate],
    [40, 6 * frames],
  ])
    head.writeUInt32LE(value, at)
  for (const [at, value] of [
    [20, 1],
    [22, 2],
    [32, 6],
    [34, 24],
  ])
    head.writeUInt16LE(value, at)
  head.write('data', 36)
  const file = openSync(path, 'w')
  writeSync(file, head)
  const phrase = Array.from({ length: Math.min(seconds, PHRASE) }, (_, second) => oneSecond(second, rate))
  for (let second = 0; second < seconds; second++) writeSync(file, phrase[second % PHRASE])
  closeSync(file)
  return path
}

/** A second of two channels. */
function oneSecond(second, rate) {
  const block = Buffer.alloc(6 * rate)
  let state = second + 1
  for (let i = 0; i < rate; i++) {
    state = (state * 48_271) % 2_147_483_647
    const t = second + i / rate
    const noise = state / 2_147_483_647 - 0.5
    const swell = 0.15 + 0.1 * Math.sin(1.3 * t) + 0.05 * Math.sin(7 * t)
    const x = swell * (Math.sin(2 * Math.PI * 220 * t) + 0.4 * Math.sin(2 * Math.PI * 1310 * t)) + 0.02 * noise
    block.writeIntLE(Math.round(8_388_607 * x), 6 * i, 3)
    block.writeIntLE(Math.round(8_388_607 * (0.8 * x + 0.01 * noise)), 6 * i + 3, 3)
  }
  return block
}

const timed = (run) => {
  const start = performance.now()
  run()
  return (performance.now() - start) / 1000
}

/** In a process of its own, so that the memory is the measurement's. */
function measured(path) {
  const program = `import { levelsOfFile } from ${JSON.stringify(`${folder}/levels.js`)}; console.log(JSON.stringify(await levelsOfFile(${JSON.stringify(path)})))`
  return JSON.parse(execFileSync(process.execPath, ['--input-type=module', '-e', program], { encoding: 'utf8' }))
}

export function benchLevels(line) {
  const ten = makeRecording(600, 96_000, 'ten-minutes.wav')
  const filters = spawnSync('ffmpeg', ['-version']).error ? [] : ['astats,ebur128', 'astats,ebur128=peak=true']
  if (filters.length === 0) line('no ffmpeg to compare with', '–', 'apt-get install ffmpeg')
  const theirs = filters.map(() => Infinity)
  let own = Infinity
  // In turns, and the best of each: the machine's own pace changes from minute to minute.
  for (let round = 0; round < ROUNDS; round++) {
    own = Math.min(own, measured(ten).seconds)
    filters.forEach((filter, i) => {
      theirs[i] = Math.min(
        theirs[i],
        timed(() =>
          execFileSync('ffmpeg', [
            '-nostats',
            '-hide_banner',
            '-loglevel',
            'error',
            '-i',
            ten,
            '-af',
            filter,
            '-f',
            'null',
            '-',
          ]),
        ),
      )
    })
  }
  line('levels of 10 min, 96 kHz, 24 bits, stereo', `${own.toFixed(1)} s`)
  filters.forEach((filter, i) => {
    line(`the same by ffmpeg, ${filter}`, `${theirs[i].toFixed(1)} s`)
    line('ratio, ours to theirs', (own / theirs[i]).toFixed(2), '1')
  })
  const long = makeRecording(3728, 96_000, 'two-gigabytes.wav')
  line('memory of a process that measures 2 GB', `${measured(long).megabytes.toFixed(0)} MB`, '200 MB')
  rmSync(long)
}
