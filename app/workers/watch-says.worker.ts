import type { Evaluation } from '#core/evaluation/evaluate-session'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import type { HeardChannel } from '#core/measure/heard/listen'
import { listenToChannel } from '#core/measure/heard/listen'
import type { Alike } from '#core/measure/live/live-memory'
import type { LiveSnapshot } from '#core/measure/live/live-meter'
import type { Session } from '#core/session'
import { GainFollowing } from '#core/watch/follows-gain'
import type { WatchReadings } from '#core/watch/inference'
import { inferWatch } from '#core/watch/inference'
import type { Lane } from '#core/watch/lane'
import { lanesOf } from '#core/watch/lane'
import type { Notice } from '#core/watch/notices'
import { noticesOf } from '#core/watch/notices'
import { sounds, stateOf } from '#core/watch/state'

/** What is known of the device’s channels at a moment, and ten seconds of one of them. */
export interface SayTask {
  snapshots: LiveSnapshot[]
  alike: Alike[]
  heard?: { channel: number; samples: Float64Array<ArrayBuffer>; sampleRate: number }
}

/** From the page: the session and where its strips are, whom to answer, and that peaks begin anew. */
export type SaysTask =
  | { session: Session; channels: Record<string, number> }
  | { asks: MessagePort }
  | { passage: 'again' | 'of-a-new-source' }

/** What all inputs say together. */
export interface SaysMessage {
  readings: WatchReadings
  notices: Notice[]
}

/** Nothing is concluded from less than that of a passage, s. */
const FIRST = 1.5

let session: Session | null = null
let evaluation: Evaluation | null = null
let lanes: Lane[] = []
/** Which channel of the device a strip is on, from 0. */
let channelOf: Record<string, number> = {}
let following = new GainFollowing()
let heard = new Map<number, HeardChannel>()

const at = ({ strip, channel }: Lane): number => channelOf[strip] ?? channel

function say({ snapshots, alike }: SayTask) {
  if (!session || !evaluation || (snapshots[0]?.passage.seconds ?? 0) < FIRST) return
  const there = lanes.filter((lane) => snapshots[at(lane)])
  const own = there.map((lane) => snapshots[at(lane)] as LiveSnapshot)
  const readings = inferWatch(session, there, own)
  const isFault = ({ strip }: Lane) => readings.lanes.some((each) => each.strip === strip && each.inferred.fault)
  const laneOf = (channel: number) => there.findIndex((lane) => at(lane) === channel)
  const notices = noticesOf({
    session,
    evaluation,
    lanes: there,
    snapshots: own,
    states: there.map((lane, i) => stateOf(lane, own[i] as LiveSnapshot, isFault(lane))),
    heard: there.map((lane) => heard.get(at(lane)) ?? null),
    alike: alike.flatMap(({ channels: [a, b], likeness }) => {
      const [first, second] = [laneOf(a), laneOf(b)]
      return first < 0 || second < 0 ? [] : [{ channels: [first, second] as [number, number], likeness }]
    }),
    spare: snapshots.flatMap(({ passage }, c) => (laneOf(c) < 0 && sounds({ floor: null }, passage.peak) ? [c] : [])),
  })
  following.next(there, own)
  postMessage({ readings, notices: [...notices, ...following.notices(there)] } satisfies SaysMessage)
}

function answer(asks: MessagePort) {
  asks.onmessage = ({ data }: MessageEvent<SayTask>) => {
    if (data.heard) heard.set(data.heard.channel, listenToChannel(data.heard.samples, data.heard.sampleRate))
    say(data)
    asks.postMessage('said')
  }
}

self.onmessage = ({ data }: MessageEvent<SaysTask>) => {
  if ('asks' in data) answer(data.asks)
  else if ('passage' in data) {
    heard = new Map()
    // Peaks begin anew with each gain that is turned; how loud the inputs were before it is remembered.
    if (data.passage === 'of-a-new-source') following = new GainFollowing()
  } else {
    session = data.session
    channelOf = data.channels
    evaluation = evaluateSession(data.session)
    lanes = lanesOf(data.session, evaluation)
  }
}
