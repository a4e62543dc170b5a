import { Button, FileButton, TextInput } from '@mantine/core'
import { IconFileImport, IconPlus, IconSearch } from '@tabler/icons-react'
import { useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { type Combination, emptyCombination } from '../../core/combination/combination'
import { folded } from '../../core/moves/search'
import { inWords, Problem } from '../app/Problem'
import { useServices } from '../app/services'
import { RibbonInk } from '../braid/Ribbon'
import { CombinationCard } from './CombinationCard'
import classes from './combinations.module.css'
import { openFile, saveAsFile } from './files'
import { useShelf } from './useShelf'

/** All combinations, each with its weight ribbon as its face. */
export function CombinationsScreen() {
  const { combinations, newId } = useServices()
  const navigate = useNavigate()
  const shelf = useShelf()
  const [query, setQuery] = useState('')
  const [problem, setProblem] = useState<{ what: string; toDo: string }>()
  const [deleted, setDeleted] = useState<Combination>()
  const [said, setSaid] = useState('')

  const stored = shelf.data?.stored ?? []
  const found = useMemo(() => {
    const words = folded(query).split(' ').filter(Boolean)
    return stored.filter(({ combination: { title, families } }) => {
      const text = folded(`${title} ${families.join(' ')}`)
      return words.every((word) => text.includes(word))
    })
  }, [stored, query])

  const attempt = async (work: () => Promise<void>) => {
    setProblem(undefined)
    try {
      await work()
    } catch (error) {
      setProblem(inWords(error))
    }
  }
  const addNew = () =>
    attempt(async () => {
      const fresh = emptyCombination(newId(), newId())
      await combinations.add(fresh)
      navigate(`/combination/${fresh.id}`)
    })
  const add = (file: File | null) =>
    file &&
    attempt(async () => {
      const read = await openFile(file)
      // The same file opened twice, or one that is here already, becomes a copy of its own.
      const isKnown = (await combinations.get(read.id).catch(() => true)) !== undefined
      await combinations.add(isKnown ? { ...read, id: newId() } : read)
      setSaid(`“${read.title}” is here now.`)
    })
  const duplicate = (combination: Combination) =>
    attempt(async () => {
      await combinations.add({ ...combination, id: newId(), title: `${combination.title}, copy` })
      setSaid(`“${combination.title}” is here twice now.`)
    })
  const remove = (combination: Combination) =>
    attempt(async () => {
      await combinations.remove(combination.id)
      setDeleted(combination)
      setSaid('')
    })
  const restore = (combination: Combination) =>
    attempt(async () => {
      await combinations.restore(combination.id)
      setDeleted(undefined)
      setSaid(`“${combination.title}” is back.`)
    })

  return (
    <main
      className={classes.screen}
      onKeyDown={(event) => {
        const typing = event.target instanceof HTMLInputElement
        if (!typing && deleted && (event.ctrlKey || event.metaKey) && event.key === 'z')
          void restore(deleted)
      }}
    >
      <div className={classes.top}>
        <h1 className={`display ${classes.heading}`}>Combinations</h1>
        <TextInput
          className={classes.search}
          aria-label="Search combinations"
          placeholder="Search by name or family"
          leftSection={<IconSearch size={16} />}
          value={query}
          onChange={(event) => setQuery(event.currentTarget.value)}
        />
        <FileButton
          accept=".json,.sway.json,application/json"
          onChange={add}
          inputProps={{ 'aria-label': 'Open a combination file' }}
        >
          {(props) => (
            <Button {...props} variant="default" leftSection={<IconFileImport size={18} />}>
              Open a file
            </Button>
          )}
        </FileButton>
        <Button onClick={addNew} leftSection={<IconPlus size={18} />}>
          New combination
        </Button>
      </div>
      {problem && <Problem {...problem} onClose={() => setProblem(undefined)} />}
      <p className={classes.said} aria-live="polite">
        {deleted ? (
          <>
            “{deleted.title}” is deleted.{' '}
            <Button size="compact-sm" variant="default" onClick={() => restore(deleted)}>
              Undo
            </Button>
          </>
        ) : (
          said
        )}
      </p>
      <svg width={0} height={0} aria-hidden className="only-read">
        <RibbonInk top={24} bottom={58} />
      </svg>
      <div className={classes.cards}>
        {found.map(({ combination }) => (
          <CombinationCard
            key={combination.id}
            combination={combination}
            onDuplicate={() => duplicate(combination)}
            onSave={() => saveAsFile(combination)}
            onDelete={() => remove(combination)}
          />
        ))}
      </div>
      {shelf.isSuccess && found.length === 0 && (
        <p className={classes.empty}>
          {stored.length === 0
            ? 'Nothing here yet. Start a new combination, or open a file that was saved before.'
            : `No combination matches “${query}”. Try a part of its name, or a family.`}
        </p>
      )}
      {shelf.data?.damaged.map(({ id, title, error }) => (
        <Problem
          key={id}
          what={`“${title}” is kept, but can't be shown. ${error.message}`}
          toDo={error.whatToDo}
        />
      ))}
      {shelf.data && shelf.data.removed.length > 0 && (
        <details className={classes.removed}>
          <summary>Deleted ({shelf.data.removed.length})</summary>
          <ul>
            {shelf.data.removed.map(({ combination }) => (
              <li key={combination.id}>
                {combination.title}{' '}
                <Button size="compact-sm" variant="default" onClick={() => restore(combination)}>
                  Bring back
                </Button>
              </li>
            ))}
          </ul>
        </details>
      )}
    </main>
  )
}
