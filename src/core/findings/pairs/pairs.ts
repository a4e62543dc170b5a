import type { Combination } from '../../combination/combination'
import type { Pass } from '../../combination/passes'
import type { DancedPiece, Piece } from '../../piece/piece'
import { remembered } from '../../record/remembered'
import type { Slice } from '../../simulate/simulate'
import type { Checked, LeftFinding } from '../checked'
import { type Finding, inOrder } from '../finding'
import { keysIn, onceEach, reasonsToLeave } from '../once'
import { isItsOwnMirror } from '../sides'
import { collision, formation, places, tread } from './floor'
import { eyes, handBusy, handLate, reach, turnHeld } from './hands'
import type { FoundBetween, PairRule } from './pairRule'
import { led, support, supportCare, supportMissing } from './support'
import { cut, joinTogether, rejoin, unison } from './together'

/** What is worth a look between dancers; a new rule is a new function here. */
const PAIR_RULES: readonly PairRule[] = [
  collision,
  tread,
  places,
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
  ...(onceEach([
    ...(piece.placed[0]?.simulation.passes ?? []).flatMap((pass) => foundInPass(piece, pass)),
    ...formation(piece),
    ...supportCare(piece),
  ]) as readonly FoundBetween[]),
  ...rejoin(combination, piece),
])

interface Looked {
  readonly piece: Piece
  readonly pass: Pass
  /** All that a dancing hangs on: how each dances it and what is before it, and what they do then. */
  readonly from: readonly unknown[]
}

/** What is found in one dancing of a phrase, worked out again only where something of it changed. */
function foundInPass(piece: Piece, pass: Pass): readonly FoundBetween[] {
  const { index } = pass
  const slice = piece.placed[0]?.simulation.slices[index]
  if (!slice) return []
  const meetings = piece.meetings.filter((one) => one.pass.index === index)
  const from = [
    piece.house,
    ...piece.placed.flatMap(({ part, simulation: { slices } }) => [
      part,
      // Who comes in later dances then what the others danced before.
      ...slices.slice(part.delay ? 0 : Math.max(0, index - 1), index + 1),
    ]),
    ...meetings.map(({ meeting }) => meeting),
  ]
  return ofPass(slice, { piece: { ...piece, meetings }, pass, from })
}

const ofPass = remembered(
  (_: Slice, { piece, pass }: Looked): readonly FoundBetween[] =>
    PAIR_RULES.flatMap((rule) => [...rule(piece, pass)]),
  (a, b) => a.from.length === b.from.length && a.from.every((one, i) => one === b.from[i]),
)

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
    ...cut(combination, piece.lead),
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
