/** Minutes and seconds as a clock has them: `24:05`. */
export const clockText = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`

/** The same with tenths of a second: `1:04.5`. */
export function clockTenths(seconds: number): string {
  const tenths = Math.round(10 * seconds)
  return `${clockText(Math.floor(tenths / 10))}.${tenths % 10}`
}
