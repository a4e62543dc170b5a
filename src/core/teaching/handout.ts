import { LAYERS } from '../body/layers'
import { sideWord } from '../body/side'
import type { Combination } from '../combination/combination'
import { bothOf } from '../combination/dancing'
import { partOf } from '../combination/partOf'
import type { Pass } from '../combination/passes'
import { ruleWords } from '../combination/rules'
import { ONLY_PART, type PartId } from '../combination/whose'
import { USUAL_HOUSE } from '../house/house'
import type { Vocabulary } from '../moves/vocabulary'
import { danceOf } from '../piece/dance'
import type { Company } from '../simulate/company'
import type { Simulation } from '../simulate/simulate'
import { type CountWords, pickedWords, pickupTitle, sayPass, sayPickup } from './say'
import { factsOf } from './sayProps'
import { metOnCounts, type Say, sayOptionsWhoever, sayTogether } from './sayTogether'

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

/** What may be danced otherwise, under the first dancing of its phrase. */
function optionsOf(
  company: Company | undefined,
  simulation: Simulation,
  pass: Pass,
): readonly string[] {
  if (pass.time > 1 || pass.options) return []
  return sayOptionsWhoever(company, simulation, pass).flatMap(({ whose, options }) => [
    ...(whose ? [`  ${whose}`] : []),
    ...options.flatMap(({ title, lines }) => [
      `  ${title}`,
      ...lines.map(({ when, text }) => `${when.padStart(6)}  ${text}.`),
    ]),
  ])
}

/** One dancer's own. @param met what she does with others in a dancing, by the count from 1 */
const alone =
  (met?: (pass: Pass) => ReadonlyMap<number, readonly string[]>): Tell =>
  (simulation, pass) => {
    const others = met?.(pass)
    return {
      pickup: pickupOf(simulation, pass).map((one) => numbered(one.count, [words(one)])),
      counts: countsOf(simulation, pass).map((one) =>
        numbered(one.count, [
          words(one),
          ...(others?.get(one.count) ?? []).map((line) => `with you: ${line}`),
        ]),
      ),
      options: optionsOf(undefined, simulation, pass),
    }
  }

/** Everybody's: what all do once, the rest by name. */
const together =
  (company: Company): Tell =>
  (simulation, pass) => {
    const { index } = pass
    const lines = (say: Say, hasMet: boolean) =>
      sayTogether(company, index, say).map(({ count, each, meetings }) =>
        numbered(count, [
          ...each.map((one) => (one.whose ? `${one.whose}: ${words(one)}` : words(one))),
          ...(hasMet ? meetings.map((line) => `together: ${line}`) : []),
        ]),
      )
    return {
      pickup: lines(pickupOf, false),
      counts: lines(countsOf, true),
      options: optionsOf(company, simulation, pass),
    }
  }

/** What to do on each count in words, both sides: a page to hand out. Of several dancers all of it, what differs by name. */
export const handout = (combination: Combination, base: Vocabulary): string =>
  pageOf(combination, ONLY_PART, combination.title, base, (company) =>
    company ? together(company) : alone(),
  )

/** One dancer's page of a combination for several: what she dances, and with whom. */
export function handoutOf(combination: Combination, part: PartId, base: Vocabulary): string {
  const own = combination.parts?.find(({ id }) => id === part)
  const title = [combination.title || 'Combination', own?.name].filter(Boolean).join(': ')
  return pageOf(combination, part, title, base, (company) =>
    alone(company && ((pass) => metOnCounts(company, pass.index, part))),
  )
}

/** @param tell how a side is told, with all who dance it where they are several */
function pageOf(
  combination: Combination,
  part: PartId,
  title: string,
  base: Vocabulary,
  tell: (company: Company | undefined) => Tell,
): string {
  const dance = danceOf(combination, base, USUAL_HOUSE)
  const sides = bothOf(combination, part).map((dancing) => {
    const simulation = dance.from(dancing)
    const told = tell(dance.company?.(dancing))
    const passes = simulation.passes.map((pass) => passText(simulation, pass, told))
    return [`${sideWord[dancing.side].toUpperCase()} SIDE`, ...passes].join('\n\n')
  })
  const { tempo, rules = [] } = partOf(combination, part)
  const said = rules.map(ruleWords).join(', ')
  const facts = factsOf(combination, part === ONLY_PART ? undefined : part)
  return `${title || 'Combination'} · ${tempo} counts a minute${said ? ` · ${said}` : ''}\n${facts.map((line) => `${line}\n`).join('')}\n${sides.join('\n\n')}\n`
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
