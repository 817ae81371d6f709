// Load on the relay: 64 rooms of 8 devices, one of each sending live levels twenty times a second, each device a change a second.
// Prints latency, processor time and memory of the server. Needs a build; "npm run bench" runs it too.
import { readFileSync } from 'node:fs'
import { randomBytes } from 'node:crypto'
import { request } from 'node:http'
import { fileURLToPath } from 'node:url'
import { serve } from './steps.mjs'

const ROOMS = 64
const MEMBERS = 8
/** Bytes of a sealed message of eight channels' levels. */
const LIVE = 600
const SECONDS = 10

/** A connection by hand: what is sent is masked, what comes is not (RFC 6455, 5.2). */
function connect(port, room, heard) {
  return new Promise((resolve, reject) => {
    const asked = request({
      port,
      host: '127.0.0.1',
      path: '/api/relay',
      headers: {
        'origin': `http://127.0.0.1:${port}`,
        'connection': 'Upgrade',
        'upgrade': 'websocket',
        'sec-websocket-version': '13',
        'sec-websocket-key': randomBytes(16).toString('base64'),
      },
    })
    asked.on('response', (answer) => reject(new Error(`The upgrade was refused: ${answer.statusCode}.`)))
    asked.on('error', reject)
    asked.on('upgrade', (_, socket) => {
      let left = Buffer.alloc(0)
      socket.on('data', (data) => {
        left = Buffer.concat([left, data])
        for (;;) {
          if (left.length < 4) return
          const short = left[1] & 127
          const from = short === 126 ? 4 : 2
          const length = short === 126 ? left.readUInt16BE(2) : short
          if (left.length < from + length) return
          heard(left.subarray(from, from + length))
          left = left.subarray(from + length)
        }
      })
      socket.on('error', reject)
      const send = (bytes) => {
        const head =
          bytes.length < 126 ? [0x82, 0x80 | bytes.length] : [0x82, 0xfe, bytes.length >> 8, bytes.length & 255]
        // A mask of zeros leaves the bytes as they are.
        socket.write(Buffer.concat([Buffer.from([...head, 0, 0, 0, 0]), bytes]))
      }
      send(Buffer.concat([Buffer.from([0]), room]))
      resolve({ send, close: () => socket.destroy() })
    })
    asked.end()
  })
}

const status = (pid, name) =>
  Number(new RegExp(`^${name}:\\s+(\\d+)`, 'm').exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1])
/** s of the processor. */
function processorTime(pid) {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1].split(' ')
  return (Number(fields[11]) + Number(fields[12])) / 100
}

export async function benchRelay(line) {
  const { address, child, stop } = await serve(undefined, '0.0.0.0')
  const port = Number(new URL(address).port)
  const before = status(child.pid, 'VmRSS')
  const delays = []
  let count = 0
  const heard = (bytes) => {
    // 1 is a message passed on; its first eight bytes are when it was sent.
    if (bytes[0] !== 1 || bytes.length < 10) return
    count++
    if (count % 7 === 0) delays.push(performance.now() - bytes.readDoubleBE(2))
  }
  const rooms = []
  for (let r = 0; r < ROOMS; r++) {
    const id = randomBytes(16)
    rooms.push(await Promise.all(Array.from({ length: MEMBERS }, () => connect(port, id, heard))))
  }
  const joined = status(child.pid, 'VmRSS')
  const message = (length) => {
    const bytes = Buffer.alloc(2 + length)
    bytes[0] = 1
    bytes.writeDoubleBE(performance.now(), 2)
    return bytes
  }
  const [startedAt, processor] = [performance.now(), processorTime(child.pid)]
  const timers = rooms.flatMap((members) => [
    setInterval(() => members[0].send(message(LIVE)), 50),
    ...members.map((member) => setInterval(() => member.send(message(300)), 1000)),
  ])
  await new Promise((resolve) => setTimeout(resolve, SECONDS * 1000))
  timers.forEach(clearInterval)
  await new Promise((resolve) => setTimeout(resolve, 300))
  const seconds = (performance.now() - startedAt) / 1000
  const used = (processorTime(child.pid) - processor) / seconds
  const peak = status(child.pid, 'VmHWM')
  for (const members of rooms) for (const member of members) member.close()
  stop()
  delays.sort((a, b) => a - b)
  const at = (part) => delays[Math.floor(part * (delays.length - 1))]
  line('relay, 64 rooms of 8: median delay', `${at(0.5).toFixed(1)} ms`, '20 ms')
  line('relay: 99 of 100 messages within', `${at(0.99).toFixed(1)} ms`, '100 ms')
  line('relay: messages out a second', `${Math.round(count / seconds)}`)
  line('relay: of one core', `${Math.round(100 * used)} %`)
  line('relay: memory of the server, with 512 devices', `${Math.round(peak / 1024)} MB`, '200 MB')
  line('relay: memory for each device', `${((joined - before) / (ROOMS * MEMBERS)).toFixed(0)} kB`)
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  await benchRelay((name, value, bound) =>
    console.log(`${name.padEnd(46)} ${value.padStart(12)}   ${bound ? `bound ${bound}` : ''}`),
  )
  process.exit(0)
}
