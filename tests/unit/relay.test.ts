import { chacha20poly1305, xchacha20poly1305 } from '@noble/ciphers/chacha.js'
import { createCipheriv } from 'node:crypto'
import { bytesToHex, hexToBytes, utf8ToBytes } from '@noble/ciphers/utils.js'
import { describe, expect, it } from 'vitest'
import { CLOSED, closedBecause } from '#core/relay/close-codes'
import { TO_ALL, joinFrame, passFrame, pulseFrame, readFromRelay, readToRelay } from '#core/relay/frames'
import { MOST_A_SECOND, MOST_BYTES, MOST_MEMBERS, MOST_ROOMS, MOST_WAITING, SILENT_AFTER } from '#core/relay/limits'
import { Rate } from '#core/relay/rate'
import { newRoom, readRoomFragment, roomFragment } from '#core/relay/room-link'
import { seal, unseal } from '#core/relay/seal'
import { StreamIn, StreamOut } from '#core/relay/stream'
import { Rooms } from '../../server/relay/rooms'
import { relayPath, relaySetting } from '../../server/relay/setting'
import { Guest, openRoom } from '../support/room'
import { runs } from '../support/runs'

/** A seeded generator of whole numbers (the minimal standard of Park and Miller, 1988). */
function numbers(seed: number) {
  let state = seed
  return (below: number) => {
    state = (state * 48_271) % 2_147_483_647
    return state % below
  }
}

function mutated(bytes: Uint8Array, below: (n: number) => number): Uint8Array {
  const copy = bytes.slice()
  const how = below(5)
  if (how === 0) return copy.slice(0, below(copy.length + 1))
  if (how === 1) return new Uint8Array([...copy, ...Array.from({ length: 1 + below(40) }, () => below(256))])
  if (how === 2) return Uint8Array.from({ length: below(200) }, () => below(256))
  for (let i = 0; i <= below(6); i++) copy[below(copy.length)] = below(256)
  if (how === 3) copy[0] = below(6)
  return copy
}

describe('seals', () => {
  it('are those of RFC 8439, 2.8.2, and of its long nonce', () => {
    const key = hexToBytes('808182838485868788898a8b8c8d8e8f909192939495969798999a9b9c9d9e9f')
    const text = utf8ToBytes(
      "Ladies and Gentlemen of the class of '99: If I could offer you only one tip for the future, sunscreen would be it.",
    )
    const place = hexToBytes('50515253c0c1c2c3c4c5c6c7')
    const short = chacha20poly1305(key, hexToBytes('070000004041424344454647'), place).encrypt(text)
    expect(bytesToHex(short.slice(-16))).toBe('1ae10b594f09e26a7e902ecbd0600691')
    // draft-irtf-cfrg-xchacha-03, A.3.1.
    const long = xchacha20poly1305(key, hexToBytes('404142434445464748494a4b4c4d4e4f5051525354555657'), place).encrypt(
      text,
    )
    expect(bytesToHex(long.slice(-16))).toBe('c0875924c1c7987947deafd8780acf49')
    // The same cipher of the system’s own library.
    const other = createCipheriv('chacha20-poly1305', key, hexToBytes('070000004041424344454647'), {
      authTagLength: 16,
    })
    other.setAAD(place, { plaintextLength: text.length })
    expect(bytesToHex(short.slice(0, -16))).toBe(bytesToHex(Uint8Array.from(other.update(text))))
  })

  it('open with the same key at the same place, and nowhere else', () => {
    const { key } = newRoom('/api/relay')
    const plain = utf8ToBytes('Gain 34 dB')
    const sealed = seal(key, 'a 1', plain)
    expect(unseal(key, 'a 1', sealed)).toEqual(plain)
    expect(unseal(key, 'a 2', sealed)).toBeNull()
    expect(unseal(newRoom('/api/relay').key, 'a 1', sealed)).toBeNull()
    const below = numbers(7)
    for (let i = 0; i < 200; i++) {
      const changed = sealed.slice()
      const at = below(changed.length)
      changed[at] = (changed[at] as number) ^ (1 + below(255))
      expect(unseal(key, 'a 1', changed)).toBeNull()
    }
  })
})

describe('what is too short or no message', () => {
  const { key } = newRoom('/api/relay')
  it('is refused, not thrown', () => {
    const sealed = seal(key, 'x', new Uint8Array())
    expect(unseal(key, 'x', sealed)).toEqual(new Uint8Array())
    for (const length of [0, 1, 23, 24, 25, sealed.length - 1])
      expect(unseal(key, 'x', sealed.slice(0, length))).toBeNull()
    const noJson = seal(key, 'x 0', new Uint8Array([0, ...utf8ToBytes('{"half":')]))
    expect(new StreamIn(key, 'x').take(noJson)).toEqual({ state: 'refused' })
  })

  it('is refused beyond 64 MB in all, and nothing after it is taken', () => {
    const into = new StreamIn(key, 'x')
    const part = (n: number, bytes: number) => seal(key, `x ${n}`, new Uint8Array(bytes).fill(1))
    expect(into.take(part(0, 32 * 1024 * 1024)).state).toBe('part')
    expect(into.take(part(1, 32 * 1024 * 1024)).state).toBe('part')
    expect(into.take(part(2, 1)).state).toBe('refused')
    expect(into.take(part(3, 1)).state).toBe('refused')
  })
})

describe('streams', () => {
  it('cut a message into no more parts than it fills', () => {
    const { key } = newRoom('/api/relay')
    const partsOf = (bytes: number) => new StreamOut(key, 'x').seal('x'.repeat(bytes - 2)).length
    const full = 160 * 1024
    expect([2, full - 1, full, full + 1, 2 * full, 2 * full + 1].map(partsOf)).toEqual([1, 1, 1, 2, 2, 3])
  })

  it('take each message once and in its order', () => {
    const { key } = newRoom('/api/relay')
    const out = new StreamOut(key, 'name')
    const into = new StreamIn(key, 'name')
    const [one, two, three] = ['one', 'two', 'three'].map((each) => out.seal(each)[0] as Uint8Array) as [
      Uint8Array,
      Uint8Array,
      Uint8Array,
    ]
    expect(into.take(two)).toEqual({ state: 'refused' })
    expect(into.take(one)).toEqual({ state: 'whole', message: 'one' })
    expect(into.take(one)).toEqual({ state: 'refused' })
    expect(into.take(two)).toEqual({ state: 'whole', message: 'two' })
    expect(new StreamIn(key, 'other').take(one)).toEqual({ state: 'refused' })
    expect(into.take(three)).toEqual({ state: 'whole', message: 'three' })
  })

  it('put a long message together from parts that the relay passes on, and no longer one', () => {
    const { key } = newRoom('/api/relay')
    const out = new StreamOut(key, 'long')
    const into = new StreamIn(key, 'long')
    const message = { text: 'é'.repeat(400_000) }
    const parts = out.seal(message)
    expect(parts.length).toBeGreaterThan(4)
    for (const part of parts) expect(passFrame(1, part).length).toBeLessThan(MOST_BYTES)
    expect(parts.map((part) => into.take(part).state).slice(0, -1)).toEqual(parts.slice(1).map(() => 'part'))
    const again = new StreamIn(key, 'long')
    let last: unknown
    for (const part of parts) last = again.take(part)
    expect(last).toEqual({ state: 'whole', message })
  })
})

describe('a room’s link', () => {
  it('holds relay, id and key behind the # and is read back', () => {
    for (const relay of ['/api/relay', '/api/relay/two']) {
      const room = newRoom(relay)
      expect(room.id.length * 8).toBe(128)
      expect(room.key.length * 8).toBe(256)
      expect(readRoomFragment(`#${roomFragment(room)}`)).toEqual(room)
    }
    expect(newRoom('/api/relay').key).not.toEqual(newRoom('/api/relay').key)
    for (const wrong of ['', '#room=', '#room=..', `#room=../x.${'a'.repeat(32)}.${'b'.repeat(64)}`, '#room=.aa.bb'])
      expect(readRoomFragment(wrong)).toBeNull()
  })

  it('is that of the process that the environment names, which runs where a network is served', () => {
    expect(relayPath('two')).toBe('/api/relay/two')
    expect(() => relayPath('Zwei!')).toThrow('REMETRA_RELAY_NAME')
    expect(relaySetting({ HOST: '127.0.0.1' })).toMatchObject({ on: false, serves: 'this-machine', hosts: [] })
    expect(relaySetting({ HOST: '127.0.0.1', REMETRA_RELAY: 'on' })).toMatchObject({ on: true })
    expect(relaySetting({ HOST: '0.0.0.0' })).toMatchObject({ on: true, serves: 'network' })
    expect(relaySetting({})).toMatchObject({ on: true, serves: 'network' })
    expect(relaySetting({ HOST: '0.0.0.0', REMETRA_RELAY: 'off' })).toMatchObject({ on: false })
    expect(relaySetting({ HOST: '10.1.2.3' }).hosts).toEqual(['10.1.2.3'])
  })
})

/** Connections to rooms, and what they got. */
function relay() {
  let now = 0
  const rooms = new Rooms(() => now)
  const connect = (waiting = 0) => {
    const got: Uint8Array[] = []
    const state = { got, closed: null as number | null, waiting }
    const connection = {
      send: (bytes: Uint8Array) => void got.push(bytes),
      close: (code: number) => {
        state.closed = code
      },
      waiting: () => state.waiting,
    }
    rooms.opened(connection)
    return Object.assign(state, {
      say: (bytes: Uint8Array) => rooms.message(connection, bytes),
      hangUp: () => rooms.closed(connection),
      heard: () => got.map(readFromRelay),
    })
  }
  return { rooms, connect, wait: (ms: number) => (now += ms) }
}

describe('the relay', () => {
  it('passes messages to one or to all others of a room, and to nobody else', () => {
    const { rooms, connect } = relay()
    const [room, other] = [newRoom('/api/relay'), newRoom('/api/relay')]
    const [a, b, c, d] = [connect(), connect(), connect(), connect()]
    for (const each of [a, b, c]) each.say(joinFrame(room.id))
    d.say(joinFrame(other.id))
    a.say(passFrame(TO_ALL, new Uint8Array([7])))
    b.say(passFrame(3, new Uint8Array([8])))
    expect(a.heard()).toEqual([{ joined: 1, others: [] }, { came: 2 }, { came: 3 }])
    expect(b.heard()).toEqual([{ joined: 2, others: [1] }, { came: 3 }, { passed: new Uint8Array([7]), from: 1 }])
    expect(c.heard().slice(1)).toEqual([
      { passed: new Uint8Array([7]), from: 1 },
      { passed: new Uint8Array([8]), from: 2 },
    ])
    expect(d.heard()).toEqual([{ joined: 1, others: [] }])
    expect(rooms.count).toEqual({ rooms: 2, members: 4 })
  })

  it('forgets a room with its last member', () => {
    const { rooms, connect } = relay()
    const room = newRoom('/api/relay')
    const [a, b] = [connect(), connect()]
    a.say(joinFrame(room.id))
    b.say(joinFrame(room.id))
    a.hangUp()
    expect(b.heard().at(-1)).toEqual({ left: 1 })
    expect(rooms.count).toEqual({ rooms: 1, members: 1 })
    b.hangUp()
    expect(rooms.count).toEqual({ rooms: 0, members: 0 })
  })

  it('takes no ninth device, no 65th room and nobody twice', () => {
    const { connect } = relay()
    const room = newRoom('/api/relay')
    const all = Array.from({ length: MOST_MEMBERS + 1 }, () => connect())
    for (const each of all) each.say(joinFrame(room.id))
    expect(all.map(({ closed }) => closed)).toEqual([...Array<null>(MOST_MEMBERS).fill(null), CLOSED.roomFull])
    for (let i = 1; i < MOST_ROOMS; i++) connect().say(joinFrame(newRoom('/api/relay').id))
    const last = connect()
    last.say(joinFrame(newRoom('/api/relay').id))
    expect(last.closed).toBe(CLOSED.noRoomLeft)
    all[0]?.say(joinFrame(newRoom('/api/relay').id))
    expect(all[0]?.closed).toBe(CLOSED.notUnderstood)
  })

  it('closes who floods, who is silent, who takes nothing and who passes on without a room, each with its words', () => {
    const { connect, rooms, wait } = relay()
    const [flood, silent, slow, sender, stray] = [connect(), connect(), connect(), connect(), connect()]
    for (let i = 0; i <= MOST_A_SECOND; i++) flood.say(pulseFrame())
    expect(flood.closed).toBe(CLOSED.tooMany)
    expect(flood.got).toHaveLength(MOST_A_SECOND)
    const room = newRoom('/api/relay')
    slow.say(joinFrame(room.id))
    sender.say(joinFrame(room.id))
    slow.waiting = MOST_WAITING + 1
    sender.say(passFrame(TO_ALL, new Uint8Array([1])))
    expect(slow.closed).toBe(CLOSED.tooSlow)
    stray.say(passFrame(TO_ALL, new Uint8Array([1])))
    expect(stray.closed).toBe(CLOSED.notUnderstood)
    wait(SILENT_AFTER + 1)
    sender.say(pulseFrame())
    rooms.sweep()
    expect([silent.closed, sender.closed]).toEqual([CLOSED.silent, null])
    rooms.closeAll()
    expect(sender.closed).toBe(CLOSED.goingAway)
    for (const code of Object.values(CLOSED)) expect(closedBecause(code)).toMatch(/\.$/)
    expect(closedBecause(CLOSED.tooBig)).toBe('A message was larger than 256 kB.')
    expect(MOST_WAITING).toBe(8_388_608)
    expect(closedBecause(1006)).toBeNull()
  })

  it('counts messages over time', () => {
    const rate = new Rate(10, 5000)
    expect(rate.wait(5000)).toBe(0)
    expect(Array.from({ length: 12 }, () => rate.takes(5000)).filter(Boolean)).toHaveLength(10)
    expect([5000, 5050, 5075, 5100, 5101].map((now) => rate.wait(now))).toEqual([100, 50, 25, 0, 0])
    expect(rate.takes(5100)).toBe(true)
    expect(rate.takes(5100)).toBe(false)
    // Never early: a third of a second is 334 ms.
    const slow = new Rate(3, 0)
    for (let i = 0; i < 3; i++) slow.takes(0)
    expect(slow.wait(0)).toBe(334)
    expect(slow.takes(333)).toBe(false)
  })
})

describe('an attacker at the relay', () => {
  it('who sends 10,000 mutated messages changes nothing and stops nothing', async () => {
    const { net, opener, guest } = await openRoom()
    guest.edit((session) => ({ ...session, name: 'One' }))
    opener.edit((session) => ({ ...session, notes: 'Two' }))
    await net.settle()
    const before = opener.session
    const known = [...opener.heard, ...guest.heard]
    const below = numbers(2026)
    const eve = new Guest(opener, 'Eve')
    eve.joined = () => {}
    eve.passed = () => {}
    eve.came = () => {}
    eve.left = () => {}
    eve.connect()
    await net.settle()
    const count = 10_000
    for (let i = 0; i < count; i++) {
      const { bytes } = known[below(known.length)] as { bytes: Uint8Array }
      const message = i % 10 === 0 ? bytes : mutated(bytes, below)
      if (message.length > 0) eve.pass(below(4), message)
      await net.settle()
    }
    expect(opener.session).toBe(before)
    expect(guest.session).toEqual(before)
    expect(opener.refusals).toBeGreaterThan(count / 10)
    expect(opener.members.map(({ name }) => name)).toEqual(['Recorder', 'Phone 1'])
    eve.cut()
    guest.edit((session) => ({ ...session, name: 'Still here' }))
    await net.settle()
    expect(opener.session.name).toBe('Still here')
    expect(guest.session).toEqual(opener.session)
  })

  it('who plays a guest’s whole visit again is not taken for it', async () => {
    const { net, opener, guest } = await openRoom()
    guest.edit((session) => ({ ...session, name: 'By the guest' }))
    await net.settle()
    const visit = opener.heard.map(({ bytes }) => bytes)
    guest.cut()
    opener.edit((session) => ({ ...session, name: 'Later' }))
    await net.settle()
    const eve = new Guest(opener, 'Eve')
    eve.joined = () => {}
    eve.connect()
    await net.settle()
    for (const bytes of visit) eve.pass(TO_ALL, bytes)
    await net.settle()
    expect(opener.session.name).toBe('Later')
    expect(opener.members).toHaveLength(1)
  })

  it('who has the key is validated like a file', async () => {
    const { net, opener, guest } = await openRoom()
    const before = opener.session
    const below = numbers(5)
    const paths = [
      '/strips/0/name',
      '/strips/0/stages/1/settings/gain',
      '/gear/0',
      '/format',
      '/__proto__/x',
      '/system',
    ]
    const values = [null, Infinity, -1, 'x'.repeat(5000), [], { id: 1 }, Number.NaN, '__proto__']
    const tell = (guest.guest as unknown as { tell: (message: unknown) => void }).tell.bind(guest.guest)
    for (let i = 0; i < runs(900); i++) {
      const op = ['add', 'replace', 'remove', 'move', 'test'][below(5)]
      tell({
        type: ['propose', 'preview', 'at', 'log', 'ready', 'nothing'][below(6)],
        id: below(3),
        base: below(3),
        label: 'x',
        met: [],
        changes: [{ op, path: paths[below(paths.length)], value: values[below(values.length)] }],
        at: values[below(values.length)],
        name: values[below(values.length)],
      })
      await net.settle()
      net.now += 1000
    }
    // A gain within its range is a right change; nothing else of it is.
    expect({ ...opener.session, strips: [] }).toEqual({ ...before, strips: [] })
    expect(({} as { x?: unknown }).x).toBeUndefined()
    expect(opener.refusals).toBeGreaterThan(10)
  })

  it('reads frames and refuses others', () => {
    const below = numbers(11)
    for (let i = 0; i < 3000; i++) {
      const bytes = Uint8Array.from({ length: below(30) }, () => below(7))
      const [up, down] = [readToRelay(bytes), readFromRelay(bytes)]
      if (up && 'join' in up) expect(up.join).toHaveLength(16)
      if (down && 'passed' in down) expect(down.from).toBeGreaterThan(0)
    }
    const [room, bytes] = [new Uint8Array(16).fill(9), (...all: number[]) => new Uint8Array(all)]
    expect(readToRelay(joinFrame(room))).toEqual({ join: room })
    expect(readToRelay(bytes(1, 5, 7))).toEqual({ pass: bytes(7), to: 5 })
    expect(readToRelay(bytes(2))).toEqual({ pulse: true })
    for (const wrong of [[], [0, ...room.slice(1)], [1], [1, 5], [2, 0], [3, 5], [3, 5, 7], [9, 5, 7]])
      expect(readToRelay(bytes(...wrong))).toBeNull()
    expect(readFromRelay(bytes(0, 3, 1, 2))).toEqual({ joined: 3, others: [1, 2] })
    expect(readFromRelay(bytes(1, 3, 7))).toEqual({ passed: bytes(7), from: 3 })
    expect(readFromRelay(bytes(2))).toEqual({ pulse: true })
    expect(readFromRelay(bytes(3, 4))).toEqual({ came: 4 })
    expect(readFromRelay(bytes(4, 4))).toEqual({ left: 4 })
    for (const wrong of [[], [1], [0, 0], [1, 0, 7], [1, 3], [2, 1], [3], [3, 4, 5], [4, 4, 4], [9, 1]])
      expect(readFromRelay(bytes(...wrong))).toBeNull()
  })
})
