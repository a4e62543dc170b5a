import type { Meeting } from '../combination/between'

/** What is said before anybody touches anybody. */
export const ASK_FIRST = 'Ask before you touch, and let go whenever one of you wants to.'
/** What is said before anybody leans on somebody. */
export const LEAN_CARE =
  'Lean only warm, and agree on a word to stop first. Who has pain or an injury asks a doctor or physiotherapist.'

/** Whether two touch in a meeting. */
export const isTouching = ({ kind }: Meeting): boolean =>
  kind === 'hold' || kind === 'touch' || kind === 'support' || kind === 'led'
