import type { Layer } from '../../core/body/layers'
import type { Combination } from '../../core/combination/combination'
import { placeIn } from '../../core/combination/names'
import { layerWord } from '../../core/moves/vocabulary'
import { type Gap, gapIn } from '../../core/suggest/suggest'
import { labelIn, labelOfSpan, type Span, slotAt } from '../../core/time/time'
import { phraseAt, type SessionState, vocabularyOf } from '../stores/state'

/** Something that may be taken: looked at in the braid and danced beside its words. */
export interface Proposal {
  readonly words: string
  /** Why it is proposed, or how it is built. */
  readonly why?: string
  /** What it would bring that is not good. */
  readonly doubts?: string
  readonly changed: Combination
  /** What undo calls it. */
  readonly does: string
  /** The first and the last pass it is danced in. */
  readonly passes: readonly [number, number]
  /** It may be taken by half, or its feet alone. */
  readonly byHalf?: true
}

/** What came of a question. */
export interface Answer {
  /** Of the list, for who reads it aloud. */
  readonly label: string
  readonly proposals: readonly Proposal[]
  /** What is said where there are none. */
  readonly none: string
  /** They are only the nearest: what is said of there being none stands all the same. */
  readonly isNearest?: true
}

/** Where something is asked for. */
export interface AskedPlace {
  readonly pass: number
  /** `A`. */
  readonly phrase: string
  readonly counts: number
  readonly isEmpty: boolean
  readonly layer: Layer
  /** `hips`. */
  readonly layerSaid: string
  /** Several counts that are selected, and what they are called; absent where all of the phrase is meant. */
  readonly within: (Span & { readonly label: string }) | undefined
  /** The empty counts from the selection on, and what they are called; absent where something is danced. */
  readonly gap: { readonly gap: Gap; readonly label: string } | undefined
}

/** Where the selection stands, for who has ideas about it. */
export function placeAsked(state: SessionState): AskedPlace | undefined {
  const { selection } = state
  const phrase = phraseAt(state, selection.pass)
  if (!phrase) return undefined
  const { pass, layer, at } = selection
  const isOneSlot = selection.length <= slotAt(at)
  const label = (span: Span) => placeIn(phrase.name, labelOfSpan(span, labelIn(phrase)))
  const length = isOneSlot ? Number.POSITIVE_INFINITY : selection.length
  const gap = gapIn(phrase, { ...selection, length }, vocabularyOf(state))
  const span = { at, length: selection.length }
  return {
    pass,
    phrase: phrase.name,
    counts: phrase.counts,
    isEmpty: phrase.events.length === 0,
    layer,
    layerSaid: layerWord[layer].toLowerCase(),
    within: isOneSlot || at < 0 ? undefined : { ...span, label: label(span) },
    gap: gap && { gap: { pass, layer, ...gap }, label: label(gap) },
  }
}
