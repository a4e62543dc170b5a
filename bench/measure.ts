import { existsSync, readFileSync, writeFileSync } from 'node:fs'

/** The last figures, as multiples of the reference loop: machines differ by five, and by the hour. */
const KEPT = 'bench/last.json'
/** So much slower than last time is said. */
const SLOWER = 1.2

export const microseconds = (value: number): string => `${value.toFixed(value < 10 ? 2 : 0)} µs`

/** The median cost of one call in microseconds, over batches that run long enough to measure. */
function cost(call: () => unknown): number {
  const batch = (times: number) => {
    const from = performance.now()
    for (let i = 0; i < times; i++) call()
    return ((performance.now() - from) / times) * 1000
  }
  const begun = performance.now()
  // Warm, but what takes long is not waited for two hundred times.
  for (let i = 0; i < 200 && performance.now() - begun < 3000; i++) call()
  const times = Math.max(1, Math.ceil(5000 / batch(performance.now() - begun < 3000 ? 20 : 3)))
  const rounds = Array.from({ length: 15 }, () => batch(times)).sort((a, b) => a - b)
  return rounds[7] ?? 0
}

/** Work that never changes: objects made, sorted, mapped and looked up, as the core does it. */
function reference(): number {
  const list = Array.from({ length: 2000 }, (_, i) => ({
    at: (i * 7919) % 2003,
    text: `${i % 97}`,
  }))
  const byText = new Map<string, number>()
  for (const { at, text } of [...list].sort((a, b) => a.at - b.at))
    byText.set(text, (byText.get(text) ?? 0) + at)
  return [...byText.values()].reduce((sum, one) => sum + one, 0)
}

interface Row {
  readonly what: string
  readonly figure: string
  /** Of the reference loop; absent for what is only told. */
  readonly multiple?: number
}

const rows: Row[] = []

/** Says something that is not measured by itself. */
export const say = (what: string, figure: string): void => {
  rows.push({ what, figure })
}

/** Measures one call between two runs of the reference loop; returns its microseconds. */
export function row(what: string, call: () => unknown): number {
  const before = cost(reference)
  const taken = cost(call)
  const by = (before + cost(reference)) / 2
  rows.push({ what, figure: microseconds(taken), multiple: taken / by })
  return taken
}

/** Prints everything, and what got slower; keeps the multiples for next time where `KEEP` is set. */
export function finish(): void {
  const kept: Record<string, number> = existsSync(KEPT)
    ? JSON.parse(readFileSync(KEPT, 'utf8'))
    : {}
  const wide = Math.max(...rows.map(({ what }) => what.length))
  console.log(`The reference loop now: ${microseconds(cost(reference))}`)
  const slower: string[] = []
  for (const { what, figure, multiple } of rows) {
    const last = kept[what]
    const times = multiple === undefined ? '' : `× ${multiple.toPrecision(3)} of the loop`
    const against =
      multiple === undefined || last === undefined
        ? ''
        : `${(multiple / last).toFixed(2)} of last time`
    console.log(`${what.padEnd(wide)}  ${figure.padStart(12)}  ${times.padEnd(26)}${against}`)
    if (multiple !== undefined && last !== undefined && multiple > last * SLOWER)
      slower.push(`${what}: ${(multiple / last).toFixed(2)} times as long as last time`)
  }
  for (const one of slower) console.log(`SLOWER  ${one}`)
  if (!process.env.KEEP && existsSync(KEPT)) return
  const now = Object.fromEntries(
    rows.flatMap(({ what, multiple }) =>
      multiple === undefined ? [] : [[what, Number(multiple.toPrecision(4))]],
    ),
  )
  writeFileSync(KEPT, `${JSON.stringify(now, undefined, 2)}\n`)
}
