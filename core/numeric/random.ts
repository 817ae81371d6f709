/** Numbers that look random and are the same for a seed (Park and Miller's minimal standard generator). */
export function seeded(seed: number): () => number {
  let state = Math.max(1, Math.floor(Math.abs(seed)) % 2_147_483_647)
  return () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647
}

/** Normally distributed, mean 0, deviation 1 (Box and Muller). */
export function seededNormal(seed: number): () => number {
  const next = seeded(seed)
  return () => Math.sqrt(-2 * Math.log(next())) * Math.cos(2 * Math.PI * next())
}
