import { useState } from 'react'
import type { KeptFeatures } from '../../core/beats/kept'
import type { Told } from '../../core/beats/listen'
import { ANY_STYLE } from '../../core/beats/pace'
import type { Selection } from '../../core/song/correct'
import { countsTapped } from '../../core/song/even'
import { heardAgain } from '../../core/song/heard'
import { merged, recounted } from '../../core/song/recount'
import { type Song, tempoBetween } from '../../core/song/song'
import { priorOf } from '../../core/song/styles'
import { listenBeside } from '../../workers/listen'
import { inWords } from '../parts/Problem'
import { type Change, selected } from './countChanges'

/** A level that is asked for is looked for this near, in octaves. */
const NEAR = 0.06

/** Counts a song again from what is kept of it: at another tempo, or as it was tapped. */
export function useRecount({
  song,
  selection,
  features,
  change,
  say,
  newId,
}: {
  readonly song: Song
  readonly selection: Selection
  /** Absent where nothing was heard that could be counted. */
  readonly features: KeptFeatures | null | undefined
  readonly change: Change
  readonly say: (text: string) => void
  readonly newId: () => string
}) {
  const [isAsking, setAsking] = useState(false)
  const ask = async (label: string, told: Told, within?: Selection) => {
    if (!features) {
      say('Nothing was heard in it that tells a count. Tap it.')
      return
    }
    setAsking(true)
    try {
      const { heard } = await listenBeside({ features, told }, {})
      const by = told.taps ? 'tapped' : 'found'
      if (typeof heard === 'string') say('No steady beat found. Tap along, eight counts or more.')
      else change(label, (now) => heardAgain(now, heard, by, newId, within))
    } catch (error) {
      const { what, toDo } = inWords(error)
      say(`${what} ${toDo}`)
    } finally {
      setAsking(false)
    }
  }
  const tempo = tempoBetween(song, 0, song.counts.ms.length - 1)
  return {
    isAsking,
    byTaps(taps: readonly number[]) {
      const within = selected(selection)
      if (features) return void ask('tap along', { taps }, within)
      // Nothing tells the counts but the hand.
      change('tap along', (now) =>
        recounted(now, merged(now.counts, countsTapped(taps, now.media.seconds), within)),
      )
    },
    atTempo: (times: number) =>
      void ask(times > 1 ? '3 counts for 2' : '2 counts for 3', {
        prior: { centre: tempo * times, spread: NEAR },
      }),
    anew: () => void ask('count again', { prior: priorOf(song.rhythm) ?? ANY_STYLE }),
  }
}
