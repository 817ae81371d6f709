import { CLOSED, closedBecause } from '#core/relay/close-codes'
import { joinFrame, passFrame, pulseFrame, readFromRelay } from '#core/relay/frames'
import { MOST_A_SECOND, PULSE, SILENT_AFTER } from '#core/relay/limits'
import { Rate } from '#core/relay/rate'
import type { Room } from '#core/relay/room-link'

/** Messages a second that this device sends at most: pulses and a clock that is a little fast have their room. */
const OWN_RATE = 0.8 * MOST_A_SECOND
/** How long it waits before it connects again: soon at first, ms. */
const AGAIN = [300, 700, 1500, 3000, 5000] as const

/** Reasons for which connecting again at once would change nothing. */
const FINAL: readonly number[] = [CLOSED.notUnderstood, CLOSED.tooBig]

export interface Heard {
  joined: (you: number, others: readonly number[]) => void
  came: (member: number) => void
  left: (member: number) => void
  passed: (from: number, bytes: Uint8Array) => void
  /** The connection is gone; it is tried again unless that is final. */
  lost: (why: string | null) => void
}

/** This device’s connection to a room: kept up, paced as the relay allows, and made again when it is lost. */
export class RelayConnection {
  private socket: WebSocket | null = null
  private queue: Uint8Array<ArrayBuffer>[] = []
  private rate = new Rate(OWN_RATE, performance.now())
  private pump: ReturnType<typeof setTimeout> | undefined
  private pulse: ReturnType<typeof setInterval> | undefined
  private again: ReturnType<typeof setTimeout> | undefined
  private heardAt = 0
  private tries = 0
  private isOver = false

  constructor(
    private readonly room: Room,
    private readonly heard: Heard,
  ) {
    window.addEventListener('online', this.now)
    document.addEventListener('visibilitychange', this.now)
    this.connect()
  }

  /** More waits to be sent than goes at once: what would be late is better left out. */
  get isBusy(): boolean {
    return this.queue.length > 0 || (this.socket?.bufferedAmount ?? 0) > 0
  }

  readonly send = (to: number, bytes: Uint8Array): void => {
    if (this.socket?.readyState !== WebSocket.OPEN) return
    this.queue.push(passFrame(to, bytes))
    if (this.pump === undefined) this.sendNow()
  }

  /** For good. */
  close(): void {
    this.isOver = true
    window.removeEventListener('online', this.now)
    document.removeEventListener('visibilitychange', this.now)
    clearTimeout(this.again)
    // What is still to be said goes first.
    for (const frame of this.queue) if (this.socket?.readyState === WebSocket.OPEN) this.socket.send(frame)
    this.drop()
  }

  private connect(): void {
    clearTimeout(this.again)
    const socket = new WebSocket(
      `${window.location.protocol.replace('http', 'ws')}//${window.location.host}${this.room.relay}`,
    )
    socket.binaryType = 'arraybuffer'
    this.socket = socket
    socket.addEventListener('open', () => {
      this.rate = new Rate(OWN_RATE, performance.now())
      this.heardAt = performance.now()
      socket.send(joinFrame(this.room.id))
      this.pulse = setInterval(() => this.beat(), PULSE)
    })
    socket.addEventListener('message', ({ data }: MessageEvent<ArrayBuffer>) => {
      if (socket === this.socket) this.take(new Uint8Array(data))
    })
    socket.addEventListener('close', ({ code }) => {
      if (socket === this.socket) this.gone(code)
    })
  }

  private take(bytes: Uint8Array): void {
    this.heardAt = performance.now()
    const message = readFromRelay(bytes)
    if (message === null || 'pulse' in message) return
    this.tries = 0
    if ('joined' in message) this.heard.joined(message.joined, message.others)
    else if ('came' in message) this.heard.came(message.came)
    else if ('left' in message) this.heard.left(message.left)
    else this.heard.passed(message.from, message.passed)
  }

  /** A connection that was cut without a word is found by its silence. */
  private beat(): void {
    if (performance.now() - this.heardAt > SILENT_AFTER) this.gone(CLOSED.silent)
    else if (this.socket?.readyState === WebSocket.OPEN) this.socket.send(pulseFrame())
  }

  private gone(code: number): void {
    this.drop()
    if (this.isOver) return
    this.heard.lost(closedBecause(code))
    if (FINAL.includes(code)) return
    this.again = setTimeout(() => this.connect(), AGAIN[Math.min(this.tries++, AGAIN.length - 1)])
  }

  private drop(): void {
    const { socket } = this
    this.socket = null
    this.queue = []
    clearInterval(this.pulse)
    clearTimeout(this.pump)
    this.pump = undefined
    socket?.close()
  }

  /** The network is back, or the page is looked at again: nobody wants to wait then. */
  private readonly now = (): void => {
    if (this.isOver || document.visibilityState === 'hidden') return
    if (this.socket === null) this.connect()
    else this.beat()
  }

  private sendNow(): void {
    const now = performance.now()
    while (this.queue.length > 0 && this.socket?.readyState === WebSocket.OPEN && this.rate.takes(now))
      this.socket.send(this.queue.shift() as Uint8Array<ArrayBuffer>)
    if (this.queue.length === 0) return
    this.pump = setTimeout(() => {
      this.pump = undefined
      this.sendNow()
    }, this.rate.wait(now))
  }
}
