import { summaryOf } from '../src/core/findings/summary'
import { vocabulary } from '../src/core/moves/vocabulary'
import { createCombinations } from '../src/storage/combinations'
import { Database } from '../src/storage/database'
import { createHouse } from '../src/storage/house'
import { togetherIn } from '../src/storage/keeping'
import { createOwnWords } from '../src/storage/own'
import { createPlanning } from '../src/storage/planning'
import { createSongs } from '../src/storage/songs'
import { createTakes } from '../src/storage/takes'
import { keepingIn, notesOf, slots } from './slots'

/** All that one browser keeps; `full` has no room in local storage any more, and `room` bytes for sound. */
export function placeNamed(name: string, { full = false, now = 1, room = 1_000_000 } = {}) {
  const database = new Database(name)
  const store = slots(full)
  let copies = 0
  return {
    database,
    store,
    combinations: createCombinations(database, {
      now: () => now,
      newId: () => `copy-${++copies}`,
      summarise: (one) => summaryOf(one, vocabulary),
    }),
    own: createOwnWords(database, () => {}),
    house: createHouse(database, () => {}, notesOf(store)),
    together: togetherIn(database),
    planning: createPlanning(
      database,
      store,
      keepingIn(store, () => now),
    ),
    songs: createSongs(
      database,
      keepingIn(store, () => now),
      async () => room,
    ),
    takes: createTakes(
      database,
      keepingIn(store, () => now),
    ),
  }
}
