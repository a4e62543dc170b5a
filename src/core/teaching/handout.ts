import { otherSide, sideWord } from '../body/side'
import type { Combination } from '../combination/combination'
import { mirror } from '../combination/mirror'
import { LAYERS } from '../moves/move'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import { simulate } from '../simulate/simulate'
import { sayPass } from './say'

/** What to do on each count in words, both sides: a page to hand out. */
export function handout(combination: Combination, base: Vocabulary): string {
  const vocabulary = vocabularyFor(combination, base)
  const { lead, title, tempo } = combination
  const sides = [lead, otherSide[lead]].map((side) => {
    const simulation = simulate(side === lead ? combination : mirror(combination), vocabulary)
    const passes = simulation.passes.map((pass) => {
      const { name, title: own } = pass.phrase
      const again = pass.times > 1 ? ` (${pass.time} of ${pass.times})` : ''
      const lines = sayPass(simulation, pass, new Set(LAYERS), vocabulary).map(
        ({ count, feet, layers, cues }) => {
          const said = [...feet, ...layers.map(({ text }) => text)].join('. ')
          const cue = cues.length > 0 ? `  “${cues.join(', ')}”` : ''
          return `${String(count).padStart(4)}  ${said}${said ? '.' : ''}${cue}`.trimEnd()
        },
      )
      return [`${name}${own ? ` · ${own}` : ''}${again}`, ...lines].join('\n')
    })
    return [`${sideWord[side].toUpperCase()} SIDE`, ...passes].join('\n\n')
  })
  return `${title || 'Combination'} · ${tempo} counts a minute\n\n${sides.join('\n\n')}\n`
}
