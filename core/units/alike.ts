/** Levels and gains that differ by less are the same: far below any step, far above what rounding leaves, dB. */
export const SAME_DB = 1e-6

/** Figures that differ by less are shown alike, in the figure’s own unit: half of the last of two decimals. */
export const SHOWN_ALIKE = 0.005
