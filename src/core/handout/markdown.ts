import { LAYERS } from '../body/layers'
import { sideWord } from '../body/side'
import { capital } from '../capital'
import type { Combination } from '../combination/combination'
import { bothOf } from '../combination/dancing'
import { USUAL_HOUSE } from '../house/house'
import { layerWord, type Vocabulary } from '../moves/vocabulary'
import { danceOf } from '../piece/dance'
import type { Simulation } from '../simulate/simulate'
import { pickupTitle, sayPass, sayPickup } from '../teaching/say'
import { factsOf } from '../teaching/sayProps'
import { type CountTogether, type Say, sayWhoever } from '../teaching/sayTogether'

const ALL = new Set(LAYERS)
const saidOf: Say = (simulation, pass) => sayPass(simulation, pass, ALL, simulation.vocabulary)
const pickupOf: Say = (simulation, pass) => sayPickup(simulation, pass, ALL, simulation.vocabulary)

/** Signs that would be read as a form stand for themselves. */
const plain = (text: string): string =>
  text.replace(/\s+/g, ' ').replace(/[\\`*_{}[\]<>#+!|~]/g, '\\$&')

/** A handout as text for a notebook, in Markdown: headings, and a line a count. */
export function handoutMarkdown(combination: Combination, base: Vocabulary): string {
  const dance = danceOf(combination, base, USUAL_HOUSE)
  const sides = bothOf(combination).map((dancing) => {
    const simulation = dance.from(dancing)
    const company = dance.company?.(dancing)
    const told = (pass: Simulation['passes'][number], say: Say) =>
      sayWhoever(company, simulation, pass, say).map(lineOf)
    return [
      `## ${capital(sideWord[dancing.side])} side`,
      ...simulation.passes.map((pass) => {
        const pickup = told(pass, pickupOf)
        const { name, title } = pass.phrase
        const again = pass.times > 1 ? ` (${pass.time} of ${pass.times})` : ''
        return [
          ...(pickup.length > 0
            ? [`### ${plain(pickupTitle(simulation, pass))}`, '', ...pickup, '']
            : []),
          `### ${plain([name, title].filter(Boolean).join(' · '))}${again}`,
          '',
          ...told(pass, saidOf),
        ].join('\n')
      }),
    ].join('\n\n')
  })
  return `# ${plain(combination.title || 'Combination')}\n\n${combination.tempo} counts a minute\n${factsOf(
    combination,
    undefined,
  )
    .map((line) => `\n${plain(line)}\n`)
    .join('')}\n${sides.join('\n\n')}\n`
}

/** A count, with who dances what where they are several. */
const lineOf = ({ count, each, meetings }: CountTogether): string => {
  const said = each.map(({ whose, feet, layers, cues, asides }) =>
    [
      whose && `**${plain(whose)}:**`,
      ...feet.map((text) => `${plain(text)}.`),
      ...layers.map(({ layer, text }) => `*${layerWord[layer]}* ${plain(text)}.`),
      ...cues.map((cue) => `“${plain(cue)}”`),
      ...(asides.length > 0 ? [`(${plain(asides.join('; '))})`] : []),
    ]
      .filter(Boolean)
      .join(' '),
  )
  return `- **${count}** ${[...said, ...meetings.map((line) => `*together* ${plain(line)}.`)].join(' ')}`.trimEnd()
}
