import type { FootAction } from '../body/feet'
import type { Layer } from '../body/layers'
import type { Side, Weight } from '../body/side'
import type { DancerLevel } from '../combination/combination'
import type { PartId } from '../combination/whose'
import type { BodyPart, Risk } from '../moves/move'
import type { Tick } from '../time/time'
import type { PairFact } from './pairFact'
import type { PropFact } from './propFact'

/** fault: cannot be danced as written. snag: will go wrong in class. care: a caution. note: good to know. */
export type Severity = 'fault' | 'snag' | 'care' | 'note'

/** Where a finding is. */
export interface Spot {
  /** Index of the pass in the order. */
  readonly pass: number
  readonly phrase: string
  /** How many counts the phrase has: a pickup is labelled after its last ones. */
  readonly counts: number
  /** What its first count is called, where that is not 1. */
  readonly from?: number | undefined
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
      /** What the feet do last, where a step or a touch would change it. */
      readonly last?: 'step' | 'touch'
      /** Every phrase is danced as often from one side as from the other. */
      readonly bothSides: boolean
    }
  | {
      readonly code: 'feet.too-fast'
      readonly action: FootAction
      /** The foot that lands again; absent where it is one foot after the other. */
      readonly foot?: Side
      readonly seconds: number
      readonly least: number
      readonly severity: 'fault' | 'snag'
    }
  | {
      readonly code: 'feet.wide-quick'
      readonly action: FootAction
      readonly metres: number
      readonly seconds: number
      readonly most: number
    }
  | {
      readonly code: 'turn.too-fast'
      readonly degrees: number
      /** Degrees a second, where it is the speed and not the size. */
      readonly speed?: number
      readonly most: number
      readonly level: DancerLevel
    }
  | {
      readonly code: 'turn.blocked'
      readonly degrees: number
      readonly foot: Side
      readonly way: 'front' | 'behind'
    }
  | { readonly code: 'turn.planted'; readonly degrees: number; readonly most: number }
  | {
      readonly code: 'turn.low'
      readonly degrees: number
      readonly level: 'low' | 'deep'
    }
  | {
      readonly code: 'turn.many'
      readonly degrees: number
      readonly most: number
      readonly level: DancerLevel
    }
  | { readonly code: 'feet.same-sway'; readonly foot: Side }
  | { readonly code: 'feet.left-out'; readonly foot: Side; readonly metres: number }
  | { readonly code: 'head.quick'; readonly move: string; readonly seconds: number }
  | {
      readonly code: 'head.level'
      readonly move: string
      /** What to dance instead. */
      readonly easier?: string
    }
  | {
      readonly code: 'prop.hand'
      readonly prop: string
      readonly hand: Side
      /** What the hand is sent to. */
      readonly move: string
    }
  /** A place that is too low for a hand as one stands. */
  | { readonly code: 'arms.low'; readonly name: string; readonly place: string }
  /** Degrees by which what is looked at is turned away from. */
  | { readonly code: 'look.behind'; readonly degrees: number; readonly who?: 'partner' }
  | { readonly code: 'load.impact'; readonly times: number; readonly most: number }
  /** Degrees that no step shares. */
  | { readonly code: 'turn.idle'; readonly degrees: number }
  | { readonly code: 'turn.sum'; readonly written: number; readonly facing: number }
  | {
      readonly code: 'join.facing'
      /** Degrees from the start to the end of one round. */
      readonly turned: number
      /** Where it faces at the end, from the stance it starts in. */
      readonly facing: number
      /** Rounds until front is front again. */
      readonly rounds: number
      readonly severity: 'snag' | 'note'
    }
  | {
      readonly code: 'join.place'
      /** Metres from where the round, or both sides, began. */
      readonly right: number
      readonly forward: number
      readonly after: 'round' | 'both'
    }
  | {
      readonly code:
        | 'join.arms'
        | 'join.hips'
        | 'join.ribs'
        | 'join.trunk'
        | 'join.legs'
        | 'join.gaze'
        | 'join.level'
      readonly ends: string
      readonly starts: string
      readonly into: 'repeat' | 'switch' | 'both'
      /** Seconds it takes and seconds there are, where the way can't be made in time. */
      readonly late?: { readonly needs: number; readonly has: number }
    }
  | { readonly code: 'hips.loaded-lift'; readonly move: string; readonly hip: Side }
  | {
      readonly code: 'hips.locked'
      readonly move: string
      readonly where: 'tall' | 'air' | 'toes'
    }
  | {
      readonly code: 'layer.no-time'
      readonly move: string
      /** Where it starts. */
      readonly starts: string
      readonly needs: number
      readonly has: number
    }
  | {
      readonly code: 'arms.far'
      readonly name: string
      readonly metres: number
      readonly seconds: number
      readonly most: number
    }
  | {
      readonly code: 'move.too-fast'
      readonly move: string
      readonly seconds: number
      readonly least: number
      /** What must have that time: the whole, each repeat, or one swing of a texture. */
      readonly each: 'whole' | 'repeat' | 'swing'
    }
  | {
      readonly code: 'move.needs'
      readonly move: string
      readonly need: 'weight-one' | 'weight-both' | 'heel-up' | 'free-leg' | 'flat-feet'
      readonly foot?: Side
    }
  | {
      readonly code: 'head.turning'
      readonly move: string
      /** How many there are in 8 counts; absent where it is one in a turn. */
      readonly times?: number
      readonly most?: number
    }
  | {
      readonly code: 'load.high'
      readonly load: number
      readonly limit: number
      readonly level: DancerLevel
      /** How many counts of the phrase are over the limit. */
      readonly counts: number
      readonly drop?: Layer
      /** The easier form to take instead of what. */
      readonly easier?: { readonly from: string; readonly to: string }
    }
  | {
      readonly code: 'load.risk'
      readonly risk: Risk
      readonly times: number
      readonly cap: number
      readonly over: 'drill' | 'class'
    }
  | {
      readonly code: 'space.room'
      /** Metres one dancer needs. */
      readonly width: number
      readonly depth: number
      readonly dancers: number
      readonly fit: number
      /** How many dance it together; absent for one. */
      readonly group?: number
      /** The step size at which all fit; absent where none does. */
      readonly steps?: number
    }
  | {
      readonly code: 'space.neighbour'
      readonly way: 'sideways' | 'deep'
      readonly reach: number
      readonly half: number
    }
  | {
      readonly code: 'balance.long'
      readonly what: 'air' | 'toes' | 'toes-walking'
      readonly seconds: number
      readonly most: number
      readonly foot?: Side
    }
  /** A layer that is to stay, or a pose, is moved. */
  | { readonly code: 'stay.moved'; readonly stays: Layer | 'pose'; readonly move: string }
  /** Nothing begins on the count that is prepared for. */
  | { readonly code: 'prepare.lost'; readonly text: string }
  /** A leg is turned while it carries, with bent knees over a flat foot; or while one turns over it. */
  | { readonly code: 'legs.twist'; readonly leg: Side; readonly isTurning: boolean }
  | {
      readonly code: 'legs.long'
      readonly level: 'low' | 'deep'
      readonly seconds: number
      readonly most: number
    }
  | {
      readonly code: 'move.remainder'
      readonly move: string
      readonly left: Tick
      readonly none: boolean
      /** How much of it is danced, where what comes next takes the rest. */
      readonly danced?: Tick
    }
  | { readonly code: 'move.unknown'; readonly move: string }
  | {
      readonly code: 'pickup.over'
      /** Counts of the pickup. */
      readonly counts: number
      /** What is written there and not danced, with its count: `4 step R side`. */
      readonly replaced: readonly string[]
      /** The phrase it leads into, where that is not the one a round begins with. */
      readonly of?: string
    }
  /** What breaks a rule the instructor wrote down herself. */
  | { readonly code: 'rule.broken'; readonly rule: string }
  | PairFact
  | PropFact
  /** With an option the phrase ends on another foot than without it. */
  | { readonly code: 'option.ends'; readonly weight: Weight; readonly usual: Weight }

/** A fact and its place on one side. */
export type Found = Fact & {
  readonly spot: Spot
  /** The events it is about, the one to change first. */
  readonly events: readonly string[]
  /** Where the same is so again: it is said once. */
  readonly also?: readonly Again[]
}

/** The same of another event of the phrase, or of the same one another time round. */
interface Again {
  readonly at: Tick
  readonly time?: number
  readonly event: string | undefined
}

export type Finding = Found & {
  /** The parts it is so of; the only one where one dances alone. */
  readonly whose: readonly PartId[]
  /** `lead` when it stands on the written side (and, mirrored, on the other); `other` when only there. */
  readonly side: 'lead' | 'other'
  /** The option of its phrase it is so with; absent for what is danced without any. */
  readonly option?: string
}

export type FindingCode = Fact['code']

const ORDER: Readonly<Record<Severity, number>> = { fault: 0, snag: 1, care: 2, note: 3 }

/** What can't be danced first, each as it is danced. */
export const inOrder = (all: readonly Finding[]): readonly Finding[] =>
  [...all].sort(
    (a, b) =>
      ORDER[severityOf(a)] - ORDER[severityOf(b)] ||
      a.spot.pass - b.spot.pass ||
      a.spot.at - b.spot.at,
  )

export function severityOf(fact: Fact): Severity {
  switch (fact.code) {
    case 'feet.loaded':
    case 'feet.loaded-touch':
    case 'feet.no-support':
    case 'pair.support-hold':
    case 'prop.full':
    case 'prop.empty':
    case 'prop.two-hands':
    case 'prop.drape':
    case 'prop.air':
      return 'fault'
    case 'layer.clash':
    case 'feet.too-fast':
    case 'join.facing':
    case 'pair.collision':
    case 'pair.reach':
    case 'pair.hand-busy':
      return fact.severity
    case 'feet.wide-quick':
    case 'turn.too-fast':
    case 'turn.blocked':
    case 'turn.sum':
    case 'turn.planted':
    case 'prop.hand':
    case 'arms.low':
    case 'look.behind':
    case 'stay.moved':
    case 'rule.broken':
    case 'hips.loaded-lift':
    case 'layer.no-time':
    case 'arms.far':
    case 'move.too-fast':
    case 'space.room':
    case 'space.neighbour':
    case 'pair.tread':
    case 'pair.place':
    case 'pair.facing':
    case 'pair.hand-late':
    case 'pair.turn-held':
    case 'pair.eyes':
    case 'pair.led':
    case 'pair.support-stance':
    case 'pair.support-missing':
    case 'pair.rejoin':
    case 'pair.join':
    case 'prop.no-turn':
    case 'prop.unready':
    case 'prop.late':
    case 'prop.lag':
    case 'prop.hands-apart':
    case 'prop.clap':
    case 'prop.wound':
    case 'prop.underfoot':
    case 'prop.join':
      return 'snag'
    case 'join.arms':
    case 'join.hips':
    case 'join.ribs':
    case 'join.trunk':
    case 'join.legs':
    case 'join.gaze':
    case 'join.level':
      return fact.late ? 'snag' : 'note'
    case 'hips.locked':
      return fact.where === 'toes' ? 'care' : 'snag'
    case 'legs.twist':
    case 'head.turning':
    case 'head.quick':
    case 'head.level':
    case 'turn.low':
    case 'turn.many':
    case 'load.risk':
    case 'pair.support':
      return 'care'
    case 'join.foot':
      return fact.repeats || fact.switches ? 'note' : 'snag'
    case 'turn.idle':
    case 'feet.same-sway':
    case 'feet.left-out':
    case 'load.impact':
    case 'join.place':
    case 'move.needs':
    case 'load.high':
    case 'balance.long':
    case 'legs.long':
    case 'move.remainder':
    case 'move.unknown':
    case 'pickup.over':
    case 'option.ends':
    case 'prepare.lost':
    case 'pair.crossed':
    case 'pair.unison':
    case 'pair.cut':
      return 'note'
  }
}
