import type { Combination } from '../core/combination/combination'
import { thingsDanced } from '../core/diary/knows'
import { UserError } from '../core/errors'
import { levelFormOfAll } from '../core/forms/levelOfAll'
import { type House, houseOf } from '../core/house/house'
import { vocabulary as shipped, type Vocabulary, withOwn } from '../core/moves/vocabulary'
import { readPage } from '../core/notebook/page'
import { planAgain } from '../core/plan/edits'
import { materialsOf } from '../core/plan/material'
import { spreadOver } from '../core/plan/spread'
import { repairsFor } from '../core/repair/offers'
import { slipsTogether } from '../core/repair/slips'
import { factsOn, type OwnFindings, ownFindings } from '../core/routine/facts'
import { madeUp } from '../core/routine/madeUp'
import { offersFor } from '../core/routine/offers'
import { proposalsFor } from '../core/routine/propose'
import { withSongs } from '../core/routine/withSong'
import { readCombinationFile, textOfBytes } from '../core/sheet/files'
import { answersTo } from '../core/suggest/answer'
import { fillPhrase } from '../core/suggest/fill'
import { inTheWayOf } from '../core/suggest/inTheWay'
import { layeringsIn } from '../core/suggest/layerings'
import { mixesOf } from '../core/suggest/mix'
import { suggestMoves } from '../core/suggest/suggest'
import { withNewIds } from '../core/suggest/taken'
import { variationsOf } from '../core/suggest/vary'
import { wholePhrases } from '../core/suggest/whole'
import type { JobName, Jobs, Reply, Request, Setting } from './jobs'
import { sameRecords } from './sameRecords'

interface Known {
  readonly key: string
  readonly vocabulary: Vocabulary
  readonly house: House
  readonly ownOf: OwnFindings
}

let known: Known | undefined
const sameRecord = sameRecords()

/** What a setting comes to, read once for as long as it stays the same. */
function knownOf(setting: Setting): Known {
  const key = JSON.stringify(setting)
  if (known?.key !== key) {
    const vocabulary = withOwn(shipped, setting.own, setting.names)
    const house = houseOf(setting.house)
    known = { key, vocabulary, house, ownOf: ownFindings(vocabulary, house) }
  }
  return known
}

const newId = () => crypto.randomUUID()

function run({ job, input, setting }: Request): Jobs[JobName]['out'] {
  const { vocabulary, house, ownOf } = knownOf(setting)
  const isFor = <J extends JobName>(name: J, data: unknown): data is Jobs[J]['in'] =>
    job === name && data !== undefined
  if (isFor('repairs', input))
    return repairsFor(input.combination, input.finding, vocabulary, house, newId)
  if (isFor('slips', input)) return slipsTogether(input.combination, vocabulary, house)
  if (isFor('suggest', input)) return suggestMoves(input.combination, input.gap, vocabulary, house)
  /** A proposal may be taken and asked for once more: what it adds gets ids of its own. */
  const own = <P extends { readonly combination: Combination }>(
    before: Combination,
    proposals: readonly P[],
  ): readonly P[] =>
    proposals.map((one) => ({ ...one, combination: withNewIds(before, one.combination, newId) }))
  const proposed = <W, P extends { readonly combination: Combination }>(
    { combination, wish }: { readonly combination: Combination; readonly wish: W },
    make: (of: Combination, wish: W, base: Vocabulary, by: House) => readonly P[],
  ) => own(combination, make(combination, wish, vocabulary, house))
  if (isFor('fill', input)) return proposed(input, fillPhrase)
  if (isFor('whole', input)) return proposed(input, wholePhrases)
  if (isFor('vary', input)) return proposed(input, variationsOf)
  if (isFor('answer', input)) {
    const { combination, wish } = input
    const { ways, ...others } = answersTo(combination, wish, vocabulary, house)
    return { ...others, ways: own(combination, ways) }
  }
  if (isFor('inTheWay', input)) {
    const { combination, wish } = input
    const { text, nearest } = inTheWayOf(combination, wish, vocabulary, house)
    const [near] = nearest ? own(combination, [nearest]) : []
    return { text, ...(near && { nearest: near }) }
  }
  if (isFor('mix', input)) {
    const { combination, wish, shelf } = input
    return own(combination, mixesOf(combination, wish, shelf, vocabulary, house))
  }
  if (isFor('knows', input)) return thingsDanced(input.classes, input.combinations, vocabulary)
  if (isFor('layerings', input)) return layeringsIn(input.combinations, vocabulary)
  if (isFor('level', input))
    return levelFormOfAll(input.combination, input.level, vocabulary, house)
  if (isFor('plan', input)) {
    const { plan, combinations, laidSongs } = input
    const find = (id: string) => combinations.find((one) => one.id === id)
    const withSong = withSongs(laidSongs, find, vocabulary, house)
    return planAgain(plan, materialsOf(combinations, vocabulary, house, withSong))
  }
  if (isFor('spread', input))
    return spreadOver(input.wishes, materialsOf(input.combinations, vocabulary, house))
  const around = ({ routine, song: sent, combinations }: Jobs['routine']['in']) => {
    const song = sameRecord(sent)
    const all = combinations.map(sameRecord)
    const find = (id: string) => all.find((one) => one.id === id)
    const factsOf = factsOn(song, find, vocabulary, house, ownOf)
    return { routine, song, find, newId, factsOf, vocabulary, house }
  }
  if (isFor('routine', input)) return around(input).factsOf(input.routine)
  if (isFor('offers', input)) return offersFor(input.fact, around(input))
  if (isFor('propose', input))
    return proposalsFor({ ...around(input), combinations: input.combinations })
  if (isFor('madeUp', input)) return madeUp(input, vocabulary, house) ?? null
  if (isFor('page', input)) {
    const { text, wish } = input
    return readPage(text, vocabulary, wish)
  }
  if (isFor('read', input)) {
    const { name, content } = input
    const text =
      typeof content === 'string'
        ? content
        : textOfBytes(name, content, (bytes, encoding) =>
            new TextDecoder(encoding, { fatal: true }).decode(bytes),
          )
    return readCombinationFile(name, text, vocabulary)
  }
  throw new Error(`nobody does ${job}`)
}

self.onmessage = ({ data }: MessageEvent<Request>) => {
  const { id } = data
  const reply = (answer: Reply) => self.postMessage(answer)
  try {
    reply({ id, ok: true, output: run(data) })
  } catch (error) {
    const text = error instanceof Error ? error.message : String(error)
    reply({ id, ok: false, text, ...(error instanceof UserError && { toDo: error.whatToDo }) })
  }
}
