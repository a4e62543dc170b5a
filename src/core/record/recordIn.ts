/**
 * The record a text holds as JSON.
 * @param damaged what is thrown where it holds none, told why
 */
export function recordIn(
  text: string,
  damaged: (cause: unknown) => Error,
): Record<string, unknown> {
  let raw: unknown
  try {
    raw = JSON.parse(text.replace(/^\uFEFF/, ''))
  } catch (cause) {
    throw damaged(cause)
  }
  if (!isRecord(raw)) throw damaged(raw)
  return raw
}

export const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value)
