/** The next free name of a family: "Cello" gives "Cello 2", "Cello 2" gives "Cello 3". */
export function nextName(name: string, taken: ReadonlySet<string>): string {
  if (!taken.has(name)) return name
  const stem = name.replace(/ \d+$/, '').slice(0, 190)
  for (let n = 2; ; n++) if (!taken.has(`${stem} ${n}`)) return `${stem} ${n}`
}

/** The next free id of a family: "cello" gives "cello-2". */
export function nextId(wanted: string, taken: ReadonlySet<string>): string {
  if (!taken.has(wanted)) return wanted
  const stem = wanted.replace(/-\d+$/, '').slice(0, 56)
  for (let n = 2; ; n++) if (!taken.has(`${stem}-${n}`)) return `${stem}-${n}`
}
