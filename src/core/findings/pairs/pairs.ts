import type { Combination } from '../../combination/combination'
import type { DancedPiece, Piece } from '../../piece/piece'
import { remembered } from '../../record/remembered'
import type { Checked, LeftFinding } from '../checked'
import { type Finding, inOrder } from '../finding'
import { keysIn, onceEach, reasonsToLeave } from '../once'
import { isItsOwnMirror } from '../sides'
import { collision, formation, places, tread } from './floor'
import { eyes, handBusy, handLate, reach, turnHeld } from './hands'
import type { FoundBetween, PairRule } from './pairRule'
import { led, support, supportMissing } from './support'
import { joinTogether, rejoin, unison } from './together'

/** What is worth a look between dancers; a new rule is a new function here. */
const PAIR_RULES: readonly PairRule[] = [
  collision,
  tread,
  places,
  formation,
  reach,
  handBusy,
  handLate,
  turnHeld,
  eyes,
  led,
  support,
  supportMissing,
]

/** What is found between the dancers of one side; the same for the same piece. */
const foundIn = remembered((piece: Piece, combination: Combination): readonly FoundBetween[] => [
  ...(onceEach(PAIR_RULES.flatMap((rule) => [...rule(piece)])) as readonly FoundBetween[]),
  ...rejoin(combination, piece),
])

/**
 * What is found between the dancers of a piece on either side, and what of it is left as it is.
 * @param switches whether the other side follows by itself
 */
export function betweenDancers(
  combination: Combination,
  piece: DancedPiece,
  switches: boolean,
): Pick<Checked, 'findings' | 'left'> {
  const onLead = [
    ...foundIn(piece.lead, combination),
    ...unison(combination, piece.lead),
    ...joinTogether(combination, piece.lead, switches ? piece.other : piece.lead),
  ]
  const known = new Set(onLead.flatMap(keysIn))
  const isImage =
    isItsOwnMirror(combination) &&
    combination.phrases.every(({ between = [] }) => between.every(({ kept }) => !kept))
  const onOther = isImage
    ? []
    : foundIn(piece.other, combination).filter((one) => !keysIn(one).every((key) => known.has(key)))
  const all = inOrder([
    ...onLead.map((one): Finding => ({ ...one, side: 'lead' })),
    ...onOther.map((one): Finding => ({ ...one, side: 'other' })),
  ])
  const reasons = all.map(reasonsToLeave(combination))
  return {
    findings: all.filter((_, i) => reasons[i] === undefined),
    left: all.flatMap((finding, i): readonly LeftFinding[] => {
      const because = reasons[i]
      return because === undefined ? [] : [{ ...finding, because }]
    }),
  }
}
