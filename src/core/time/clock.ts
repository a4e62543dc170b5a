/** Minutes and seconds as a clock has them: `24:05`. */
export const clockText = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`
