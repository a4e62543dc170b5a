import { Button, Menu } from '@mantine/core'
import { IconMusic } from '@tabler/icons-react'
import type { DrillSong } from '../../core/plan/drill'
import { momentOf } from '../../core/routine/settled'
import type { LaidSongs } from '../../core/routine/withSong'
import type { Song } from '../../core/song/song'

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
            {partsOf(song).map(({ label, from, to }) => (
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
                {label}
              </Menu.Item>
            ))}
          </div>
        ))}
      </Menu.Dropdown>
    </Menu>
  )
}

interface Part {
  readonly label: string
  readonly from: number
  readonly to: number
}

/** All of a song, then each of its sections. */
function partsOf({ sections, counts }: Song): readonly Part[] {
  const end = counts.ms.length
  return [
    { label: 'All of it', from: 0, to: end },
    ...sections.map(({ label, at }, i) => {
      const to = sections[i + 1]?.at ?? end
      return { label: `${label}, ${to - at} counts`, from: at, to }
    }),
  ]
}
