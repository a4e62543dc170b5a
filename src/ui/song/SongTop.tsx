import { Button, NativeSelect, TextInput } from '@mantine/core'
import { RHYTHMS } from '../../core/rhythm/rhythms'
import { sectionsTaken } from '../../core/song/sections'
import type { Song } from '../../core/song/song'
import { writeSongJson } from '../../core/song/songJson'
import { priorOf } from '../../core/song/styles'
import { DocumentButtons } from '../parts/DocumentButtons'
import type { OpenDocument } from '../stores/useDocument'
import type { Change } from './countChanges'
import classes from './song.module.css'

/** Its counts and sections as a file, without its sound. */
async function save(song: Song): Promise<void> {
  const { download, fileName } = await import('../parts/files')
  download(fileName(song.title, '.song.json'), writeSongJson(song), 'application/json')
}

/** What a song is called, its rhythm, and what is done to all of it. */
export function SongTop({
  song,
  document,
  isAsking,
  canCount,
  change,
  onCount,
  onKeys,
}: {
  readonly song: Song
  readonly document: OpenDocument<Song>
  readonly isAsking: boolean
  /** Whether it can be counted again. */
  readonly canCount: boolean
  readonly change: Change
  readonly onCount: () => void
  readonly onKeys: () => void
}) {
  return (
    <div className={classes.top}>
      <h1 className="only-read">{song.title}</h1>
      <TextInput
        className={classes.title}
        aria-label="Name of the song"
        value={song.title}
        maxLength={120}
        onChange={({ currentTarget: { value } }) =>
          value !== '' && change('name', (now) => ({ ...now, title: value }), 'name')
        }
      />
      <TextInput
        className={classes.by}
        aria-label="By whom"
        placeholder="by"
        value={song.by}
        maxLength={120}
        onChange={({ currentTarget: { value } }) =>
          change('by whom', (now) => ({ ...now, by: value }), 'by')
        }
      />
      <NativeSelect
        aria-label="Rhythm"
        value={song.rhythm ?? ''}
        data={[
          { value: '', label: 'any rhythm' },
          ...RHYTHMS.filter(({ id }) => priorOf(id)).map(({ id, name }) => ({
            value: id,
            label: name,
          })),
        ]}
        onChange={({ currentTarget: { value } }) =>
          change('rhythm', ({ rhythm: _, ...now }) => (value ? { ...now, rhythm: value } : now))
        }
      />
      <Button variant="default" loading={isAsking} disabled={!canCount} onClick={onCount}>
        Count again
      </Button>
      {song.sections.some(({ found }) => found) && (
        <Button variant="default" onClick={() => change('take the sections', sectionsTaken)}>
          Use these sections
        </Button>
      )}
      <span className={classes.spring} />
      <Button variant="default" onClick={() => void save(song)}>
        Save counts
      </Button>
      <DocumentButtons document={document} onKeys={onKeys} />
    </div>
  )
}
