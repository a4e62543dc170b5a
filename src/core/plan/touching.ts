import type { Meeting } from '../combination/between'

/** Whether two touch in a meeting. */
export const isTouching = ({ kind }: Meeting): boolean =>
  kind === 'hold' || kind === 'touch' || kind === 'support' || kind === 'led'

/** What is said before two dance some meetings: to ask before a touch, and what to agree on before a lean. */
export const agreedFirst = (met: readonly Meeting[]): readonly string[] => [
  ...(met.some(isTouching)
    ? ['Ask before you touch, and let go whenever one of you wants to.']
    : []),
  ...(met.some(({ kind }) => kind === 'support')
    ? [
        'Lean only warm, and agree on a word to stop first. Who has pain or an injury asks a doctor or physiotherapist.',
      ]
    : []),
]
