import { ActionIcon, SegmentedControl, Textarea } from '@mantine/core'
import {
  IconArrowsSplit2,
  IconChevronDown,
  IconGripVertical,
  IconLock,
  IconLockOpen,
  IconTrash,
} from '@tabler/icons-react'
import { memo, type PointerEvent, useEffect, useState } from 'react'
import { layerWord } from '../../core/moves/vocabulary'
import { type Drill, isCounted, MOST_LETTERS, MOST_LINES } from '../../core/plan/drill'
import type { DrillChange } from '../../core/plan/edits'
import type { Lanes } from '../../core/plan/lanes'
import type { Materials } from '../../core/plan/material'
import { nameOfMoves } from '../../core/plan/moveRounds'
import { triesOf } from '../../core/plan/talk'
import { drillTitle, minutesText } from '../../core/plan/totals'
import type { StepWords } from '../../core/plan/words'
import { FASTEST_RATE, hundredths, RATE_STEP, SLOWEST_RATE } from '../../core/song/rate'
import { clockText } from '../../core/time/clock'
import { FASTEST, SLOWEST } from '../../core/time/tempo'
import type { ScreenKey } from '../parts/keys'
import { counted } from '../parts/locale'
import { NumberField } from '../parts/NumberField'
import { LaneLines } from './LaneLines'
import classes from './plan.module.css'

/** What a hand can do to a drill. */
export interface DrillHands {
  readonly change: (id: string, change: DrillChange) => void
  readonly lock: (id: string, isLocked: boolean) => void
  readonly split: (id: string) => void
  readonly remove: (id: string) => void
  readonly open: (id: string | undefined) => void
  /** Takes it along by some places. */
  readonly move: (id: string, by: number) => void
  /** Drags it to another place. */
  readonly drag: (event: PointerEvent<Element>, id: string) => void
  /** Ends the class earlier by some minutes. */
  readonly endEarly: (minutes: number) => void
}

/** What a row shows of a drag: it is in hand, or what is comes before or behind it. */
export type DrillLanding = 'in hand' | 'before' | 'behind'

interface DrillRowProps {
  readonly drill: Drill
  /** Seconds from the start of the class, and how long it lasts. */
  readonly from: number
  readonly seconds: number
  readonly materials: Materials
  /** What the class calls the stretch that begins with it; absent inside of one. */
  readonly block: string | undefined
  /** How long that lasts. */
  readonly blockSeconds: number | undefined
  readonly words: StepWords | undefined
  /** In a class of mixed levels. */
  readonly lanes: Lanes | undefined
  /** What a colleague would remark of it. */
  readonly remarks: readonly string[]
  /** The title of its combination where that is deleted. */
  readonly gone: string | undefined
  readonly isOpen: boolean
  readonly landing: DrillLanding | undefined
  readonly hands: DrillHands
}

/** The keys that take a drill along, and by how many places. */
const BY: Readonly<Record<string, number>> = { ArrowUp: -1, ArrowDown: 1 }

/** What the handle of a drill does with the keys, for the help. */
export const DRILL_KEYS: readonly ScreenKey[] = [
  { on: Object.keys(BY), does: 'on the handle of a drill: take it along' },
]

/** One drill of the class: when, what, on which sides, how fast, how often. */
export const DrillRow = memo(function DrillRow(props: DrillRowProps) {
  const {
    drill,
    from,
    seconds,
    materials,
    block,
    blockSeconds,
    words,
    lanes,
    remarks,
    gone,
    isOpen,
    landing,
    hands,
  } = props
  const { id } = drill
  const title = `${drillTitle(drill, materials)}${gone === undefined ? '' : ` · ${gone}`}`
  return (
    <li
      className={classes.row}
      data-drill={drill.kind}
      data-locked={drill.locked === true}
      data-gone={gone !== undefined}
      data-landing={landing}
      aria-label={title}
    >
      {block && (
        <h3 className={classes.block}>
          <span className="display">{block}</span>
          <span className="counts">{minutesText(blockSeconds ?? 0)}</span>
        </h3>
      )}
      <button
        type="button"
        className={classes.grip}
        aria-label={`Move ${title}`}
        aria-keyshortcuts={Object.keys(BY).join(' ')}
        title="Drag it, or take it along with the arrow keys"
        onPointerDown={(event) => {
          if (event.button === 0) hands.drag(event, id)
        }}
        onKeyDown={(event) => {
          const by = BY[event.key]
          if (by === undefined) return
          event.preventDefault()
          hands.move(id, by)
        }}
      >
        <IconGripVertical size={18} aria-hidden />
      </button>
      <span className={`counts ${classes.when}`}>{clockText(from)}</span>
      <button
        type="button"
        className={classes.name}
        aria-expanded={isOpen}
        onClick={() => hands.open(isOpen ? undefined : id)}
      >
        <span className={classes.dots} aria-hidden>
          {!drill.moves &&
            drill.layers.map((layer) => (
              <i key={layer} className={`layer-${layer}`} title={layerWord[layer]} />
            ))}
        </span>
        <b>{title}</b>
        <IconChevronDown size={15} aria-hidden />
      </button>
      {isCounted(drill) ? (
        <Counted drill={drill} title={title} hands={hands} />
      ) : (
        <span className={classes.uncounted}>{drill.kind === 'walk' ? 'by touch' : ''}</span>
      )}
      <span className={`counts ${classes.lasts}`}>{minutesText(seconds)}</span>
      <span className={classes.hands}>
        <ActionIcon
          variant="subtle"
          color="gray"
          aria-label={drill.locked ? `Unlock ${title}` : `Lock ${title}`}
          aria-pressed={drill.locked === true}
          onClick={() => hands.lock(id, !drill.locked)}
        >
          {drill.locked ? <IconLock size={17} /> : <IconLockOpen size={17} />}
        </ActionIcon>
        <ActionIcon
          variant="subtle"
          color="gray"
          aria-label={`Split ${title}`}
          disabled={drill.moves !== undefined || !isCounted(drill)}
          onClick={() => hands.split(id)}
        >
          <IconArrowsSplit2 size={17} />
        </ActionIcon>
        <ActionIcon
          variant="subtle"
          color="gray"
          aria-label={`Remove ${title}`}
          disabled={drill.kind === 'open'}
          onClick={() => hands.remove(id)}
        >
          <IconTrash size={17} />
        </ActionIcon>
      </span>
      {words && words.say.length > 0 && !isOpen && (
        <p className={classes.said} data-own={words.isOwn}>
          {words.say[0]}
        </p>
      )}
      {lanes && (
        <p className={classes.lanes}>
          <LaneLines lanes={lanes} />
        </p>
      )}
      {drill.kind === 'open' && (
        <p className={classes.offers}>
          <button type="button" onClick={() => hands.endEarly(Math.floor(seconds / 60))}>
            End {counted(Math.floor(seconds / 60), 'minute')} early
          </button>
          <span>or choose another combination beside it.</span>
        </p>
      )}
      {remarks.map((text) => (
        <p key={text} className={classes.remark}>
          {text}
        </p>
      ))}
      {isOpen && <DrillFacts drill={drill} words={words} materials={materials} hands={hands} />}
    </li>
  )
})

/** Right then left, left then right, right, left, and again. */
function nextSides({ sides }: Drill): DrillChange['sides'] & {} {
  const order = [['R', 'L'], ['L', 'R'], ['R'], ['L']] as const
  const at = order.findIndex((one) => one.join() === sides.join())
  return [...(order[(at + 1) % order.length] ?? order[0])]
}

/** Sides, tempo and repeats of what has a count. */
function Counted({
  drill,
  title,
  hands,
}: {
  readonly drill: Drill
  readonly title: string
  readonly hands: DrillHands
}) {
  const { id } = drill
  const [first, second] = drill.sides
  const sides = second ? `${first} then ${second}` : first
  return (
    <>
      {drill.moves || drill.song ? (
        <span className={classes.sides}>{drill.song ? 'as laid' : 'both sides'}</span>
      ) : (
        <button
          type="button"
          className={classes.sides}
          aria-label={`Sides of ${title}: ${sides}${drill.inTurn ? ', in turn' : ''}. Change`}
          onClick={() => hands.change(id, { sides: nextSides(drill) })}
        >
          {sides}
          {drill.inTurn && <small> in turn</small>}
        </button>
      )}
      {drill.song ? (
        <NumberField
          className={`${classes.number} ${classes.speed}`}
          aria-label={`Speed of ${title}`}
          suffix=" %"
          min={hundredths(SLOWEST_RATE)}
          max={hundredths(FASTEST_RATE)}
          step={hundredths(RATE_STEP)}
          value={hundredths(drill.song.rate)}
          onCommit={(speed) => hands.change(id, { rate: speed / 100 })}
        />
      ) : (
        <NumberField
          className={classes.number}
          aria-label={`Tempo of ${title}`}
          min={SLOWEST}
          max={FASTEST}
          step={2}
          value={drill.tempo}
          onCommit={(tempo) => hands.change(id, { tempo })}
        />
      )}
      <NumberField
        className={classes.number}
        aria-label={`Repeats of ${title}${drill.song ? '' : ', a side'}`}
        prefix="× "
        min={1}
        max={99}
        value={drill.repeats}
        onCommit={(repeats) => hands.change(id, { repeats })}
      />
    </>
  )
}

function DrillFacts({
  drill,
  words,
  materials,
  hands,
}: {
  readonly drill: Drill
  readonly words: StepWords | undefined
  readonly materials: Materials
  readonly hands: DrillHands
}) {
  const moves = drill.moves && [
    ...new Set(drill.moves.map((id) => nameOfMoves(id, materials.vocabulary))),
  ]
  const tries = triesOf(drill.talk, materials.house)
  return (
    <div className={classes.facts}>
      <div className={classes.factRow}>
        {(drill.combination ?? drill.song) !== undefined && (
          <SegmentedControl
            size="xs"
            aria-label="How you stand"
            data={[
              { value: 'mirror', label: 'Facing, as their mirror' },
              { value: 'back', label: 'Back to the class' },
            ]}
            value={drill.stand}
            onChange={(stand) => hands.change(drill.id, { stand: stand as Drill['stand'] })}
          />
        )}
        {drill.seconds !== undefined && (
          <NumberField
            className={classes.talk}
            aria-label="How long it takes, in seconds"
            suffix=" s"
            min={0}
            max={3600}
            step={5}
            value={drill.seconds}
            onCommit={(seconds) => hands.change(drill.id, { seconds })}
          />
        )}
        <NumberField
          className={classes.talk}
          aria-label="Talk, in seconds"
          prefix="talk "
          suffix=" s"
          min={0}
          max={3600}
          step={5}
          value={drill.talk}
          onCommit={(talk) => hands.change(drill.id, { talk })}
        />
        {tries.length > 1 && <span>{tries.map((piece) => `${piece} s, try it`).join('; ')}</span>}
      </div>
      {moves && <p>{moves.join(', ')}: eight counts to each side.</p>}
      <SayField drill={drill} words={words} hands={hands} />
      {words?.easier.map((form) => (
        <p key={form}>
          <b>Or</b> {form}
        </p>
      ))}
    </div>
  )
}

/** What is said: grey while it is worked out, a line each; cleared it is worked out again. */
function SayField({
  drill,
  words,
  hands,
}: {
  readonly drill: Drill
  readonly words: StepWords | undefined
  readonly hands: DrillHands
}) {
  const told = (words?.say ?? []).join('\n')
  const [text, setText] = useState(told)
  useEffect(() => setText(told), [told])
  return (
    <Textarea
      size="xs"
      autosize
      maxRows={10}
      label="Say"
      className={classes.say ?? ''}
      data-own={words?.isOwn === true}
      value={text}
      onChange={({ currentTarget: { value } }) => setText(value)}
      onBlur={() => {
        if (text === told) return
        const lines = text
          .split('\n')
          .map((line) => line.trim())
          .filter((line) => line !== '')
          .map((line) => line.slice(0, MOST_LETTERS))
        hands.change(drill.id, { say: lines.slice(0, MOST_LINES) })
      }}
    />
  )
}
