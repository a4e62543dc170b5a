import { z } from 'zod'
import { Direction } from '../body/feet'
import { Layer } from '../body/layers'
import { otherSide, Side, sideWord } from '../body/side'

/** What an instructor holds a combination to, count by count: a way to turn, where a foot steps, a layer that stays. */
export const OwnRule = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('turns'), way: Side }).readonly(),
  z.object({ kind: z.literal('step'), foot: Side, direction: Direction }).readonly(),
  z.object({ kind: z.literal('stays'), layer: Layer }).readonly(),
])
export type OwnRule = z.infer<typeof OwnRule>

export const mirrorRule = (rule: OwnRule): OwnRule => {
  switch (rule.kind) {
    case 'turns':
      return { ...rule, way: otherSide[rule.way] }
    case 'step':
      return { ...rule, foot: otherSide[rule.foot] }
    case 'stays':
      return rule
  }
}

/** As a count sheet has it: `turns left`, `step L forward`, `head stays`. */
export const ruleText = (rule: OwnRule): string => {
  switch (rule.kind) {
    case 'turns':
      return `turns ${sideWord[rule.way]}`
    case 'step':
      return `step ${rule.foot} ${rule.direction}`
    case 'stays':
      return `${rule.layer} stays`
  }
}

/** What a page says of it: `left always forward`. */
export const ruleWords = (rule: OwnRule): string => {
  switch (rule.kind) {
    case 'turns':
      return `all turns to the ${sideWord[rule.way]}`
    case 'step':
      return `${sideWord[rule.foot]} always ${rule.direction.replace('-', ' ')}`
    case 'stays':
      return `the ${rule.layer} ${rule.layer === 'torso' || rule.layer === 'head' ? 'stays' : 'stay'}`
  }
}
