import { samplesOf } from '../../audio/held'
import { UserError } from '../../core/errors'
import type { PageSong } from '../../core/practice/pageData'
import type { WholeInSong } from '../../core/routine/asWhole'
import { fingerprintOf } from '../../core/song/fingerprint'
import type { Songs } from '../../storage/songs'
import { decoded, fileOf } from '../songs/useHeldSound'

/**
 * A song as a page knows it: its sound is listened to once, and never goes along.
 * @throws UserError where the sound is not kept here
 */
export async function songForPage(
  { song, side, knots }: WholeInSong,
  store: Songs,
): Promise<PageSong> {
  const { media, title } = song
  const file = await fileOf(store, media.mark)
  if (!file)
    throw new UserError(
      `The sound of ${title} is not kept here.`,
      'Find its file under Songs, or make the page without the song.',
    )
  const sound = await decoded(file, media, new AbortController().signal)
  const [samples = new Float32Array(0)] = samplesOf(sound, 0, sound.length)
  return {
    title,
    seconds: sound.length / sound.rate,
    print: fingerprintOf(samples, sound.rate),
    side,
    knots,
  }
}
