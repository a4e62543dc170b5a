import fc from 'fast-check'
import { zipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../tests/arbitraries'
import { demo } from '../../tests/demo'
import { casesOf, holds } from '../../tests/holds'
import { placeNamed } from '../../tests/place'
import { Combination } from '../core/combination/combination'
import { UserError } from '../core/errors'
import { checkCombination } from '../core/findings/check'
import { vocabulary } from '../core/moves/vocabulary'
import { type Encoding, readCombinationFile, textOfBytes } from '../core/sheet/files'
import { writeCombinationFile } from '../core/sheet/writeFile'
import { restoreBackup, writeBackup } from './backup'

const SEED = Number(process.env.SEED ?? 2400)
/** What one file may take, on a machine that is busy with other tests, and more for each thing that is danced of it. */
const MOST_MS = 2000
const MS_EACH = 0.2
const MOST_BYTES = 300_000_000

const encoder = new TextEncoder()
const bytesOf = (content: string | Uint8Array): Uint8Array =>
  typeof content === 'string' ? encoder.encode(content) : content
const decode = (bytes: Uint8Array, encoding: Encoding): string =>
  new TextDecoder(encoding, { fatal: true }).decode(bytes)

const sources = [...demo, ...fc.sample(anyCombination(), { numRuns: 12, seed: SEED })]
const files = sources.flatMap((one, i) =>
  (['json', 'sway', 'csv'] as const).map((format) => ({
    [fc.toStringMethod]: () => `file ${i} as ${format}`,
    name: `a.${format === 'json' ? 'sway.json' : format}`,
    bytes: bytesOf(writeCombinationFile(one, format, vocabulary)),
  })),
)

/** What is put in many times, by a name that can be read in a report. */
const BULK: ReadonlyMap<string, string> = new Map([
  ['900 rows', 'A,1,step side\n'.repeat(900)],
  ['4000 brackets', '['.repeat(4000)],
  ['500 phrases', 'phrase P 1\n'.repeat(500)],
])

/** Words that have hurt readers before, and noise. */
const piece = fc.oneof(
  fc.constantFrom(
    '1e999',
    '9007199254740991',
    '-0',
    '__proto__',
    'constructor',
    '"',
    '{',
    '[[[[',
    '\n',
    ';;;;',
    '\u0000',
    '\uFEFF',
    'sep=|\n',
    'every 1e999',
    'facing 9007199254740991',
    'phrase A 16',
    'order A*999',
    ...BULK.keys(),
    'null',
  ),
  fc.string({ maxLength: 12 }),
)
const cut = fc.record({
  /** In thousandths of the file. */
  at: fc.integer({ min: 0, max: 1000 }),
  length: fc.oneof(fc.nat(6), fc.nat(40), fc.nat(4000)),
  piece,
  /** The cut is put in again, so many times. */
  again: fc.constantFrom(0, 0, 0, 1, 3),
})

function mutated(
  bytes: Uint8Array,
  cuts: readonly (typeof cut extends fc.Arbitrary<infer T> ? T : never)[],
): Uint8Array {
  let now = Array.from(bytes)
  for (const { at, length, piece: put, again } of cuts) {
    const from = Math.floor((at / 1000) * now.length)
    const taken = now.slice(from, from + length)
    const middle = [
      ...encoder.encode(BULK.get(put) ?? put),
      ...Array.from({ length: again }, () => taken).flat(),
    ]
    now = [...now.slice(0, from), ...middle, ...now.slice(from + length)]
  }
  return Uint8Array.from(now)
}

/** How many things are danced of a combination, once through. */
const dancedIn = ({ phrases, order }: Combination): number =>
  order.reduce(
    (sum, { phrase }) => sum + (phrases.find(({ id }) => id === phrase)?.events.length ?? 0),
    0,
  )

/**
 * Runs something within its time (of the processor: others may be at work too) and its memory.
 * @param work says how many things were danced in it
 */
async function within(work: () => number | Promise<number>): Promise<void> {
  const [before, from] = [process.memoryUsage().heapUsed, process.cpuUsage()]
  const danced = await work()
  const { user, system } = process.cpuUsage(from)
  expect((user + system) / 1000).toBeLessThan(MOST_MS + MS_EACH * danced)
  expect(process.memoryUsage().heapUsed - before).toBeLessThan(MOST_BYTES)
}

describe('files that are damaged', () => {
  it(`are read or refused with a sentence, in their time, whatever was done to them (seed ${SEED})`, async () => {
    let read = 0
    await holds(
      fc.asyncProperty(
        fc.constantFrom(...files),
        fc.array(cut, { minLength: 1, maxLength: 3 }),
        async ({ name, bytes }, cuts) => {
          const damaged = mutated(bytes, cuts)
          await within(() => {
            try {
              const file = readCombinationFile(name, textOfBytes(name, damaged, decode), vocabulary)
              expect(Combination.safeParse(file.combination).error?.issues).toBeUndefined()
              checkCombination(file.combination, vocabulary)
              read++
              return dancedIn(file.combination)
            } catch (error) {
              if (!(error instanceof UserError)) throw error
              expect(error.whatToDo.length).toBeGreaterThan(20)
              return 0
            }
          })
        },
      ),
      { numRuns: 1800, seed: SEED },
    )
    // Enough of them were only a little damaged.
    expect(read).toBeGreaterThan(casesOf(300))
  }, 300_000)

  it(`as a backup change nothing, or come back as far as they are whole (seed ${SEED})`, async () => {
    let names = 0
    const place = () => placeNamed(`mutated-${names++}`)
    const full = place()
    await full.combinations.addAll(demo)
    const backup = await writeBackup(full)
    const bare = zipSync({ 'manifest.json': encoder.encode('{"kind":"molten-sway-backup"}') })
    await holds(
      fc.asyncProperty(
        fc.constantFrom(backup, bare),
        fc.array(cut, { minLength: 1, maxLength: 2 }),
        async (bytes, cuts) => {
          const there = place()
          await within(async () => {
            const count = () => there.database.combinations.count()
            try {
              const reports = await restoreBackup(mutated(bytes, cuts), there)
              expect(await count()).toBe(
                reports.filter(({ ok, name }) => ok && name.startsWith('combinations/')).length,
              )
            } catch (error) {
              if (!(error instanceof UserError)) throw error
              expect(await count()).toBe(0)
            }
            return 0
          })
          there.database.close()
        },
      ),
      { numRuns: 200, seed: SEED },
    )
  }, 300_000)
})
