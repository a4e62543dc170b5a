import { Button, Select, Textarea } from '@mantine/core'
import { useEffect, useMemo, useRef, useState } from 'react'
import { useLocation, useNavigate } from 'react-router'
import { LAYERS, type Layer } from '../../core/body/layers'
import { LINE_KINDS, type LineKind } from '../../core/notebook/lines'
import {
  isOpen,
  type Page,
  type PageLine,
  type PageWish,
  type Piece,
} from '../../core/notebook/read'
import { ROLES, type Role } from '../../core/notebook/table'
import { slotsOrNone, writeSlot } from '../../storage/slots'
import { counted } from '../parts/locale'
import { inWords, Problem } from '../parts/Problem'
import { useFileDrop } from '../parts/useFileDrop'
import { useServices } from '../stores/services'
import classes from './notebook.module.css'

const slots = slotsOrNone(() => localStorage)
const SLOT = 'molten-sway page'

const keptPage = (): string => {
  try {
    return String(JSON.parse(slots.getItem(SLOT) ?? '""'))
  } catch {
    return ''
  }
}

const KIND_WORDS: Readonly<Record<LineKind, string>> = {
  title: 'the title',
  header: 'about all of it',
  phrase: 'a phrase begins',
  danced: 'is danced',
  order: 'the order',
  note: 'a note',
}
const KINDS = LINE_KINDS.map((value) => ({ value, label: KIND_WORDS[value] }))

const ROLE_WORDS: Readonly<Record<Role, string>> = {
  phrase: 'phrase',
  count: 'counts',
  feet: 'feet',
  legs: 'legs',
  hips: 'hips',
  torso: 'torso',
  arms: 'arms',
  head: 'head',
  say: 'what is called',
  note: 'notes',
  leave: 'left out',
}
const ROLE_CHOICES = ROLES.map((value) => ({ value, label: ROLE_WORDS[value] }))

/** A page from a notebook: how each line of it is understood, put right by a touch, and taken. */
export function PageScreen() {
  const { judge, combinations, newId } = useServices()
  const navigate = useNavigate()
  const location = useLocation()
  const given = (location.state as { text?: string } | null)?.text
  const [text, setText] = useState(() => given ?? keptPage())
  const [wish, setWish] = useState<PageWish>({})
  const [page, setPage] = useState<Page>()
  const [problem, setProblem] = useState<{ what: string; toDo: string }>()
  const latest = useRef(0)

  // What was typed is here again after a crash, until it is taken.
  useEffect(() => writeSlot(slots, SLOT, text), [text])
  useEffect(() => {
    const stop = new AbortController()
    const own = ++latest.current
    const wait = setTimeout(() => {
      judge
        .ask('page', { text, wish }, stop.signal)
        .then((read) => own === latest.current && setPage(read))
        .catch((error) => !stop.signal.aborted && setProblem(inWords(error)))
    }, 120)
    return () => {
      clearTimeout(wait)
      stop.abort()
    }
  }, [judge, text, wish])

  const change = (typed: string) => {
    setText(typed)
    // Lines are known by their number: with other lines the choices would be of others.
    setWish(({ columns }) => (columns ? { columns } : {}))
  }
  const drop = useFileDrop((files) => {
    void (async () => {
      const { pageIn } = await import('../parts/files')
      const dropped = await pageIn(files)
      if (dropped === undefined)
        setProblem({
          what: 'This is no page of text.',
          toDo: 'Drop one .txt or .csv file here. Sheets, zips and .sway.json files are opened under Combinations.',
        })
      else change(dropped)
    })()
  })
  const take = async () => {
    try {
      // What is shown may be a moment behind what was typed last.
      const read = await judge.ask('page', { text, wish }, new AbortController().signal)
      const id = newId()
      const title = read.combination.title || 'From a page'
      await combinations.add({ ...read.combination, id, title })
      writeSlot(slots, SLOT, '')
      navigate(`/combination/${id}`)
    } catch (error) {
      setProblem(inWords(error))
    }
  }
  const lines = page?.lines ?? []
  const open = useMemo(() => lines.flatMap(({ pieces }) => pieces).filter(isOpen).length, [lines])
  const counts = page?.combination.phrases.reduce((sum, phrase) => sum + phrase.counts, 0) ?? 0
  const isEmpty = text.trim() === ''

  return (
    <main className={classes.screen} {...drop}>
      <div className={classes.top}>
        <h1 className="display">From a page</h1>
        <p role="status">
          {isEmpty
            ? 'Type, paste or drop a page as it is: counts, moves, notes.'
            : `${counted(counts, 'count', 'counts')} in ${counted(page?.combination.phrases.length ?? 0, 'phrase', 'phrases')}. ${open === 0 ? 'Nothing is open.' : `${counted(open, 'thing', 'things')} to look at.`}`}
        </p>
        <Button onClick={() => void take()} disabled={isEmpty || !page}>
          Use it
        </Button>
      </div>
      {problem && <Problem {...problem} onClose={() => setProblem(undefined)} />}
      <div className={classes.both}>
        <Textarea
          className={classes.page ?? ''}
          label="The page"
          placeholder={EXAMPLE}
          value={text}
          autosize
          minRows={18}
          spellCheck={false}
          onChange={({ currentTarget }) => change(currentTarget.value)}
        />
        <section aria-label="How it is understood" className={classes.read}>
          {page?.columns && (
            <Columns
              columns={page.columns}
              onChange={(columns) => setWish((now) => ({ ...now, columns }))}
            />
          )}
          <ol className={classes.lines}>
            {lines.map((line) => (
              <LineRow
                key={line.number}
                line={line}
                onChoose={(id, chosen) =>
                  setWish((now) => ({ ...now, chosen: { ...now.chosen, [id]: chosen } }))
                }
                onKind={(kind) =>
                  setWish((now) => ({ ...now, kinds: { ...now.kinds, [line.number]: kind } }))
                }
              />
            ))}
          </ol>
        </section>
      </div>
    </main>
  )
}

const EXAMPLE = `Lamp and Shadow, 88 bpm, start right

A - opening
1-4 hip circle
5-6: hip drop R
7, 8: hip lift L
arms in second`

interface LineRowProps {
  readonly line: PageLine
  readonly onChoose: (id: string, chosen: number) => void
  readonly onKind: (kind: LineKind) => void
}

function LineRow({ line, onChoose, onKind }: LineRowProps) {
  const { number, text, kind, said, pieces, isUnsure } = line
  return (
    <li className={classes.line} data-unsure={isUnsure} data-kind={kind}>
      <span className={`counts ${classes.number}`}>{number}</span>
      <div className={classes.typed}>{text}</div>
      <ul className={classes.said}>
        {said.map((one) => (
          <li key={one} className={layerClass(one)}>
            {one}
          </li>
        ))}
      </ul>
      <Select
        size="xs"
        variant="unstyled"
        aria-label={`What line ${number} is`}
        data={KINDS}
        allowDeselect={false}
        value={kind}
        onChange={(value) => LINE_KINDS.some((one) => one === value) && onKind(value as LineKind)}
      />
      {pieces.filter(isOpen).map((piece) => (
        <PieceChoice
          key={piece.id}
          piece={piece}
          onChoose={(chosen) => onChoose(piece.id, chosen)}
        />
      ))}
    </li>
  )
}

const layerClass = (said: string): string => {
  const word = said.split(' ')[0]
  return LAYERS.some((layer) => layer === word) ? `layer-${word as Layer}` : ''
}

/** What some words mean: one touch for each meaning, and one for a note. */
function PieceChoice({
  piece,
  onChoose,
}: {
  readonly piece: Piece
  readonly onChoose: (chosen: number) => void
}) {
  const { typed, meanings, chosen, isUnsure } = piece
  return (
    <fieldset className={classes.choice}>
      <legend>
        “{typed}”{' '}
        {meanings.length === 0
          ? 'is not understood: it stays as a note'
          : isUnsure
            ? 'is perhaps'
            : 'is'}
      </legend>
      {meanings.map(({ layer, text }, i) => (
        <button
          key={`${layer} ${text}`}
          type="button"
          className={`${classes.chip} layer-${layer}`}
          aria-pressed={i === chosen}
          onClick={() => onChoose(i)}
        >
          {text}
        </button>
      ))}
      {meanings.length > 0 && (
        <button
          type="button"
          className={classes.chip}
          aria-pressed={chosen < 0}
          onClick={() => onChoose(-1)}
        >
          only a note
        </button>
      )}
    </fieldset>
  )
}

/** What the columns of a table hold. */
function Columns({
  columns,
  onChange,
}: {
  readonly columns: NonNullable<Page['columns']>
  readonly onChange: (columns: readonly Role[]) => void
}) {
  return (
    <fieldset className={classes.columns}>
      <legend>Its columns hold</legend>
      {columns.map(({ heading, role }, i) => (
        <Select
          // biome-ignore lint/suspicious/noArrayIndexKey: a column is known by its place
          key={i}
          size="xs"
          label={heading || `Column ${i + 1}`}
          data={ROLE_CHOICES}
          allowDeselect={false}
          value={role}
          onChange={(value) =>
            onChange(columns.map((one, at) => (at === i ? (value as Role) : one.role)))
          }
        />
      ))}
    </fieldset>
  )
}
