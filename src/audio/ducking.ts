/** How much quieter a song is while somebody speaks. */
export const DUCKED = 0.5
/** How quickly it gets so, and how long a word is, in seconds. */
export const DUCK_SECONDS = 0.06
export const WORD_SECONDS = 0.35
/** What of a song begins or ends does so over so many seconds. */
export const FADE_SECONDS = 0.005
