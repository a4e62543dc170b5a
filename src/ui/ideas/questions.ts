import { capital } from '../../core/capital'
import type { Combination } from '../../core/combination/combination'
import type { Asked } from '../../core/suggest/asked'
import { placed } from '../../core/suggest/suggest'
import type { Variation } from '../../core/suggest/vary'
import type { Judge } from '../../workers/judge'
import type { Answer, AskedPlace, Proposal } from './proposal'

/** What a question is asked with. */
interface Asking {
  readonly judge: Judge
  readonly dance: Combination
  readonly place: AskedPlace
  readonly asked: Asked
  readonly signal: AbortSignal
  readonly newId: () => string
  /** Everything on her shelf. */
  readonly shelf: () => Promise<readonly Combination[]>
}

export type Question = (asking: Asking) => Promise<Answer>

/** Moves for the empty counts that are selected. */
export const suggestHere: Question = async ({ judge, dance, place, signal, newId }) => {
  const { gap: here, layerSaid, pass } = place
  if (!here) return { label: '', proposals: [], none: '' }
  const { gap, label } = here
  const list = await judge.ask('suggest', { combination: dance, gap }, signal)
  return {
    label: `Ideas for ${label}, ${layerSaid}`,
    none: list.length > 0 ? '' : 'Nothing fits there.',
    proposals: list.map(({ offer, reasons, doubts }) => ({
      words: offer.name,
      why: reasons.join(' · '),
      ...(doubts.length > 0 && { doubts: doubts.join(' ') }),
      changed: placed(dance, gap, offer, newId()).changed,
      does: `place ${offer.name}`,
      passes: [pass, pass],
    })),
  }
}

/** A layer filled: the counts that are selected, or all of the phrase. */
export const fillLayer: Question = async ({ judge, dance, place, asked, signal }) => {
  const { pass, layer, layerSaid, within } = place
  const label = `${within?.label ?? place.phrase}, ${layerSaid}`
  const wish = {
    ...asked,
    pass,
    layer,
    ...(within && { within: { at: within.at, length: within.length } }),
  }
  const input = { combination: dance, wish }
  const list = await judge.ask('fill', input, signal)
  const does = `fill ${label}`
  if (list.length > 0)
    return {
      label: `Ways to fill ${label}`,
      none: '',
      proposals: list.map(({ names, reason, combination }) => ({
        words: names.join(', '),
        why: reason,
        changed: combination,
        does,
        passes: [pass, pass],
        byHalf: true,
      })),
    }
  const { text, nearest } = await judge.ask('inTheWay', input, signal)
  return {
    label: `Ways to fill ${label}`,
    none: `No clean way to fill it was found. ${text}`,
    proposals: nearest
      ? [
          {
            words: capital(nearest.words),
            why: 'The nearest that can be taken all the same.',
            changed: nearest.combination,
            does,
            passes: [pass, pass],
          },
        ]
      : [],
  }
}

/** A whole phrase where nothing is written yet. */
export const makeUp: Question = async ({ judge, dance, place, asked, signal }) => {
  const { pass, phrase } = place
  const list = await judge.ask('whole', { combination: dance, wish: { ...asked, pass } }, signal)
  return {
    label: `Ways to fill ${phrase}`,
    none: list.length > 0 ? '' : 'No phrase comes out clean. Try another number, or ask for less.',
    proposals: list.map(({ names, reason, combination }) => ({
      words: names.join(', '),
      why: reason,
      changed: combination,
      does: `make up ${phrase}`,
      passes: [pass, pass],
      byHalf: true,
    })),
  }
}

const proposalOf =
  (dance: Combination, pass: number, does: string) =>
  ({ words, why, combination }: Variation): Proposal => ({
    words: capital(words),
    ...(why && { why }),
    changed: combination,
    does: `${does}: ${words}`,
    passes: [pass, pass + combination.order.length - dance.order.length],
  })

/** A question about all of a phrase. @param byHalf what was found may be taken by half */
const ofPhrase =
  (
    job: 'vary' | 'answer',
    words: (phrase: string) => { readonly label: string; readonly none: string },
    byHalf = false,
  ): Question =>
  async ({ judge, dance, place, asked, signal }) => {
    const { pass, phrase } = place
    const list = await judge.ask(job, { combination: dance, wish: { ...asked, pass } }, signal)
    const { label, none } = words(phrase)
    return {
      label,
      none: list.length > 0 ? '' : none,
      proposals: list
        .map(proposalOf(dance, pass, `${job} ${phrase}`))
        .map((one) => (byHalf && one.why ? { ...one, byHalf: true as const } : one)),
    }
  }

/** The phrase otherwise. */
export const varyPhrase = ofPhrase('vary', (phrase) => ({
  label: `Variations of ${phrase}`,
  none: 'No variation comes out clean as it stands. Put right what is found in it first.',
}))

/** Phrases that answer it, behind it. */
export const answerPhrase = ofPhrase(
  'answer',
  (phrase) => ({
    label: `Answers to ${phrase}`,
    none: `No answer comes out clean before what follows ${phrase}. Try another number, or answer the last phrase.`,
  }),
  true,
)

/** Phrases of her shelf joined to it, or in its place where it is empty. */
export const mixPhrase: Question = async ({ judge, dance, place, asked, signal, shelf }) => {
  const { pass, phrase } = place
  const input = { combination: dance, wish: { ...asked, pass }, shelf: await shelf() }
  const list = await judge.ask('mix', input, signal)
  return {
    label: `Mixes with ${phrase}`,
    none:
      list.length > 0
        ? ''
        : 'Nothing on your shelf joins it without a fault: its tempo must be near, and the feet must meet.',
    proposals: list.map(proposalOf(dance, pass, `mix ${phrase}`)),
  }
}
