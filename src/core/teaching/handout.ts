import { LAYERS } from '../body/layers'
import { otherSide, sideWord } from '../body/side'
import type { Combination } from '../combination/combination'
import { mirror } from '../combination/mirror'
import { ruleWords } from '../combination/rules'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import { simulate } from '../simulate/simulate'
import { type CountWords, pickedWords, pickupTitle, sayOptions, sayPass, sayPickup } from './say'

/** One count: what is danced, what is called, and what stands beside it. */
function lineOf({ count, feet, layers, cues, asides }: CountWords): string {
  const said = [...feet, ...layers.map(({ text }) => text)].join('. ')
  const cue = cues.length > 0 ? `  “${cues.join(', ')}”` : ''
  const beside = asides.length > 0 ? `  (${asides.join('; ')})` : ''
  return `${String(count).padStart(4)}  ${said}${said ? '.' : ''}${cue}${beside}`.trimEnd()
}

/** What to do on each count in words, both sides: a page to hand out. */
export function handout(combination: Combination, base: Vocabulary): string {
  const vocabulary = vocabularyFor(combination, base)
  const { lead, title, tempo } = combination
  const layers = new Set(LAYERS)
  const sides = [lead, otherSide[lead]].map((side) => {
    const simulation = simulate(side === lead ? combination : mirror(combination), vocabulary)
    const passes = simulation.passes.map((pass) => {
      const { name, title: own } = pass.phrase
      const again = pass.times > 1 ? ` (${pass.time} of ${pass.times})` : ''
      const picked = pickedWords(pass)
      const lines = [
        ...sayPass(simulation, pass, layers, vocabulary).map(lineOf),
        ...(pass.time > 1 || pass.options
          ? []
          : sayOptions(pass, vocabulary).flatMap(({ title: of, lines: own }) => [
              `  ${of}`,
              ...own.map(({ when, text }) => `${when.padStart(6)}  ${text}.`),
            ])),
      ]
      const pickup = sayPickup(simulation, pass, layers, vocabulary).map(lineOf)
      const led =
        pickup.length > 0 ? [[pickupTitle(simulation, pass), ...pickup, ''].join('\n')] : []
      return [
        ...led,
        `${name}${own ? ` · ${own}` : ''}${picked ? `, ${picked}` : ''}${again}`,
        ...lines,
      ].join('\n')
    })
    return [`${sideWord[side].toUpperCase()} SIDE`, ...passes].join('\n\n')
  })
  const rules = (combination.rules ?? []).map(ruleWords).join(', ')
  return `${title || 'Combination'} · ${tempo} counts a minute${rules ? ` · ${rules}` : ''}\n\n${sides.join('\n\n')}\n`
}
