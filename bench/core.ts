import { Combination } from '../src/core/combination/combination'
import { mirror } from '../src/core/combination/mirror'
import { moveEvents } from '../src/core/edits/edits'
import { checkCombination } from '../src/core/findings/check'
import { matches, summaryOf } from '../src/core/findings/summary'
import { LAYERS } from '../src/core/moves/move'
import { findOffers } from '../src/core/moves/search'
import { vocabulary } from '../src/core/moves/vocabulary'
import { standingAt } from '../src/core/pose/standing'
import { readSheet } from '../src/core/sheet/readSheet'
import { readSwayJson, writeSwayJson } from '../src/core/sheet/swayJson'
import { writeSheet } from '../src/core/sheet/writeSheet'
import { simulate } from '../src/core/simulate/simulate'
import demo from '../src/storage/demo/demo.json'

/** The median cost of one call in microseconds, over batches that run long enough to measure. */
function cost(call: () => unknown): number {
  const batch = (times: number) => {
    const from = performance.now()
    for (let i = 0; i < times; i++) call()
    return ((performance.now() - from) / times) * 1000
  }
  for (let i = 0; i < 200; i++) call()
  const times = Math.max(1, Math.ceil(5000 / batch(20)))
  const rounds = Array.from({ length: 15 }, () => batch(times)).sort((a, b) => a - b)
  return rounds[7] ?? 0
}

const lantern = Combination.array()
  .parse(demo)
  .find(({ id }) => id.includes('lantern'))
if (!lantern) throw new Error('the demo has lost its lantern')

/** The demo's five-layer combination of 32 counts, written again and again as phrases of its own. */
function ofCounts(counts: number): Combination {
  const { phrases, ...rest } = lantern as Combination
  const copies = Array.from({ length: counts / 32 }, (_, i) =>
    phrases.map((phrase) => ({
      ...phrase,
      id: `${phrase.id}${i}`,
      name: `${phrase.name}${i}`,
      events: phrase.events.map((event) => ({ ...event, id: `${event.id}-${i}` })),
    })),
  ).flat()
  const order = copies.map(({ id }) => ({ phrase: id, mirrored: false }))
  return Combination.parse({ ...rest, phrases: copies, order })
}

const rows: [string, string][] = []
const row = (what: string, figure: string) => rows.push([what, figure])
const micro = (value: number) => `${value.toFixed(value < 10 ? 2 : 0)} µs`

const [c32, c64, c256] = [32, 64, 256].map(ofCounts) as [Combination, Combination, Combination]
const events = (c: Combination) => c.phrases.reduce((sum, p) => sum + p.events.length, 0)
const dragged = c64.phrases[3]?.events[0]?.id ?? ''
let by = 0
const recheck = (c: Combination) => {
  by = by === 6 ? -6 : 6
  return checkCombination(moveEvents([dragged], by)(c), vocabulary)
}

const check64 = cost(() => recheck(c64))
const check32 = cost(() => recheck(c32))
const check256 = cost(() => recheck(c256))
row(
  `One edit and its full re-check on both sides, 64 counts, ${events(c64)} events`,
  micro(check64),
)
row(
  '… a count, 32 / 64 / 256 counts',
  [check32 / 32, check64 / 64, check256 / 256].map(micro).join(' / '),
)
row('… 256 counts against 64 (linear is 4.0)', `× ${(check256 / check64).toFixed(1)}`)
row('Simulating 64 counts, one side', micro(cost(() => simulate(c64, vocabulary))))
row('Mirroring 64 counts', micro(cost(() => mirror(c64))))
const danced = simulate(c64, vocabulary)
const layers = new Set(LAYERS)
let at = 0
const standing = () => {
  at = (at + 7.3) % danced.length
  return standingAt(danced, at, layers)
}
row('The standing body at a tick, five layers', micro(cost(standing)))
const wanted = { layer: 'feet' as const, side: 'R' as const, families: ['belly' as const] }
row('Finding moves for “st f”', micro(cost(() => findOffers('st f', wanted, vocabulary))))
const sheet64 = writeSheet(c64, vocabulary)
const sheet256 = writeSheet(c256, vocabulary)
row(
  `Reading a count sheet of 64 / 256 counts (${(sheet256.length / 1000).toFixed(0)} kB)`,
  [sheet64, sheet256].map((sheet) => micro(cost(() => readSheet(sheet, vocabulary)))).join(' / '),
)
row('Writing a count sheet of 256 counts', micro(cost(() => writeSheet(c256, vocabulary))))
const shelf = Array.from({ length: 2000 }, (_, i) => ({
  ...summaryOf(c32, vocabulary),
  words: `copper lantern ${i} belly intermediate`,
}))
row(
  'Searching 2,000 summaries',
  micro(cost(() => shelf.filter((one) => matches(one, { text: 'lantern 19', switches: true })))),
)
const text = writeSwayJson(c64)
row(
  `Reading and checking a file of 64 counts (${(text.length / 1000).toFixed(0)} kB)`,
  micro(cost(() => readSwayJson(text))),
)

const wide = Math.max(...rows.map(([what]) => what.length))
for (const [what, figure] of rows) console.log(`${what.padEnd(wide)}  ${figure}`)
