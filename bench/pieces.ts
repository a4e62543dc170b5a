import type { Between } from '../src/core/combination/between'
import type { Combination } from '../src/core/combination/combination'
import { bothOf } from '../src/core/combination/dancing'
import { partOf } from '../src/core/combination/partOf'
import { moveEvents } from '../src/core/edits/edits'
import { makeForSeveral } from '../src/core/edits/parts'
import { checkCombination } from '../src/core/findings/check'
import { betweenDancers } from '../src/core/findings/pairs/pairs'
import { USUAL_HOUSE } from '../src/core/house/house'
import { vocabulary } from '../src/core/moves/vocabulary'
import { danceOf } from '../src/core/piece/dance'
import { dancedPiece } from '../src/core/piece/piece'
import { dancersOf } from '../src/core/pose/dancers'
import { newPose } from '../src/core/pose/joints'
import { readSheet } from '../src/core/sheet/readSheet'
import { writeSheet } from '../src/core/sheet/writeSheet'
import { tick } from '../src/core/time/time'
import { row, say } from './measure'

/** A combination for two, who hold hands, change places and look at each other; every fourth phrase has moves of one of them alone. */
export function forTwo(alone: Combination): Combination {
  const piece = makeForSeveral(['Amber', 'Blue'])(alone)
  return {
    ...piece,
    phrases: piece.phrases.map((phrase, i) => ({
      ...phrase,
      events: phrase.events.map((event, k) =>
        i % 4 === 3 ? { ...event, who: [k % 2 === 0 ? '1' : '2'] } : event,
      ),
      between: [
        met(`h${i}`, 0, 48, {
          kind: 'hold',
          from: { part: '1', side: 'R' },
          to: { part: '2', side: 'L' },
          grip: 'fingers',
        }),
        met(`p${i}`, 48, 48, { kind: 'place', of: '1', rel: 'left', to: '2' }),
        met(`l${i}`, 24, 24, { kind: 'look', a: '1', b: '2' }),
      ],
    })),
  }
}

const met = (id: string, at: number, length: number, what: Between['what']): Between => ({
  id,
  at: tick(at),
  length: tick(length),
  what,
})

let by = 0
const edited = (one: Combination, id: string): Combination => {
  by = by === 6 ? -6 : 6
  return moveEvents([id], by)(one)
}

/** What several dancers cost against one, edit by edit in one run. */
export function benchPieces(alone: Combination, checkAlone: number): void {
  const piece = forTwo(alone)
  const shared = piece.phrases[0]?.events[2]?.id ?? ''
  const own = piece.phrases[3]?.events[0]?.id ?? ''
  const recheck = (id: string) => checkCombination(edited(piece, id), vocabulary)
  for (let i = 0; i < 600; i++) recheck(i % 2 === 0 ? shared : own)
  const both = row('Two dancers, 64 counts: an edit of what both dance, re-checked', () =>
    recheck(shared),
  )
  const hers = row('… an edit of what one dances', () => recheck(own))
  say(
    '… against one dancer (2.0 and 1.3 at the most)',
    `× ${(both / checkAlone).toFixed(2)} and × ${(hers / checkAlone).toFixed(2)}`,
  )
  row('… of which what is between them', () => {
    const one = edited(piece, shared)
    return betweenDancers(one, dancedPiece(one, vocabulary, USUAL_HOUSE), false)
  })
  row('What one of two dances, nothing known', () =>
    partOf({ ...piece, phrases: piece.phrases.map((phrase) => ({ ...phrase })) }, '2'),
  )
  row('… known already', () => partOf(piece, '2'))
  const dancers = dancersOf(danceOf(piece, vocabulary, USUAL_HOUSE).from, {}, piece)
  const [dancing] = bothOf(piece)
  const [one, other] = dancing ? dancers.together(dancing) : []
  if (!one || !other) return
  const pose = newPose()
  for (let i = 0; i < 20_000; i++) one.poseAt((i * 7.37) % 384, pose)
  let at = 0
  row('Both poses of two who hold hands', () => {
    at = (at + 7.37) % 48
    one.poseAt(at, pose)
    return other.poseAt(at, pose)
  })
  const sheet = writeSheet(piece, vocabulary)
  row('Reading a count sheet of 64 counts for two', () => readSheet(sheet, vocabulary))
}
