import type { CountsRead } from './counts'
import { meantBy } from './meaning'
import type { MeaningPlace, Meant } from './meant'
import { SIDE, SPLIT, sidesApart } from './wording'

/** `same to L`: what was danced before, on that side. */
const SAME_AGAIN =
  /^(?:the\s+)?(?:same|again|repeat|other)(?:\s+(?:thing|to|on|the|side))*\s+(r|l|right|left)$/i

/** The single things a text says are danced. */
export const thingsIn = (text: string): readonly string[] =>
  text
    .split(SPLIT)
    .map((one) => one.trim())
    .filter(Boolean)

/** What a text says is danced: as one thing where it is one, else part by part; `meant` is undefined where nobody knows. */
export function actionsIn(
  text: string,
  counts: CountsRead | undefined,
  place: MeaningPlace,
): readonly { readonly typed: string; readonly meant: Meant | undefined }[] {
  const whole = meantBy(text, place)
  const parts = thingsIn(text)
  const isEach = parts.every(
    (part) => SIDE.test(part) || SAME_AGAIN.test(part) || meantBy(part, place)?.isUnsure === false,
  )
  const isWhole =
    parts.length < 2 || whole?.isExact === true || (whole?.isUnsure === false && !isEach)
  const texts = isWhole
    ? sidesApart(text, counts)
    : parts.flatMap((part) => (SIDE.test(part) ? [part] : sidesApart(part, undefined)))
  // On one count there is no room for the same again: it means more than this move.
  const hasRoom = counts?.at.length !== 1 || counts.end !== undefined
  let before: string | undefined
  return texts.filter(Boolean).map((typed) => {
    if (isWhole && texts.length === 1) {
      before = typed
      return { typed, meant: whole }
    }
    // `hip drop R, L`: the same again on the other side.
    const same = SAME_AGAIN.exec(typed)?.[1]
    if (same !== undefined && !hasRoom) return { typed, meant: undefined }
    const side = same ?? (SIDE.test(typed) ? typed : undefined)
    const said =
      side !== undefined && before !== undefined
        ? `${before.replace(/\b(?:right|left|r|l)\b/i, '').trim()} ${side}`
        : typed
    const meant = meantBy(said, place)
    if (meant) before = said
    return { typed, meant }
  })
}
