import { dequal } from 'dequal'
import { LAYERS } from '../body/layers'
import { sideWord } from '../body/side'
import type { Combination } from '../combination/combination'
import { bothOf } from '../combination/dancing'
import { partOf } from '../combination/partOf'
import type { Pass } from '../combination/passes'
import { ruleWords } from '../combination/rules'
import type { PartId } from '../combination/whose'
import { USUAL_HOUSE } from '../house/house'
import type { Vocabulary } from '../moves/vocabulary'
import { dancedAlone, dancedPiece } from '../piece/piece'
import type { Simulation } from '../simulate/simulate'
import { type CountWords, pickedWords, pickupTitle, sayOptions, sayPass, sayPickup } from './say'
import { eachIn, metOnCounts, type SaidPiece, type Say, sayTogether } from './sayTogether'

const ALL = new Set(LAYERS)

/** What is danced on a count, what is called, and what stands beside it. */
function words({ feet, layers, cues, asides }: CountWords): string {
  const said = [...feet, ...layers.map(({ text }) => text)].join('. ')
  const cue = cues.length > 0 ? `“${cues.join(', ')}”` : ''
  const beside = asides.length > 0 ? `(${asides.join('; ')})` : ''
  return [said && `${said}.`, cue, beside].filter(Boolean).join('  ')
}

/** A line of a page with its number, and what belongs to it below. */
const numbered = (count: number, [first = '', ...more]: readonly string[]): string =>
  [`${String(count).padStart(4)}  ${first}`, ...more.map((line) => `      ${line}`)]
    .map((line) => line.trimEnd())
    .join('\n')

/** What stands on a page of one dancing of a phrase. */
interface PassLines {
  readonly pickup: readonly string[]
  readonly counts: readonly string[]
  readonly options: readonly string[]
}

type Tell = (simulation: Simulation, pass: Pass) => PassLines

const pickupOf = (simulation: Simulation, pass: Pass) =>
  sayPickup(simulation, pass, ALL, simulation.vocabulary)
const countsOf = (simulation: Simulation, pass: Pass) =>
  sayPass(simulation, pass, ALL, simulation.vocabulary)

function optionsOf({ vocabulary }: Simulation, pass: Pass): readonly string[] {
  if (pass.time > 1 || pass.options) return []
  return sayOptions(pass, vocabulary).flatMap(({ title, lines }) => [
    `  ${title}`,
    ...lines.map(({ when, text }) => `${when.padStart(6)}  ${text}.`),
  ])
}

/** @param met what she does with others, by the count from 1 */
const alone =
  (met: (pass: Pass) => ReadonlyMap<number, readonly string[]> = () => new Map()): Tell =>
  (simulation, pass) => {
    const others = met(pass)
    return {
      pickup: pickupOf(simulation, pass).map((one) => numbered(one.count, [words(one)])),
      counts: countsOf(simulation, pass).map((one) =>
        numbered(one.count, [
          words(one),
          ...(others.get(one.count) ?? []).map((line) => `with you: ${line}`),
        ]),
      ),
      options: optionsOf(simulation, pass),
    }
  }

const together =
  (said: SaidPiece): Tell =>
  (_, { index }) => {
    const named = (text: string, whose: string) => (whose ? `${whose}: ${text}` : text)
    const lines = (say: Say) =>
      sayTogether(said, index, say).map(
        ({ count, each }) => [count, each.map((one) => named(words(one), one.whose))] as const,
      )
    const met = metOnCounts(said, index)
    const options = eachIn(said, index, optionsOf)
    const isSame = options.every((one) => dequal(one.said, options[0]?.said))
    return {
      pickup: lines(pickupOf).map(([count, each]) => numbered(count, each)),
      counts: lines(countsOf).map(([count, each]) =>
        numbered(count, [...each, ...(met.get(count) ?? []).map((line) => `together: ${line}`)]),
      ),
      options: isSame
        ? (options[0]?.said ?? [])
        : options.flatMap((one) => (one.said.length > 0 ? [`  ${one.name}`, ...one.said] : [])),
    }
  }

/** What to do on each count in words, both sides: a page to hand out. Of several dancers all of it, what differs by name. */
export function handout(combination: Combination, base: Vocabulary): string {
  const [first] = combination.parts ?? []
  return pageOf(combination, first?.id, combination.title, base, (said) =>
    said ? together(said) : alone(),
  )
}

/** One dancer's page of a combination for several: what she dances, and with whom. */
export function handoutOf(combination: Combination, part: PartId, base: Vocabulary): string {
  const own = combination.parts?.find(({ id }) => id === part)
  const title = [combination.title || 'Combination', own?.name].filter(Boolean).join(': ')
  return pageOf(combination, part, title, base, (said) =>
    alone(said && ((pass) => metOnCounts(said, pass.index, part))),
  )
}

/** @param tell how a side is told; without a piece it is one dancer's */
function pageOf(
  combination: Combination,
  part: PartId | undefined,
  title: string,
  base: Vocabulary,
  tell: (said: SaidPiece | undefined) => Tell,
): string {
  const own = partOf(combination, part ?? '')
  const { from } = dancedAlone(own, { base, house: USUAL_HOUSE })
  const piece = combination.parts && dancedPiece(combination, base, USUAL_HOUSE)
  const sides = bothOf(own).map((dancing) => {
    const simulation = from(dancing)
    const isOther = dancing.side !== own.lead
    const told = tell(piece && { combination, piece: isOther ? piece.other : piece.lead, isOther })
    const passes = simulation.passes.map((pass) => passText(simulation, pass, told))
    return [`${sideWord[dancing.side].toUpperCase()} SIDE`, ...passes].join('\n\n')
  })
  const rules = (own.rules ?? []).map(ruleWords).join(', ')
  return `${title || 'Combination'} · ${own.tempo} counts a minute${rules ? ` · ${rules}` : ''}\n\n${sides.join('\n\n')}\n`
}

/** One dancing of a phrase: its pickup, its name, its counts, its options. */
function passText(simulation: Simulation, pass: Pass, tell: Tell): string {
  const { name, title: own } = pass.phrase
  const again = pass.times > 1 ? ` (${pass.time} of ${pass.times})` : ''
  const picked = pickedWords(pass)
  const { pickup, counts, options } = tell(simulation, pass)
  const led = pickup.length > 0 ? [[pickupTitle(simulation, pass), ...pickup, ''].join('\n')] : []
  return [
    ...led,
    `${name}${own ? ` · ${own}` : ''}${picked ? `, ${picked}` : ''}${again}`,
    ...counts,
    ...options,
  ].join('\n')
}
