import { Button, TextInput } from '@mantine/core'
import { IconChevronDown } from '@tabler/icons-react'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Combination } from '../../core/combination/combination'
import { type CueRow, cueSheetCsv, cueSheetVtt } from '../../core/routine/cueSheet'
import type { Laid } from '../../core/routine/laid'
import type { Routine } from '../../core/routine/routine'
import { sumsOf } from '../../core/routine/sums'
import type { Danced } from '../../core/simulate/danced'
import type { Song } from '../../core/song/song'
import { DocumentButtons } from '../parts/DocumentButtons'
import { LaterMenu } from '../parts/LaterMenu'
import { counted } from '../parts/locale'
import map from '../song/song.module.css'
import type { OpenDocument } from '../stores/useDocument'
import classes from './routine.module.css'
import { SumsModal } from './SumsModal'
import type { ChangeRoutine } from './useRoutine'

/** What a routine is called, what it comes to, and its cue sheet. */
export function RoutineTop({
  routine,
  song,
  laid,
  dance,
  combinations,
  rows,
  document,
  change,
  isFilmed,
  onFilmed,
  onKeys,
  onSound,
}: {
  readonly routine: Routine
  readonly song: Song
  readonly laid: Laid
  readonly dance: Danced
  readonly combinations: readonly Combination[]
  readonly rows: readonly CueRow[]
  readonly document: OpenDocument<Routine>
  readonly change: ChangeRoutine
  /** Whether takes of it are looked at. */
  readonly isFilmed: boolean
  readonly onFilmed: () => void
  readonly onKeys: () => void
  /** Writes its sound to a file. */
  readonly onSound: () => void
}) {
  const [isSummed, setIsSummed] = useState(false)
  const { danced, rest, left, sides } = sumsOf(routine, song)
  const save = async (as: 'csv' | 'vtt') => {
    const { download, fileName } = await import('../parts/files')
    const text = as === 'csv' ? cueSheetCsv(rows) : cueSheetVtt(rows, song, laid)
    download(fileName(routine.title, `.${as}`), text, `text/${as}`)
  }
  return (
    <div className={map.top}>
      <h1 className="only-read">{routine.title}</h1>
      <TextInput
        className={map.title}
        aria-label="Name of the routine"
        value={routine.title}
        maxLength={120}
        onChange={({ currentTarget: { value } }) =>
          change('name', (now) => ({ ...now, title: value }), 'name')
        }
      />
      <Link className={classes.song} to={`/song/${song.id}`}>
        on {song.title}
      </Link>
      <button
        type="button"
        className={`counts ${classes.sums}`}
        aria-haspopup="dialog"
        title="Totals by section and combination"
        onClick={() => setIsSummed(true)}
      >
        {counted(danced, 'count')} danced · {rest} at rest · {left} left · R {sides.R}, L {sides.L}
      </button>
      <SumsModal
        routine={routine}
        song={song}
        laid={laid}
        dance={dance}
        combinations={combinations}
        opened={isSummed}
        onClose={() => setIsSummed(false)}
      />
      <span className={map.spring} />
      <Button
        size="xs"
        variant={isFilmed ? 'filled' : 'default'}
        aria-pressed={isFilmed}
        onClick={onFilmed}
      >
        Takes
      </Button>
      <LaterMenu
        button={(onClick) => (
          <Button
            size="xs"
            variant="default"
            rightSection={<IconChevronDown size={14} />}
            aria-haspopup="menu"
            onClick={onClick}
          >
            Cue sheet
          </Button>
        )}
        items={[
          { label: 'Print it', onPick: () => window.print() },
          { label: 'Save as a table (CSV)', onPick: () => void save('csv') },
          { label: 'Save as captions (VTT)', onPick: () => void save('vtt') },
          { label: 'Save its sound (WAV)', onPick: onSound },
        ]}
      />
      <DocumentButtons document={document} onKeys={onKeys} />
    </div>
  )
}
