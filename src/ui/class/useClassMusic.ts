import type { UnderWay } from '../../core/class/underWay'
import type { ClassMaterials } from '../planning/usePlanning'
import { useHeldSound } from '../songs/useHeldSound'
import { useSongs } from '../songs/useSongs'

/**
 * Holds the sound of the song that is danced to next, so that it is there in time.
 * @returns what is to be known where it can't be heard
 */
export function useClassMusic(
  { drills, index }: Pick<UnderWay, 'drills' | 'index'>,
  materials: ClassMaterials,
): string | undefined {
  const { ready } = useSongs()
  const next = drills.slice(index).find(({ song }) => song)
  const mark = next?.song && materials.withSong(next.song)?.mark
  const song = materials.laidSongs.songs.find(({ media }) => media.mark === mark)
  const { state } = useHeldSound(song?.media, ready?.store)
  if (!song || drills[index] !== next) return undefined
  if (state.kind === 'missing')
    return `The sound of ${song.title} is not kept here: clicks only. Find its file under Songs.`
  return state.kind === 'failed' ? `${state.what} ${state.toDo}` : undefined
}
