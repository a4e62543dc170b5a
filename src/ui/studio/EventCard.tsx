import {
  ActionIcon,
  Button,
  Checkbox,
  NativeSelect,
  SegmentedControl,
  Switch,
  TextInput,
} from '@mantine/core'
import { IconArrowLeft, IconArrowRight, IconTrash, IconX } from '@tabler/icons-react'
import { memo, useDeferredValue, useState } from 'react'
import { useStore } from 'zustand'
import { claimOf } from '../../core/combination/claims'
import { type DancedEvent, whenSaid } from '../../core/combination/lengths'
import { nameOf, sideOf } from '../../core/combination/names'
import type { EventChange } from '../../core/edits/edits'
import { dancersOf } from '../../core/edits/parts'
import { layerWord, type Vocabulary } from '../../core/moves/vocabulary'
import { COUNT, HALF_COUNT, labelIn, type Numbering, tick } from '../../core/time/time'
import { canBeHeld, type What } from '../../core/what/kinds'
import { FirstWay } from '../../core/what/move'
import { NumberField } from '../parts/NumberField'
import { PartBadge } from '../parts/PartBadge'
import type { KeyScope } from '../shortcuts/shortcut'
import {
  giveSelected,
  keepSelected,
  moveSelected,
  openSelectedFigure,
  removeSelected,
  rewrite,
  stretchSelected,
  turnSelected,
} from '../stores/editing'
import type { Session } from '../stores/session'
import {
  documentOf,
  phraseAt,
  type SessionState,
  selectedEvents,
  vocabularyOf,
} from '../stores/state'
import { FormFields } from './FormFields'
import classes from './studio.module.css'
import { WhatFields } from './WhatFields'

interface EventCardProps {
  readonly session: Session
  readonly onClose: () => void
  readonly deck: KeyScope
}

/** Everything about the one move that is selected, to be changed by hand. */
export const EventCard = memo(function EventCard({ session, onClose, deck }: EventCardProps) {
  const now = useStore(session, pickedEvent)
  // An edit is drawn in the braid first; the card may come a moment later.
  const event = useDeferredValue(now)
  if (!event) return null
  return <Card session={session} event={event} onClose={onClose} deck={deck} />
})

/** The event that was picked: only then is there a card. */
const pickedEvent = (state: SessionState): DancedEvent | undefined =>
  state.selection.event === undefined ? undefined : selectedEvents(state)[0]

const Card = memo(function Card({
  session,
  event,
  onClose,
  deck,
}: EventCardProps & { event: DancedEvent }) {
  const vocabulary = vocabularyOf(session.getState())
  const move = event.what.kind === 'move' ? vocabulary.find(event.what.move) : undefined
  const side = sideOf(event.what)
  const [more, setMore] = useState(false)
  const write = (what: What) => rewrite(session, event, { what })
  return (
    <section className={`${classes.card} layer-${event.layer}`} aria-label="Selected move">
      <header className={classes.cardHead}>
        <h2 className="display">{nameOf(event, vocabulary)}</h2>
        <ActionIcon variant="subtle" color="gray" aria-label="Close" onClick={onClose}>
          <IconX size={16} />
        </ActionIcon>
      </header>
      <p className={classes.cardWhen}>
        {layerWord[event.layer]}, counts {whenSaid(event, labelIn(phraseHere(session)))}
      </p>
      <div className={classes.cardRow}>
        {side && (
          <SegmentedControl
            size="xs"
            aria-label="Side"
            data={[
              { value: 'L', label: 'Left' },
              { value: 'R', label: 'Right' },
            ]}
            value={side}
            onChange={(value) => turnSelected(session, value === 'R' ? 'R' : 'L')}
          />
        )}
        <Button.Group>
          <Button
            size="compact-sm"
            variant="default"
            onClick={() => moveSelected(session, -HALF_COUNT)}
            aria-label="Half a count earlier"
          >
            <IconArrowLeft size={14} />
          </Button>
          <Button
            size="compact-sm"
            variant="default"
            onClick={() => moveSelected(session, HALF_COUNT)}
            aria-label="Half a count later"
          >
            <IconArrowRight size={14} />
          </Button>
        </Button.Group>
        <Button.Group>
          <Button
            size="compact-sm"
            variant="default"
            onClick={() => stretchSelected(session, -HALF_COUNT)}
            aria-label="Half a count shorter"
          >
            −½
          </Button>
          <Button
            size="compact-sm"
            variant="default"
            onClick={() => stretchSelected(session, HALF_COUNT)}
            aria-label="Half a count longer"
          >
            +½
          </Button>
        </Button.Group>
        <ActionIcon variant="default" aria-label="Remove" onClick={() => removeSelected(session)}>
          <IconTrash size={16} />
        </ActionIcon>
      </div>
      <WhoDances session={session} event={event} />
      <WhatFields event={event} write={write} />
      {canBeHeld(event.what) && (
        <NumberField
          size="xs"
          label="Held, counts"
          description="Then it is back where it was. Empty: it stays."
          w={150}
          step={1}
          min={0.5}
          max={16}
          allowDecimal
          value={event.held === undefined ? undefined : event.held / COUNT}
          onCommit={(counts) =>
            rewrite(
              session,
              event,
              { held: tick(Math.max(1, Math.round(counts * 2)) * HALF_COUNT) },
              `held ${event.id}`,
            )
          }
          onClear={() => rewrite(session, event, { held: undefined }, `held ${event.id}`)}
        />
      )}
      {move?.kind === 'steps' && (
        <Button
          size="compact-sm"
          variant="default"
          mt={6}
          onClick={() => openSelectedFigure(session, deck.newId)}
        >
          Split into its steps
        </Button>
      )}
      <div className={classes.cardRow}>
        <TextInput
          size="xs"
          label="Cue"
          className={classes.grow}
          placeholder={move?.cue ?? 'ribs | hips | lift'}
          value={event.cue ?? ''}
          onChange={({ currentTarget }) =>
            rewrite(session, event, { cue: currentTarget.value }, `cue ${event.id}`)
          }
        />
        <TextInput
          size="xs"
          label="Note"
          className={classes.grow}
          value={event.note ?? ''}
          onChange={({ currentTarget }) =>
            rewrite(session, event, { note: currentTarget.value }, `note ${event.id}`)
          }
        />
      </div>
      <details
        className={classes.options}
        open={more}
        onToggle={({ currentTarget }) => setMore(currentTarget.open)}
      >
        <summary>More about it</summary>
        {/* Lists of all moves: only made when they are looked at. */}
        {more && <Options session={session} event={event} vocabulary={vocabulary} />}
      </details>
      <Switch
        size="sm"
        mt={6}
        label="Same on the other side, not mirrored"
        checked={event.kept === true}
        onChange={() => keepSelected(session)}
      />
      {move && (
        <p className={classes.help}>
          {move.feel} {move.watch && <span>Watch: {move.watch} </span>}
          {move.care && <b>{move.care}</b>}
        </p>
      )}
    </section>
  )
})

/** The parts that dance it, each one touch away. */
function WhoDances({ session, event }: { session: Session; event: DancedEvent }) {
  const parts = useStore(session, (s) => documentOf(s).parts)
  if (!parts) return null
  const dances = dancersOf(event, documentOf(session.getState()))
  return (
    <div className={classes.who} role="group" aria-label="Danced by">
      {parts.map(({ id, name }, i) => {
        const isOn = dances.includes(id)
        return (
          <button
            key={id}
            type="button"
            aria-pressed={isOn}
            disabled={isOn && dances.length === 1}
            onClick={() =>
              giveSelected(session, isOn ? dances.filter((one) => one !== id) : [...dances, id])
            }
          >
            <PartBadge index={i} name={name} />
          </button>
        )
      })}
    </div>
  )
}

const phraseHere = (session: Session): Numbering => {
  const state = session.getState()
  return phraseAt(state, state.selection.pass) ?? { counts: 8 }
}

const ROUND = [
  { value: 'cw', label: 'clockwise' },
  { value: 'ccw', label: 'anticlockwise' },
  { value: 'front', label: 'by the front' },
  { value: 'back', label: 'by the back' },
  { value: 'side', label: 'by the side' },
]

/** Size, pace, names, forms for other levels: what most moves leave as it is, folded away. */
function Options({
  session,
  event,
  vocabulary,
}: {
  session: Session
  event: DancedEvent
  vocabulary: Vocabulary
}) {
  const set = (changes: EventChange, mark?: string) => rewrite(session, event, changes, mark)
  const { what, size, rate } = event
  const isMove = what.kind === 'move'
  const kind = claimOf(event, vocabulary).kind
  const text = (key: 'as' | 'words', label: string) => (
    <TextInput
      size="xs"
      label={label}
      className={classes.grow}
      value={event[key] ?? ''}
      onChange={({ currentTarget }) =>
        set({ [key]: currentTarget.value || undefined }, `${key} ${event.id}`)
      }
    />
  )
  return (
    <>
      <div className={classes.cardRow}>
        {text('as', 'Called here')}
        {text('words', 'Words or meaning')}
      </div>
      <div className={classes.cardRow}>
        {what.kind !== 'foot' && (
          <NumberField
            size="xs"
            label="Size %"
            w={84}
            min={10}
            max={300}
            step={10}
            placeholder="100"
            value={size}
            onCommit={(made) => set({ size: made })}
            onClear={() => set({ size: undefined })}
          />
        )}
        {(kind === 'texture' || kind === 'path') && (
          <NumberField
            size="xs"
            label="Times a count"
            w={84}
            min={0.25}
            max={12}
            step={0.5}
            placeholder="usual"
            allowDecimal
            value={rate}
            onCommit={(made) => set({ rate: made })}
            onClear={() => set({ rate: undefined })}
          />
        )}
        {isMove && vocabulary.find(what.move)?.sided === 'direction' && (
          <NativeSelect
            size="xs"
            label="Goes round"
            data={ROUND}
            value={what.by ?? what.way ?? 'cw'}
            onChange={({ currentTarget: { value } }) => {
              const { way: _, by: __, ...rest } = what
              const by = FirstWay.safeParse(value).data
              set({ what: by ? { ...rest, by } : { ...rest, way: value === 'ccw' ? 'ccw' : 'cw' } })
            }}
          />
        )}
        {isMove && what.every !== undefined && (
          <Checkbox
            size="xs"
            mt={18}
            label="sides in turn"
            checked={what.alt === true}
            onChange={({ currentTarget: { checked } }) => {
              const { alt: _, ...rest } = what
              set({ what: checked ? { ...rest, alt: true } : rest })
            }}
          />
        )}
      </div>
      <FormFields event={event} vocabulary={vocabulary} set={set} />
      <div className={classes.cardRow}>
        <Checkbox
          size="xs"
          label="a flourish that may be left out"
          checked={event.optional === true}
          onChange={({ currentTarget: { checked } }) =>
            set({ optional: checked ? true : undefined })
          }
        />
        {sideOf(what) && (
          <Checkbox
            size="xs"
            label="either side"
            checked={event.either === true}
            onChange={({ currentTarget: { checked } }) =>
              set({ either: checked ? true : undefined })
            }
          />
        )}
        {documentOf(session.getState()).parts && (
          <Checkbox
            size="xs"
            label="leans on a partner"
            checked={event.supported === true}
            onChange={({ currentTarget: { checked } }) =>
              set({ supported: checked ? true : undefined })
            }
          />
        )}
        {kind === 'place' && (
          <Checkbox
            size="xs"
            label="already there on its count"
            checked={event.on === true}
            onChange={({ currentTarget: { checked } }) => set({ on: checked ? true : undefined })}
          />
        )}
      </div>
    </>
  )
}
