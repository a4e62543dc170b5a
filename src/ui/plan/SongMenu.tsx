import { Button, Menu } from '@mantine/core'
import { IconMusic } from '@tabler/icons-react'
import type { DrillSong } from '../../core/plan/drill'
import { momentOf } from '../../core/routine/settled'
import type { LaidSongs } from '../../core/routine/withSong'
import { partsOf, type SongPart } from '../../core/song/parts'
import type { Song } from '../../core/song/song'
import { counted } from '../parts/locale'

interface SongMenuProps extends LaidSongs {
  readonly onPick: (song: Omit<DrillSong, 'rate'>) => void
}

/** What a class may dance to: all of a routine, or a section of its song. */
export function SongMenu({ routines, songs, onPick }: SongMenuProps) {
  const laid = routines.flatMap((routine) => {
    const song = songs.find(({ id }) => id === routine.song)
    return song && routine.pieces.length > 0 ? [{ routine, song }] : []
  })
  return (
    <Menu position="bottom-end">
      <Menu.Target>
        <Button variant="default" size="compact-md" leftSection={<IconMusic size={16} />}>
          Dance to a song
        </Button>
      </Menu.Target>
      <Menu.Dropdown mah={420} style={{ overflowY: 'auto' }}>
        {laid.length === 0 && (
          <Menu.Item disabled>Nothing is laid on a song yet: do that under Songs</Menu.Item>
        )}
        {laid.map(({ routine, song }) => (
          <div key={routine.id}>
            <Menu.Label>{routine.title || song.title}</Menu.Label>
            {[wholeOf(song), ...partsOf(song)].map(({ label, from, to }, i) => (
              <Menu.Item
                key={`${label} ${from}`}
                onClick={() =>
                  onPick({
                    routine: routine.id,
                    from: momentOf(song, from),
                    to: momentOf(song, to),
                  })
                }
              >
                {i === 0 ? label : `${label}, ${counted(to - from, 'count')}`}
              </Menu.Item>
            ))}
          </div>
        ))}
      </Menu.Dropdown>
    </Menu>
  )
}

const wholeOf = ({ counts }: Song): Omit<SongPart, 'section'> => ({
  label: 'All of it',
  from: 0,
  to: counts.ms.length,
})
