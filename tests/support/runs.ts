const isThorough = process.env.THOROUGH === '1'

/** How often a generated check runs: a third of its seeds in `npm test`, all of them in `npm run thorough`. */
export const runs = (all: number): number => (isThorough ? all : Math.ceil(all / 3))
