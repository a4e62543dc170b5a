import { FilesButton } from '../parts/FilesButton'
import { inWords, Problem } from '../parts/Problem'
import type { SoundState } from '../songs/useHeldSound'
import classes from './song.module.css'

/** What is said where a song can't be heard, and the way to its file. */
export function SoundMissing({
  state,
  find,
  say,
}: {
  readonly state: SoundState
  readonly find: (file: File) => Promise<string>
  readonly say: (text: string) => void
}) {
  if (state.kind === 'failed') return <Problem what={state.what} toDo={state.toDo} />
  if (state.kind !== 'missing') return null
  return (
    <div className={classes.missing} role="status">
      <p>
        The sound of this song is not kept here. Its counts, sections and clicks work without it.
      </p>
      <FilesButton
        accept="audio/*,video/*"
        label="Find the file"
        size="compact-sm"
        variant="default"
        onFiles={([file]) => {
          if (!file) return
          find(file).then(say, (error) => {
            const { what, toDo } = inWords(error)
            say(`${what} ${toDo}`)
          })
        }}
      >
        Find the file
      </FilesButton>
    </div>
  )
}
