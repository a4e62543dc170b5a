/** Milliseconds since 1970, finer than the calendar's clock. */
export const finely = (): number => performance.timeOrigin + performance.now()
