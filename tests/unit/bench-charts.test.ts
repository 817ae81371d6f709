import { expect, it } from 'vitest'
import { levelChart } from '~/features/bench/level-chart'
import { spectrumChart } from '~/features/bench/spectrum-chart'

const palette = {
  ink: '#000',
  muted: '#555',
  line: '#ccc',
  sheet: '#fff',
  ceiling: '#900',
  floor: '#456',
  change: '#167',
  body: '#287',
  lip: '#acd',
  onBody: '#fff',
  hatch: '#eee',
  stipple: '#ddd',
}
interface Point {
  x: number
  y: number
}
const points = (config: { data: { datasets: { data: unknown }[] } }, set: number) =>
  config.data.datasets[set]?.data as Point[]

it('the level over time: peak and RMS in dBFS, silence at the bottom, the stretch across', () => {
  const config = levelChart({ seconds: 0.1, low: [-0.5, 0, -1], high: [0.25, 0, 0.5], power: [0.005, 0, 0.5] }, 0.3, {
    from: 0.1,
    to: 0.2,
  })(palette)
  const [rms, peak, stretch] = [0, 1, 2].map((set) => points(config, set)) as [Point[], Point[], Point[]]
  // RMS in AES17 terms: a mean square of ½ is 0 dBFS. The peak is the greater of both extremes.
  expect(rms.map(({ y }) => Math.round(y * 100) / 100)).toEqual([-20, -90, 0])
  expect(peak.map(({ y }) => Math.round(y * 100) / 100)).toEqual([-6.02, -90, 0])
  expect(peak.map(({ x }) => x)).toEqual([0.05, expect.closeTo(0.15, 9), expect.closeTo(0.25, 9)])
  expect(stretch.map(({ x }) => x)).toEqual([0.1, 0.2])
})
it('the spectrum leaves out silent bands, and its scale holds every level', () => {
  const config = spectrumChart({
    step: 1.5,
    seconds: 3,
    level: -20,
    levelA: -22,
    thirds: [
      { frequency: 20, level: null },
      { frequency: 1000, level: -21.5 },
      { frequency: 2000, level: -74 },
    ],
    narrow: [{ frequency: 1000, level: -30 }],
  })(palette)
  expect(points(config, 1)).toEqual([
    { x: 1000, y: -21.5 },
    { x: 2000, y: -74 },
  ])
  const { y } = (config.options as unknown as { scales: { y: { min: number; max: number } } }).scales
  expect(y.max).toBeGreaterThanOrEqual(-20)
  expect(y.min).toBeLessThanOrEqual(-80)
})
