/** Milliseconds since 1970, finer than the calendar's clock and the same in every window. */
export const finely = (): number => performance.timeOrigin + performance.now()
