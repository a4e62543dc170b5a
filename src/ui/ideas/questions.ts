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
    none: 'Nothing fits there.',
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
    isNearest: true,
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
    none: 'No phrase comes out clean. Try another number, or ask for less.',
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

/** The phrase otherwise. */
export const varyPhrase: Question = async ({ judge, dance, place, asked, signal }) => {
  const { pass, phrase } = place
  const list = await judge.ask('vary', { combination: dance, wish: { ...asked, pass } }, signal)
  return {
    label: `Variations of ${phrase}`,
    none: 'No variation comes out clean as it stands. Put right what is found in it first.',
    proposals: list.map(proposalOf(dance, pass, `vary ${phrase}`)),
  }
}

/** Phrases that answer it, behind it: what is new in one may be taken by half. */
export const answerPhrase: Question = async ({ judge, dance, place, asked, signal }) => {
  const { pass, phrase } = place
  const input = { combination: dance, wish: { ...asked, pass } }
  const { ways, inTheWay } = await judge.ask('answer', input, signal)
  const why = inTheWay ?? 'Try another number, or answer the last phrase.'
  return {
    label: `Answers to ${phrase}`,
    none: `No answer to ${phrase} comes out clean. ${why}`,
    proposals: ways
      .map(proposalOf(dance, pass, `answer ${phrase}`))
      .map((one) => (one.why ? { ...one, byHalf: true } : one)),
  }
}

/** Phrases of her shelf joined to it, or in its place where it is empty. */
export const mixPhrase: Question = async ({ judge, dance, place, asked, signal, shelf }) => {
  const { pass, phrase } = place
  const input = { combination: dance, wish: { ...asked, pass }, shelf: await shelf() }
  const list = await judge.ask('mix', input, signal)
  return {
    label: `Mixes with ${phrase}`,
    none: 'Nothing on your shelf joins it without a fault: its tempo must be near, and the feet must meet.',
    proposals: list.map(proposalOf(dance, pass, `mix ${phrase}`)),
  }
}
