/** The codes of findings that only hang on the time there is. */
export const TEMPO_CODES: readonly string[] = [
  'feet.too-fast',
  'feet.wide-quick',
  'turn.too-fast',
  'layer.no-time',
  'arms.far',
  'move.too-fast',
]
