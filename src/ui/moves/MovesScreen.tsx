import { ActionIcon, Button, TextInput } from '@mantine/core'
import { IconPencil, IconStar, IconStarFilled, IconTrash } from '@tabler/icons-react'
import { useState } from 'react'
import { useStore } from 'zustand'
import type { Move, OwnMove } from '../../core/moves/move'
import type { OwnEntry } from '../../storage/database'
import { useServices } from '../stores/services'
import { lastPlace, words } from '../stores/words'
import { MoveFacts } from './MoveFacts'
import { MoveFilters } from './MoveFilters'
import { MoveList } from './MoveList'
import classes from './moves.module.css'
import { OwnMoveForm } from './OwnMoveForm'
import { useMoves } from './useMoves'

const EMPTY_OWN: OwnMove = {
  id: 'own-move',
  name: '',
  layer: 'feet',
  kind: 'steps',
  pattern: '1 step R side; 2 touch L together',
  counts: 2,
  sided: 'side',
  claims: ['feet'],
  to: 'on-R',
}

/** The vocabulary: every move with how, watch and care; own names and own moves. */
export function MovesScreen() {
  const { own } = useServices()
  const vocabulary = useStore(words, (w) => w.vocabulary)
  const entries = useStore(words, (w) => w.entries)
  const place = useStore(lastPlace, (p) => p)
  const { moves, favourites, filters } = useMoves(vocabulary, place?.wanted, false)
  const [id, setId] = useState('step-touch')
  const [form, setForm] = useState<{ draft: OwnMove; isKnown: boolean }>()
  const [removed, setRemoved] = useState<OwnMove>()
  const move = vocabulary.find(id) ?? moves[0]
  const entry = entries.find((one) => one.id === move?.id)
  return (
    <main className={classes.screen}>
      <section className={classes.side} aria-label="Vocabulary">
        <div className={classes.top}>
          <h1 className="display">Moves</h1>
          <span className="counts" aria-live="polite">
            {moves.length} of {vocabulary.moves.length}
          </span>
          <Button
            size="compact-sm"
            variant="default"
            onClick={() => setForm({ draft: EMPTY_OWN, isKnown: false })}
          >
            New own step
          </Button>
        </div>
        <MoveFilters {...filters} withLayer suitsWord={place && `Suits ${place.label}`} />
        <MoveList
          moves={moves}
          chosen={move?.id}
          favourites={favourites}
          onChoose={(chosen) => setId(chosen.id)}
        />
        {removed && (
          <p role="status">
            “{removed.name}” is taken out of your moves. Combinations that use it keep it.{' '}
            <Button
              size="compact-sm"
              variant="default"
              onClick={async () => {
                await own.saveMove(removed)
                setRemoved(undefined)
              }}
            >
              Undo
            </Button>
          </p>
        )}
        {moves.length === 0 && (
          <p className={classes.none}>
            No move is like that. Try a part of its name, or fewer filters.
          </p>
        )}
      </section>
      {move && (
        <section className={classes.detail} aria-label={move.name}>
          <Head
            key={move.id}
            move={move}
            entry={entry}
            onFavourite={() => own.setFavourite(move.id, !favourites.has(move.id))}
            onRename={(name) => own.rename(move.id, name)}
            onChange={() => entry?.move && setForm({ draft: entry.move, isKnown: true })}
            onRemove={async () => {
              if (!entry?.move) return
              await own.removeMove(move.id)
              setRemoved(entry.move)
            }}
            isFavourite={favourites.has(move.id)}
          />
          <MoveFacts move={move} vocabulary={vocabulary} onGo={setId} />
        </section>
      )}
      {form && (
        <OwnMoveForm
          draft={form.draft}
          isKnown={form.isKnown}
          vocabulary={vocabulary}
          canReplace={false}
          onClose={() => setForm(undefined)}
          onSave={async (saved) => {
            // What could not be kept stays in the form; what went wrong is told above it.
            await own.saveMove(saved)
            setForm(undefined)
            setId(saved.id)
          }}
        />
      )}
    </main>
  )
}

interface HeadProps {
  readonly move: Move
  readonly entry: OwnEntry | undefined
  readonly isFavourite: boolean
  readonly onFavourite: () => void
  readonly onRename: (name: string | undefined) => void
  readonly onChange: () => void
  readonly onRemove: () => void
}

function Head(props: HeadProps) {
  const { move, entry, isFavourite, onFavourite, onRename, onChange, onRemove } = props
  const [name, setName] = useState(move.name)
  const save = () => {
    const wanted = name.trim()
    if (wanted !== move.name) onRename(wanted || undefined)
  }
  return (
    <header className={classes.head}>
      <ActionIcon
        variant="subtle"
        aria-label={isFavourite ? 'No favourite any more' : 'Make it a favourite'}
        aria-pressed={isFavourite}
        onClick={onFavourite}
      >
        {isFavourite ? <IconStarFilled size={20} /> : <IconStar size={20} />}
      </ActionIcon>
      <TextInput
        aria-label="What the class calls it"
        variant="unstyled"
        classNames={{ root: classes.nameBox ?? '', input: `display ${classes.name}` }}
        value={name}
        onChange={({ currentTarget }) => setName(currentTarget.value)}
        onBlur={save}
        onKeyDown={({ key, currentTarget }) => key === 'Enter' && currentTarget.blur()}
      />
      {entry?.name && (
        <Button size="compact-sm" variant="default" onClick={() => onRename(undefined)}>
          Restore its name
        </Button>
      )}
      {entry?.move && (
        <>
          <ActionIcon variant="default" aria-label="Change this own move" onClick={onChange}>
            <IconPencil size={16} />
          </ActionIcon>
          <ActionIcon variant="default" aria-label="Delete this own move" onClick={onRemove}>
            <IconTrash size={16} />
          </ActionIcon>
        </>
      )}
    </header>
  )
}
