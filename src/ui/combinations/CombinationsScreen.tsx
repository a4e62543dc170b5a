import { Button } from '@mantine/core'
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
import type { FileReport } from '../../storage/backup'
import type { OnShelf } from '../../storage/combinations'
import { RibbonInk } from '../braid/Ribbon'
import { FilesButton } from '../parts/FilesButton'
import { KeysHelp } from '../parts/KeysHelp'
import { LaterMenu } from '../parts/LaterMenu'
import { inWords, Problem } from '../parts/Problem'
import { useFileDrop } from '../parts/useFileDrop'
import { useScreenKeys } from '../parts/useScreenKeys'
import { persistence, useServices } from '../stores/services'
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
  const [reports, setReports] = useState<readonly FileReport[]>([])
  const [opening, setOpening] = useState<{
    readonly text: string
    readonly stop: AbortController
  }>()
  const stored = shelf.data?.stored

  const attempt = useCallback(async (work: () => Promise<void>) => {
    setProblem(undefined)
    setReports([])
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
  const open = (files: readonly File[]) =>
    files.length > 0 &&
    attempt(async () => {
      setSaid('')
      const stop = new AbortController()
      setOpening({ text: 'Opening…', stop })
      try {
        const onStep = (text: string) => setOpening({ text: `Opening ${text}…`, stop })
        const { openFiles, pageIn } = await fileWork()
        const page = await pageIn(files)
        if (page !== undefined) {
          navigate('/page', { state: { text: page } })
          return
        }
        setReports(await openFiles(files, services, { onStep, signal: stop.signal }))
      } finally {
        setOpening(undefined)
      }
    })
  const paste = (event: ClipboardEvent) => {
    const typing = event.target instanceof HTMLInputElement
    if (typing) return
    const files = [...event.clipboardData.files]
    const text = event.clipboardData.getData('text')
    if (files.length > 0) void open(files)
    else if (text.trim())
      void attempt(async () => {
        const { openText } = await fileWork()
        const { isPage } = await import('../../core/sheet/files')
        if (isPage('', text)) {
          navigate('/page', { state: { text } })
          return
        }
        setReports([await openText('pasted text', text, services, new AbortController().signal)])
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
  const dropped = useFileDrop((files) => void open(files))
  const day = () => new Date().toISOString().slice(0, 10)

  const keys = useScreenKeys([
    {
      on: ['Ctrl z'],
      does: 'bring back what was just deleted',
      run: () => void (deleted && restore(deleted)),
    },
  ])

  return (
    <main ref={screen} className={classes.screen} {...dropped} onPaste={paste}>
      <KeysHelp {...keys} />
      <div className={classes.top}>
        <h1 className={`display ${classes.heading}`}>Combinations</h1>
        <FilesButton
          accept={ACCEPTED}
          label="Open combination files"
          variant="default"
          leftSection={<IconFileImport size={18} />}
          onFiles={(files) => void open(files)}
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
          note={PERSISTENCE_WORDS[persisted]}
          items={[
            {
              label: 'Save everything as one zip',
              onPick: () =>
                void attempt(async () => (await fileWork()).saveBackup(services, day())),
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
      {problem && <Problem {...problem} onClose={() => setProblem(undefined)} />}
      <Reports reports={reports} onClose={() => setReports([])} />
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
      {opening && (
        <p className={classes.opening} role="status">
          {opening.text}{' '}
          <Button size="compact-sm" variant="default" onClick={() => opening.stop.abort()}>
            Stop
          </Button>
        </p>
      )}
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

/** How each opened file fared. */
function Reports({ reports, onClose }: { reports: readonly FileReport[]; onClose: () => void }) {
  const good = reports.filter(({ ok }) => ok)
  const bad = reports.filter(({ ok }) => !ok)
  if (reports.length === 0) return null
  return (
    <section aria-label="Opened files" className={classes.reports}>
      {bad.map(({ name, text }) => (
        <Problem key={name} what={name} toDo={text} onClose={onClose} />
      ))}
      {good.length > 0 && (
        <ul role="status">
          {good.map(({ name, text }) => (
            <li key={`${name}${text}`}>
              <b>{name}</b> {text}
            </li>
          ))}
        </ul>
      )}
    </section>
  )
}
