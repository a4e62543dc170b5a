/**
 * A value as a text that is the same for the same content, whatever order its keys stand in.
 * @param isLeftOut keys that do not count, by the object they stand in
 */
export const stableText = (
  value: unknown,
  isLeftOut: (key: string, of: object) => boolean = () => false,
): string => JSON.stringify(inOrder(value, isLeftOut))

function inOrder(value: unknown, isLeftOut: (key: string, of: object) => boolean): unknown {
  if (Array.isArray(value)) return value.map((one) => inOrder(one, isLeftOut))
  if (typeof value !== 'object' || value === null) return value
  return Object.fromEntries(
    Object.entries(value)
      .filter(([key, one]) => one !== undefined && !isLeftOut(key, value))
      .sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0))
      .map(([key, one]) => [key, inOrder(one, isLeftOut)]),
  )
}
