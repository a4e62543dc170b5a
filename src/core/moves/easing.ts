import type { Move } from './move'
import type { Vocabulary } from './vocabulary'

const STRAINED = ['neck', 'back'] as const
const MUCH = 4
const LITTLE = 2

/** Neck or back, and hard: what a new dancer is not asked for. */
export const asksMuch = ({ risk, demand }: Move): boolean => demand >= MUCH && strains({ risk })

const strains = ({ risk }: Pick<Move, 'risk'>): boolean =>
  STRAINED.some((part) => risk.includes(part))

/** The easier forms of a move, each that of the one before. */
export function easierForms({ id, easier }: Move, vocabulary: Vocabulary): readonly Move[] {
  const forms: Move[] = []
  const seen = new Set([id])
  for (let form = vocabulary.find(easier); form && !seen.has(form.id); ) {
    seen.add(form.id)
    forms.push(form)
    form = vocabulary.find(form.easier)
  }
  return forms
}

/** The first easier form that leaves neck and back alone, or asks little; none where there is none. */
export const safeForm = (move: Move, vocabulary: Vocabulary): Move | undefined =>
  easierForms(move, vocabulary).find((form) => !strains(form) || form.demand <= LITTLE)
