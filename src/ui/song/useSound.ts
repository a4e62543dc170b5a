import { copyFit, SAME_SONG } from '../../core/beats/same'
import { UserError } from '../../core/errors'
import type { Song } from '../../core/song/song'
import type { Songs } from '../../storage/songs'
import { keepSound } from '../songs/reading'
import { decoded, useHeldSound } from '../songs/useHeldSound'
import { useServices } from '../stores/services'

/** Copies of a song differ by less than that in length, in seconds. */
const SAME_SECONDS = 2

const otherVersion = (why = '') =>
  new UserError(
    `This sounds like another version${why}.`,
    'Open it as a song of its own, under Songs.',
  )

/** Holds the sound of an open song, and takes on its file where that is missing. */
export function useSound(song: Song, store: Songs) {
  const { deck } = useServices()
  const { id, media } = song
  const { mark } = media
  const { state, setState } = useHeldSound(media, store)

  /**
   * Takes on the file of the song, or another copy of it: then its counts are moved.
   * @returns what is said of it
   * @throws UserError where it is another song
   */
  const find = async (file: File): Promise<string> => {
    const { factsOf, markOf } = await import('../../audio/decode')
    const [found, facts] = await Promise.all([markOf(file), factsOf(file)])
    const isSame = found === mark
    if (!isSame && Math.abs(facts.seconds - media.seconds) > SAME_SECONDS)
      throw otherVersion(': it is not as long')
    const sound = await decoded(file, media, new AbortController().signal)
    if (isSame) {
      await deck.hold(mark, sound)
      await keepSound(store, song, file)
      setState({ kind: 'here' })
      return ''
    }
    const [{ mixedOf }, { listenBeside }] = await Promise.all([
      import('../../audio/held'),
      import('../../workers/listen'),
    ])
    const samples = mixedOf(sound)
    const { features } = await listenBeside({ samples, rate: sound.rate, told: {} }, {})
    const known = await store.heard.read(mark)
    const fit = features && known && copyFit(known, features)
    if (!fit || fit.alike < SAME_SONG) throw otherVersion()
    await deck.hold(found, sound)
    await store.heard.write(found, features)
    const copy = {
      ...media,
      name: file.name,
      type: file.type,
      bytes: file.size,
      seconds: sound.length / sound.rate,
      mark: found,
      shift: media.shift + Math.round(1000 * fit.later),
    }
    await store.songs.change(id, (now) => ({ ...now, media: copy }))
    await keepSound(store, { ...song, media: copy }, file)
    const later = Math.abs(fit.later).toFixed(2)
    return `This is another copy. It begins ${later} s ${fit.later < 0 ? 'earlier' : 'later'}; the counts are moved.`
  }
  return { state, find }
}
