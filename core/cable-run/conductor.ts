import type { Rig } from '../signals/rig'
import { TAIL } from '../signals/rig'
import type { Doubt } from './findings'
import type { Answer, Hand, Move } from './hand'

/** Leads a run: plays and records, says what is done, asks the hand, and remembers what makes the figures doubtful. */
export class Conductor {
  readonly doubts = new Set<Doubt>()
  /** Of signal, that was played or waited for. */
  seconds = 0
  /** Samples were lost for a while, until a hand put that right. */
  hasLostSamples = false
  private doing = ''

  /** @param lasts seconds of signal of the whole run, as far as they are known before */
  constructor(
    readonly rig: Rig,
    private readonly hand: Hand,
    private readonly lasts: number,
  ) {}

  /** @param goesOn the signals are repeated without a gap until the next take */
  take = async (played: readonly (Float64Array | null)[], frames: number, goesOn = false): Promise<Float64Array[]> => {
    const recorded = await this.rig.take(played, frames, goesOn)
    this.seconds += frames / this.rig.sampleRate + TAIL
    this.says(this.doing)
    return recorded
  }

  says(doing: string): void {
    this.doing = doing
    this.hand.progress(doing, Math.min(0.99, this.seconds / this.lasts))
  }

  ends(): void {
    this.hand.progress('Done', 1)
  }

  settled = (): void => this.hand.settled()

  ask = (move: Move): (() => Answer | null) => this.hand.ask(move)

  /** Goes on with something until a move is done or left out. */
  async until(move: Move, meanwhile: () => Promise<unknown> = () => this.pause()): Promise<Answer> {
    const answered = this.ask(move)
    for (;;) {
      const answer = answered()
      if (answer) {
        this.settled()
        return answer
      }
      await meanwhile()
    }
  }

  /** A moment of silence. */
  pause = (): Promise<unknown> => this.take([], Math.round(0.2 * this.rig.sampleRate))

  /** A signal to one output, silence to the others. */
  onOutput = (output: number, signal: Float64Array): (Float64Array | null)[] =>
    Array.from({ length: this.rig.outputs }, (_, i) => (i === output ? signal : null))
}
