/**
 * Names that mean several moves, and the moves in the order they are offered: the plain one first.
 * Whoever writes them knows which is meant; the page does not say.
 */
export const SEVERAL: ReadonlyMap<string, readonly string[]> = new Map(
  Object.entries({
    circle: ['hip-circle-small', 'hip-circle-large', 'rib-circle'],
    'hip circle': ['hip-circle-small', 'hip-circle-large', 'interior-circle'],
    'chest circle': ['rib-circle', 'chest-circle-vertical'],
    shimmy: ['knee-shimmy', 'shoulder-shimmy', 'twist-shimmy', 'three-quarter-shimmy'],
    'hip shimmy': ['knee-shimmy', 'twist-shimmy', 'three-quarter-shimmy'],
    'figure 8': ['eight-outward', 'eight-inward', 'maya', 'taqsim'],
    'figure eight': ['eight-outward', 'eight-inward', 'maya', 'taqsim'],
    'hip figure 8': ['eight-outward', 'eight-inward', 'maya', 'taqsim'],
    '8s': ['eight-outward', 'eight-inward', 'maya', 'taqsim'],
    'vertical figure 8': ['maya', 'taqsim'],
    'horizontal figure 8': ['eight-outward', 'eight-inward'],
    'body roll': ['body-wave-down', 'body-wave-up', 'half-body-roll'],
    'body wave': ['body-wave-down', 'body-wave-up', 'side-wave'],
    wave: ['body-wave-down', 'body-wave-up', 'arm-wave-through'],
    'hip roll': ['hip-roll-forward', 'hip-roll-back', 'quick-hip-roll'],
    'half circle': ['half-circle-back', 'half-circle-front'],
    'half hip circle': ['half-circle-back', 'half-circle-front'],
    'snake arm': ['snake-arms', 'frontal-snake-arms'],
    'shoulder roll': ['shoulder-roll', 'shoulder-roll-alternate'],
  }),
)
