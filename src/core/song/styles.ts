import type { TempoPrior } from '../beats/pace'

/** Counts a minute at which songs of a rhythm are usually danced (house figures). */
const PACES: Readonly<Record<string, readonly [number, number]>> = {
  maqsum: [80, 130],
  malfuf: [110, 180],
  saidi: [84, 126],
  chiftetelli: [60, 100],
  ayoub: [110, 190],
  nine: [110, 240],
  'dhol-swing': [80, 140],
  'eight-beat': [70, 160],
  bachata: [110, 150],
  merengue: [110, 200],
  salsa: [150, 220],
  'kizomba-slow': [78, 104],
  'island-slow': [60, 104],
  'island-fast': [110, 190],
}

/** In octaves, where the rhythm is known. */
const SPREAD = 0.6

/** How fast songs of a rhythm are likely to be; undefined where it tells nothing. */
export function priorOf(rhythm: string | undefined): TempoPrior | undefined {
  const pace = rhythm === undefined ? undefined : PACES[rhythm]
  return pace && { centre: Math.sqrt(pace[0] * pace[1]), spread: SPREAD }
}
