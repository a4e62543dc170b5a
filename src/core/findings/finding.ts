import type { FootAction } from '../body/feet'
import type { Side, Weight } from '../body/side'
import type { BodyPart, Layer } from '../moves/move'
import type { Tick } from '../time/time'

/** fault: cannot be danced as written. snag: will go wrong in class. care: a caution. note: good to know. */
export type Severity = 'fault' | 'snag' | 'care' | 'note'

/** Where a finding is. */
export interface Spot {
  /** Index of the pass in the order. */
  readonly pass: number
  readonly phrase: string
  /** How many counts the phrase has: a pickup is labelled after its last ones. */
  readonly counts: number
  /** Which time the phrase is danced, from 1; absent when it is danced once. */
  readonly time?: number
  /** From the start of the phrase. */
  readonly at: Tick
  readonly layer: Layer
}

/** What was found, as facts; `findingText` says it in words. */
export type Fact =
  | { readonly code: 'feet.loaded'; readonly action: FootAction; readonly foot: Side }
  | { readonly code: 'feet.loaded-touch'; readonly action: FootAction; readonly foot: Side }
  | { readonly code: 'feet.no-support'; readonly action: FootAction; readonly weight: Weight }
  | {
      readonly code: 'layer.clash'
      readonly first: string
      readonly second: string
      readonly parts: readonly BodyPart[]
      readonly severity: 'fault' | 'snag'
    }
  | {
      readonly code: 'join.foot'
      readonly repeats: boolean
      readonly switches: boolean
      /** Where the weight is at the end. */
      readonly weight: Weight
      readonly lead: Side
    }
  | {
      readonly code: 'move.remainder'
      readonly move: string
      readonly left: Tick
      readonly none: boolean
    }
  | { readonly code: 'move.unknown'; readonly move: string }

export type Finding = Fact & {
  /** `lead` when it stands on the written side (and, mirrored, on the other); `other` when only there. */
  readonly side: 'lead' | 'other'
  readonly spot: Spot
  /** The events it is about, the one to change first. */
  readonly events: readonly string[]
}

export function severityOf(fact: Fact): Severity {
  switch (fact.code) {
    case 'feet.loaded':
    case 'feet.loaded-touch':
    case 'feet.no-support':
      return 'fault'
    case 'layer.clash':
      return fact.severity
    case 'join.foot':
      return fact.repeats || fact.switches ? 'note' : 'snag'
    case 'move.remainder':
    case 'move.unknown':
      return 'note'
  }
}
