import { Button, CloseButton } from '@mantine/core'
import {
  IconArchive,
  IconChevronDown,
  IconFileImport,
  IconNotebook,
  IconPlus,
} from '@tabler/icons-react'
import { type ClipboardEvent, useCallback, useMemo, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { useStore } from 'zustand'
import { emptyCombination } from '../../core/combination/combination'
import { UserError } from '../../core/errors'
import type { Format } from '../../core/sheet/formats'
import type { OnShelf } from '../../storage/combinations'
import { RibbonInk } from '../braid/Ribbon'
import { FilesButton } from '../parts/FilesButton'
import { KeysHelp } from '../parts/KeysHelp'
import { LaterMenu } from '../parts/LaterMenu'
import { openHere, tellOpened } from '../parts/opening'
import { inWords, Problem } from '../parts/Problem'
import { useScreenKeys } from '../parts/useScreenKeys'
import { persistence, type Services, useServices } from '../stores/services'
import type { CardActions } from './CombinationCard'
import classes from './combinations.module.css'
import { ShelfView } from './ShelfView'
import { useShelf } from './useShelf'

/** What the browser has said of keeping the work when the disk gets full. */
const PERSISTENCE_WORDS = {
  unasked: '',
  kept: 'This browser keeps your work until you delete it.',
  'may go':
    'This browser may clear your work when the disk gets full: save a backup from time to time.',
} as const

const OFFLINE_WORDS = 'The app itself is kept here too: it opens without a network.'
const isHereAlone = (): boolean =>
  Boolean((navigator.serviceWorker as ServiceWorkerContainer | undefined)?.controller)

const ACCEPTED = '.sway,.json,.csv,.tsv,.txt,.md,.zip'
/** Reading and writing files is loaded when it is needed. */
const fileWork = () => import('../parts/files')

/** All combinations, each with its weight ribbon as its face. */
export function CombinationsScreen() {
  const services = useServices()
  const { combinations, newId } = services
  const navigate = useNavigate()
  const shelf = useShelf()
  const screen = useRef<HTMLElement>(null)
  const persisted = useStore(persistence, (now) => now)
  const [problem, setProblem] = useState<{ what: string; toDo: string }>()
  const [deleted, setDeleted] = useState<OnShelf>()
  const [said, setSaid] = useState('')
  const stored = shelf.data?.stored

  const attempt = useCallback(async (work: () => Promise<void>) => {
    setProblem(undefined)
    tellOpened([])
    try {
      await work()
    } catch (error) {
      setProblem(inWords(error))
    }
  }, [])
  const whole = useCallback(
    async (id: string) => {
      const found = await combinations.get(id)
      if (!found)
        throw new UserError('This combination is not here any more.', 'Look under “Deleted”.')
      return found.combination
    },
    [combinations],
  )
  const addNew = () =>
    attempt(async () => {
      const fresh = emptyCombination(newId(), newId())
      await combinations.add(fresh)
      navigate(`/combination/${fresh.id}`)
    })
  const open = (files: readonly File[]) => {
    setProblem(undefined)
    setSaid('')
    void openHere(files, services, { goTo: (path, state) => void navigate(path, { state }) })
  }
  const paste = (event: ClipboardEvent) => {
    const typing = event.target instanceof HTMLInputElement
    if (typing) return
    const files = [...event.clipboardData.files]
    const text = event.clipboardData.getData('text')
    if (files.length > 0) open(files)
    else if (text.trim())
      void attempt(async () => {
        const { openText } = await fileWork()
        const { isPage } = await import('../../core/sheet/files')
        if (isPage('', text)) {
          navigate('/page', { state: { text } })
          return
        }
        tellOpened([await openText('pasted text', text, services, new AbortController().signal)])
      })
  }
  const actions = useMemo<CardActions>(
    () => ({
      duplicate: (id) =>
        void attempt(async () => {
          const combination = await whole(id)
          await combinations.add({
            ...combination,
            id: newId(),
            title: `${combination.title}, copy`,
          })
          setSaid(`“${combination.title}” is here twice now.`)
        }),
      save: (id: string, format: Format) =>
        void attempt(async () => (await fileWork()).saveAsFile(await whole(id), format)),
      remove: (shown) =>
        void attempt(async () => {
          await combinations.remove(shown.id)
          setDeleted(shown)
          setSaid('')
        }),
    }),
    [attempt, combinations, newId, whole],
  )
  const restore = (shown: OnShelf) =>
    attempt(async () => {
      await combinations.restore(shown.id)
      setDeleted(undefined)
      setSaid(`“${shown.summary.title}” is back.`)
    })
  const day = () => new Date().toISOString().slice(0, 10)

  const save = async () => (await fileWork()).saveBackup(services, day())

  const keys = useScreenKeys([
    {
      on: ['Ctrl z'],
      does: 'bring back what was just deleted',
      run: () => void (deleted && restore(deleted)),
    },
  ])

  return (
    <main ref={screen} className={classes.screen} onPaste={paste}>
      <KeysHelp {...keys} />
      <div className={classes.top}>
        <h1 className={`display ${classes.heading}`}>Combinations</h1>
        <FilesButton
          accept={ACCEPTED}
          label="Open combination files"
          variant="default"
          leftSection={<IconFileImport size={18} />}
          onFiles={(files) => open(files)}
        >
          Open files
        </FilesButton>
        <LaterMenu
          button={(onClick) => (
            <Button
              variant="default"
              leftSection={<IconArchive size={18} />}
              rightSection={<IconChevronDown size={16} />}
              aria-haspopup="menu"
              onClick={onClick}
            >
              Backup
            </Button>
          )}
          note={[PERSISTENCE_WORDS[persisted], isHereAlone() && OFFLINE_WORDS]
            .filter(Boolean)
            .join(' ')}
          items={[
            {
              label: 'Save everything as one zip',
              onPick: () => void attempt(save),
            },
            {
              label: 'The same, with what students sent back',
              onPick: () =>
                void attempt(async () =>
                  (await fileWork()).saveBackup(services, day(), { withReturns: true }),
                ),
            },
            {
              label: 'Save the sound of songs as one zip',
              onPick: () =>
                void attempt(async () => (await fileWork()).saveSounds(services, day())),
            },
            {
              label: 'Bring a backup back…',
              onPick: () =>
                screen.current?.querySelector<HTMLInputElement>('input[type="file"]')?.click(),
            },
          ]}
        />
        <Button
          variant="default"
          leftSection={<IconNotebook size={18} />}
          onClick={() => navigate('/page')}
        >
          From a page
        </Button>
        <Button onClick={addNew} leftSection={<IconPlus size={18} />}>
          New combination
        </Button>
      </div>
      <BackupLine services={services} onSave={() => void attempt(save)} />
      {problem && <Problem {...problem} onClose={() => setProblem(undefined)} />}
      <p className={classes.said} aria-live="polite">
        {deleted ? (
          <>
            “{deleted.summary.title}” is deleted.{' '}
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
      {stored && <ShelfView stored={stored} actions={actions} scroller={screen} />}
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
            {shelf.data.removed.map((shown) => (
              <li key={shown.id}>
                {shown.summary.title}{' '}
                <Button size="compact-sm" variant="default" onClick={() => restore(shown)}>
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

/** After two weeks of work without a backup one line says so, until there is one or it is put away. */
function BackupLine({
  services,
  onSave,
}: {
  readonly services: Services
  readonly onSave: () => void
}) {
  const [isAway, setAway] = useState(false)
  const days = services.backup.daysDue()
  if (days === undefined || isAway) return null
  return (
    <p className={classes.backup}>
      {days} days of work are in this browser only.
      <Button
        size="compact-sm"
        variant="default"
        onClick={() => {
          onSave()
          setAway(true)
        }}
      >
        Save a backup
      </Button>
      <CloseButton aria-label="Not now" onClick={() => setAway(true)} />
    </p>
  )
}
