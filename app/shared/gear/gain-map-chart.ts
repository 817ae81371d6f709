import type { ChartConfiguration } from 'chart.js'
import type { GainMap } from '#core/chain/gain-map'
import type { Palette } from '~/shared/charts/palette'
import { axis, plainOptions } from '~/shared/charts/plain-axes'

/** What an input holds over its gain: the band between its maximum level and its noise, with where it is set and the crossover. */
export const gainMapChart =
  (map: GainMap, set: number | null) =>
  (palette: Palette): ChartConfiguration => {
    const along = (value: (point: GainMap['points'][number]) => number | null) =>
      map.points.map((point) => ({ x: point.gain, y: value(point) ?? Number.NaN }))
    const [low, high] = [
      Math.min(...map.points.map(({ noise, maximumInput }) => noise ?? maximumInput)),
      Math.max(...map.points.map(({ maximumInput }) => maximumInput)),
    ]
    const upright = (gain: number, colour: string, dash: number[]) => ({
      data: [
        { x: gain, y: low - 10 },
        { x: gain, y: high + 10 },
      ],
      borderColor: colour,
      borderDash: dash,
      borderWidth: 1.75,
      pointRadius: 0,
    })
    return {
      type: 'line',
      data: {
        datasets: [
          { data: along((each) => each.maximumInput), borderColor: palette.ceiling, borderWidth: 2, pointRadius: 0 },
          {
            data: along((each) => each.noise),
            borderColor: palette.floor,
            borderWidth: 2,
            pointRadius: 0,
            fill: '-1',
            backgroundColor: palette.lip,
          },
          ...(map.crossover === null ? [] : [upright(map.crossover, palette.floor, [4, 4])]),
          ...(set === null ? [] : [upright(set, palette.change, [])]),
        ],
      },
      options: {
        ...plainOptions,
        events: [],
        scales: {
          x: axis(palette, 'Gain, dB', { type: 'linear', min: map.points[0]?.gain, max: map.points.at(-1)?.gain }),
          y: axis(palette, 'At the input, dBu', {
            type: 'linear',
            min: 20 * Math.floor((low - 5) / 20),
            max: 20 * Math.ceil((high + 5) / 20),
          }),
        },
      },
    }
  }
