/** Only these spellings swap, so that swapping twice always gives the text back. */
const OTHER: Readonly<Record<string, string>> = {
  right: 'left',
  left: 'right',
  Right: 'Left',
  Left: 'Right',
  RIGHT: 'LEFT',
  LEFT: 'RIGHT',
  R: 'L',
  L: 'R',
}

// Quoted parts and what follows “all” are matched first, so that they are passed over whole.
const PIECE =
  /"[^"]*"|“[^”]*”|\b[Aa][Ll][Ll]\s+\w+|\b(?:right|left|Right|Left|RIGHT|LEFT|[RL](?!&\w)(?<!\w&[RL]))\b/g

const words = (list: string): string => `(?:${list.trim().split(/\s+/).join('|')})`

/** What has a right and a left one. */
const SIDED = words(`
  foot feet hands? arms? hips? legs? knees? heels? toes? soles? shoulders? elbows? wrists? ears? eyes?
  cheeks? temples? palms? fingers? thumbs? fists? ribs? ankles? thighs? calf calves chest glutes? buttocks?
  sides? walls? corners? diagonals? turns? spins? pivots? lead stage`)
/** What can be the right one and has no side. */
const SIDELESS = words(`
  beats? times? moments? ways? place places counts? music notes? one ones spots? order speed tempo
  height size rhythm answer thing things direction`)
const OWNER = words('the your my her his their our')
const TOWARDS = words('to on from over under toward towards at into by with across')
/** What is done to a side: “step right”, and not “what is left”. */
const DONE = `${words(`
  step touch tap turn look walk go goes face move travel slide sway tilt lean shift reach point circle swing
  sweep lift drop bump hit push pull twist roll pivot spin jump hop leap kick brush close cross start begin end
  lead head eyes gaze hips ribs chest arms weight front stage house down up`)}(?:s|es|ing|ed|ped|ping)?`
const JOINT = words('then and or not now with')

const ONE_MORE = /^[\s-]+(?:front|back|lower|upper|inner|outer|free|working|standing)(?=[\s-])/i
const BODY_AFTER = new RegExp(`^[\\s-]+${SIDED}\\b`, 'i')
const SIDELESS_AFTER = new RegExp(`^\\s+${SIDELESS}\\b`, 'i')
const STAGE_BEFORE = /\b(?:stage|house|audience)\s+$/i
const OWN_BEFORE = new RegExp(`\\b(?:${TOWARDS}\\s+${OWNER}|your|my|her|his|their|our)\\s+$`, 'i')
const DONE_BEFORE = new RegExp(`(?:^|[.,;:!?()/–-]|\\b${DONE}|\\b${SIDED}|\\b${JOINT})\\s*$`, 'i')
const ENDS_AFTER =
  /^\s*(?:$|[.,;:!?()/–+-]|\d|(?:then|and|or|with|again|first|twice|once|foot|\S+ foot)\b)/i
const SIDE = '(?:right|left|[RL])'
const SIDE_BEFORE = new RegExp(`\\b${SIDE}[\\s,;/+&-]+(?:(?:and|or|then|to)\\s+)?$`, 'i')
const SIDE_AFTER = new RegExp(`^[\\s,;/+&-]+(?:(?:and|or|then|to)\\s+)?${SIDE}\\b`, 'i')

/** Every test is the same for right and left, so that swapping twice gives the text back. */
function saysSide(before: string, after: string): boolean {
  if (BODY_AFTER.test(after.replace(ONE_MORE, ''))) return true
  if (STAGE_BEFORE.test(before)) return true
  if (SIDE_BEFORE.test(before) || SIDE_AFTER.test(after)) return true
  if (OWN_BEFORE.test(before)) return !SIDELESS_AFTER.test(after)
  return DONE_BEFORE.test(before) && ENDS_AFTER.test(after)
}

/**
 * Swaps right and left in a text where they say a side (model 6, truth F3): with a part of the
 * body, “to the”, a wall or the stage, after what is done to that side, beside one another, and
 * R and L alone. “Right on the beat”, “what is left of the turn”, what stands in quotes and
 * what follows “all” stay. Swapping twice gives the text back.
 */
export const mirrorWords = (text: string): string =>
  text.replace(PIECE, (found, offset: number) => {
    const other = OTHER[found]
    if (other === undefined) return found
    if (found === 'R' || found === 'L') return other
    const after = text.slice(offset + found.length)
    return saysSide(text.slice(0, offset), after) ? other : found
  })
