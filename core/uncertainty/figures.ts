/** What stands at each place of a point in a strip’s list of numbers. */
export const FIGURES = ['average', 'peak', 'surgePeak', 'headroom', 'surgeHeadroom', 'noise', 'snr'] as const
export type PointFigure = (typeof FIGURES)[number]
export const SUM_FIGURES = ['average', 'likely', 'bound'] as const

/** Where a point’s figure stands in a strip’s numbers. */
export const placeOf = (point: number, figure: PointFigure): number => point * FIGURES.length + FIGURES.indexOf(figure)
