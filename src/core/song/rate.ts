/** Of its own speed a song is played no slower and no faster, and by such steps. */
export const SLOWEST_RATE = 0.4
export const FASTEST_RATE = 1.2
export const RATE_STEP = 0.05

/** A rate as whole hundredths, as it is chosen and said. */
export const hundredths = (rate: number): number => Math.round(100 * rate)

/** A rate as it is said: `80 %`. */
export const percent = (rate: number): string => `${hundredths(rate)} %`
