import { IconDots } from '@tabler/icons-react'
import { memo } from 'react'
import { Link } from 'react-router'
import type { Summary } from '../../core/findings/summary'
import { FORMATS, type Format } from '../../core/sheet/formats'
import { TICKS_PER_COUNT } from '../../core/time/time'
import type { OnShelf } from '../../storage/combinations'
import { Ribbon } from '../braid/Ribbon'
import { ribbonOf } from '../braid/ribbonShape'
import { LaterMenu } from '../parts/LaterMenu'
import classes from './combinations.module.css'

const FACE = { width: 400, height: 76, left: 24, right: 40 }

const joinWords = ({ repeats, switches }: Summary): string => {
  if (switches) return repeats ? 'repeats and switches' : 'switches by itself'
  return repeats ? 'does not switch by itself' : 'neither side can follow'
}

export const FORMAT_WORDS: Readonly<Record<Format, string>> = {
  json: 'Save as file',
  sway: 'Save as count sheet',
  csv: 'Save as rows (CSV)',
  txt: 'Save as plain text',
  md: 'Save as a handout for notes (Markdown)',
  vtt: 'Save captions (WebVTT)',
  mid: 'Save clicks and cues (MIDI)',
}

/** What can be done with a card; the one object for all of them, so that a card only draws when it changes. */
export interface CardActions {
  readonly duplicate: (id: string) => void
  readonly save: (id: string, format: Format) => void
  readonly remove: (shown: OnShelf) => void
}

/** One combination; its face is its weight ribbon. */
export const CombinationCard = memo(function CombinationCard({
  shown,
  actions,
}: {
  shown: OnShelf
  actions: CardActions
}) {
  const { id, summary } = shown
  const { title, families, counts, tempo, faults } = summary
  return (
    <article className={classes.card} aria-label={title}>
      <Link to={`/combination/${id}`} className={classes.open}>
        <Face summary={summary} />
        <h2 className={`display ${classes.title}`}>{title || 'Without a title'}</h2>
        <p className={classes.facts}>
          {families.join(', ') || 'no family'} · <span className="counts">{counts}</span> counts ·{' '}
          <span className="counts">{tempo}</span> a minute
        </p>
        <p className={classes.facts}>
          {summary.variantOf !== undefined && `variant for ${summary.level} · `}
          {joinWords(summary)}
          {faults > 0 && (
            <b className={classes.faults}>
              {' '}
              · {faults} {faults === 1 ? 'fault' : 'faults'}
            </b>
          )}
        </p>
      </Link>
      <CardMenu shown={shown} actions={actions} />
    </article>
  )
})

/** What can be done with a card. */
function CardMenu({ shown, actions }: { shown: OnShelf; actions: CardActions }) {
  const { id, summary } = shown
  return (
    <LaterMenu
      button={(onClick) => (
        <button
          type="button"
          className={classes.more}
          aria-label={`More for ${summary.title}`}
          aria-haspopup="menu"
          onClick={onClick}
        >
          <IconDots size={18} />
        </button>
      )}
      items={[
        { label: 'Duplicate', onPick: () => actions.duplicate(id) },
        ...(Object.keys(FORMATS) as Format[]).map((format) => ({
          label: FORMAT_WORDS[format],
          onPick: () => actions.save(id, format),
        })),
        { label: 'Delete', onPick: () => actions.remove(shown) },
      ]}
    />
  )
}

const y = { L: 24, R: 58, both: 41 }
const faces = new WeakMap<Summary, ReturnType<typeof makeFace>>()

function makeFace(summary: Summary) {
  const { width, left, right } = FACE
  const length = summary.counts * TICKS_PER_COUNT
  const share = (width - left - right) / Math.max(1, length)
  const x = (tick: number) => left + tick * share
  return { x, length, shape: ribbonOf(summary.weight, { x, y, swing: 8, gap: 3 }) }
}

/** The ribbon of a face, drawn once: cards come and go as the shelf is searched. */
function faceOf(summary: Summary) {
  const known = faces.get(summary) ?? makeFace(summary)
  faces.set(summary, known)
  return known
}

function Face({ summary }: { summary: Summary }) {
  const { width, height } = FACE
  const { x, shape, length } = faceOf(summary)
  const free = shape.end === 'both' ? 'both' : shape.end === 'L' ? 'R' : 'L'
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className={classes.face}
      role="img"
      aria-label={`Weight ribbon; ends with ${free === 'both' ? 'weight on both feet' : `${free} free`}`}
    >
      {summary.phrases.map(({ at, name }) => (
        <g key={at}>
          <line x1={x(at)} x2={x(at)} y1={4} y2={height - 4} />
          <text x={x(at) + 3} y={10} className={classes.phrase}>
            {name}
          </text>
        </g>
      ))}
      {(['L', 'R'] as const).map((foot) => (
        <text key={foot} x={4} y={y[foot] + 4}>
          {foot}
        </text>
      ))}
      <Ribbon shape={shape} width={7} y={y} />
      {free === 'both' ? (
        <text x={x(length) + 8} y={y.both + 4}>
          both
        </text>
      ) : (
        <g>
          <circle cx={x(length) + 9} cy={y[free]} r={4.5} className={classes.free} />
          <text x={x(length) + 17} y={y[free] + 4}>
            {free}
          </text>
        </g>
      )}
    </svg>
  )
}
