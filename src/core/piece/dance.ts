import type { Combination } from '../combination/combination'
import { dancersOn } from '../combination/dancers'
import { isLead } from '../combination/dancing'
import { partIds } from '../combination/partOf'
import type { House } from '../house/house'
import type { Vocabulary } from '../moves/vocabulary'
import type { Company } from '../simulate/company'
import type { Danced } from '../simulate/danced'
import { type DancedPiece, dancedAlone, dancedPiece } from './piece'

/**
 * A combination danced, whoever it is for: of several dancers what the first part dances, the others
 * from their own dancings, with their steps drawn by their places.
 */
export function danceOf(combination: Combination, base: Vocabulary, house: House): Danced {
  if (!combination.parts) return dancedAlone(combination, { base, house })
  const piece = dancedPiece(combination, base, house)
  const [first = ''] = partIds(combination)
  const own = piece.of(first)
  // Written out: a spread would dance the other side at once.
  return {
    written: own.written,
    vocabulary: own.vocabulary,
    house,
    lead: own.lead,
    get other() {
      return own.other
    },
    from: (dancing) => piece.of(dancing.part).from(dancing),
    company: (dancing) => companyOf(combination, piece, !isLead(combination, dancing)),
  }
}

function companyOf(combination: Combination, piece: DancedPiece, isOther: boolean): Company {
  const { placed, meetings } = isOther ? piece.other : piece.lead
  const names = new Map(dancersOn(combination, isOther).map(({ id, name }) => [id, name]))
  return {
    dancers: placed.map(({ part, simulation }) => ({
      part: part.id,
      name: names.get(part.id) ?? part.name,
      simulation,
    })),
    meetings,
  }
}
