import { Button, Checkbox, Group, Modal, NativeSelect, Textarea, TextInput } from '@mantine/core'
import { useState } from 'react'
import { BodyPart, MoveKind, moveOfOwn, Need, OwnMove, Risk, Sided } from '../../core/moves/move'
import { readPattern } from '../../core/moves/pattern'
import { layerWord, type Vocabulary, withOwn } from '../../core/moves/vocabulary'
import { endOfPattern, freeId, problemIn } from '../../core/writing/makeOwn'
import { NumberField } from '../parts/NumberField'
import { MoveLine } from './MoveLine'
import classes from './moves.module.css'

const SIDED_WORDS: Readonly<Record<Sided, string>> = {
  side: 'a right and a left side',
  direction: 'goes round, either way',
  none: 'no side',
}

/** A form has to be a move that is known. */
const unknownForm = (id: string | undefined, vocabulary: Vocabulary): string | undefined =>
  id === undefined || vocabulary.find(id) ? undefined : 'No move has this id.'

interface PicksProps<T extends string> {
  readonly label: string
  readonly options: readonly T[]
  readonly words: (one: T) => string
  readonly value: readonly T[]
  readonly onChange: (picked: readonly T[]) => void
}

function Picks<T extends string>({ label, options, words, value, onChange }: PicksProps<T>) {
  return (
    <Checkbox.Group
      mt="sm"
      label={label}
      value={[...value]}
      onChange={(picked) => onChange(options.filter((one) => picked.includes(one)))}
    >
      <Group gap="sm" mt={4}>
        {options.map((one) => (
          <Checkbox key={one} value={one} label={words(one)} size="xs" />
        ))}
      </Group>
    </Checkbox.Group>
  )
}

interface FormProps {
  readonly draft: OwnMove
  readonly vocabulary: Vocabulary
  /** It is known already, so its id stays. */
  readonly isKnown: boolean
  /** Offered when it was made of what is selected. */
  readonly canReplace: boolean
  readonly onSave: (move: OwnMove, replace: boolean) => void
  readonly onClose: () => void
}

/** Names an own move and sets it right, with its line as it will stand in the braid. */
export function OwnMoveForm(props: FormProps) {
  const { vocabulary, isKnown, canReplace, onSave, onClose } = props
  const [draft, setDraft] = useState(props.draft)
  const [replace, setReplace] = useState(canReplace)
  const set = (changes: Partial<OwnMove>) => setDraft((now) => ({ ...now, ...changes }))
  const isFeet = draft.layer === 'feet'
  const wrong = problemIn(draft)
  const finished = (): OwnMove | undefined => {
    if (wrong || !draft.name.trim()) return undefined
    const id = isKnown ? draft.id : freeId(draft.name, vocabulary)
    const to = isFeet ? endOfPattern(readPattern(draft.pattern ?? '')) : draft.to
    return OwnMove.safeParse({ ...draft, id, name: draft.name.trim(), ...(to && { to }) }).data
  }
  const move = finished()
  const preview = move && moveOfOwn(move)
  return (
    <Modal
      opened
      onClose={onClose}
      title={isKnown ? `Change “${props.draft.name}”` : `An own move of the ${draft.layer}`}
      size="lg"
      centered
    >
      <form
        onSubmit={(event) => {
          event.preventDefault()
          if (move) onSave(move, replace)
        }}
      >
        <TextInput
          label="What the class calls it"
          data-autofocus
          required
          value={draft.name}
          onChange={({ currentTarget }) => set({ name: currentTarget.value })}
        />
        {isFeet ? (
          <Textarea
            mt="sm"
            label="Its steps, starting on the right foot"
            autosize
            minRows={2}
            value={draft.pattern ?? ''}
            error={wrong}
            onChange={({ currentTarget }) => set({ pattern: currentTarget.value })}
          />
        ) : (
          <Textarea
            mt="sm"
            label="What moves, written for the right side"
            description="arc(L>F>R), peak(pelvis.side +7 sharp), osc(pelvis.tilt 4, 2/count); + and then, & together"
            autosize
            minRows={2}
            value={draft.motion ?? ''}
            error={wrong}
            onChange={({ currentTarget }) => set({ motion: currentTarget.value })}
          />
        )}
        <div className={classes.fields}>
          <NumberField
            size="sm"
            allowDecimal
            label="Counts"
            min={0.25}
            max={16}
            step={0.5}
            value={draft.counts}
            onCommit={(counts) => set({ counts })}
          />
          {!isFeet && (
            <NativeSelect
              label="Kind"
              data={MoveKind.exclude(['steps']).options}
              value={draft.kind}
              onChange={({ currentTarget }) => set({ kind: MoveKind.parse(currentTarget.value) })}
            />
          )}
          <NativeSelect
            label="Sides"
            data={Sided.options.map((value) => ({ value, label: SIDED_WORDS[value] }))}
            value={draft.sided}
            onChange={({ currentTarget }) => set({ sided: Sided.parse(currentTarget.value) })}
          />
          <NativeSelect
            label="Demand"
            data={['1', '2', '3', '4', '5']}
            value={String(draft.demand ?? 2)}
            onChange={({ currentTarget }) => set({ demand: Number(currentTarget.value) })}
          />
        </div>
        {!isFeet && (
          <Checkbox.Group
            mt="sm"
            label="Parts it needs for itself"
            value={[...draft.claims]}
            onChange={(picked) => {
              const claims = BodyPart.array().parse(picked)
              if (claims.length > 0) set({ claims })
            }}
          >
            <Group gap="sm" mt={4}>
              {BodyPart.exclude(['feet']).options.map((part) => (
                <Checkbox key={part} value={part} label={part} size="xs" />
              ))}
            </Group>
          </Checkbox.Group>
        )}
        <TextInput
          mt="sm"
          label="How it is done"
          value={draft.feel ?? ''}
          onChange={({ currentTarget: { value } }) =>
            setDraft(({ feel: _, ...now }) => (value ? { ...now, feel: value } : now))
          }
        />
        <TextInput
          mt="sm"
          label="Care"
          value={draft.care ?? ''}
          onChange={({ currentTarget: { value } }) =>
            setDraft(({ care: _, ...now }) => (value ? { ...now, care: value } : now))
          }
        />
        <div className={classes.fields}>
          <NumberField
            size="sm"
            allowDecimal
            label="Seconds it needs"
            min={0.1}
            max={60}
            step={0.1}
            value={draft.fastest ?? Math.round(draft.counts * 4) / 10}
            onCommit={(fastest) => set({ fastest })}
          />
          <TextInput
            label="Easier form"
            placeholder="its id"
            value={draft.easier ?? ''}
            error={unknownForm(draft.easier, vocabulary)}
            onChange={({ currentTarget: { value } }) =>
              setDraft(({ easier: _, ...now }) => (value ? { ...now, easier: value } : now))
            }
          />
          <TextInput
            label="Harder form"
            placeholder="its id"
            value={draft.harder ?? ''}
            error={unknownForm(draft.harder, vocabulary)}
            onChange={({ currentTarget: { value } }) =>
              setDraft(({ harder: _, ...now }) => (value ? { ...now, harder: value } : now))
            }
          />
        </div>
        <Picks
          label="It is hard on"
          options={Risk.options}
          words={(risk) => risk}
          value={draft.risk ?? []}
          onChange={(risk) =>
            setDraft(({ risk: _, ...now }) => (risk.length > 0 ? { ...now, risk } : now))
          }
        />
        <Picks
          label="It needs"
          options={Need.options}
          words={(need) => need.replaceAll('-', ' ')}
          value={draft.needs ?? []}
          onChange={(needs) =>
            setDraft(({ needs: _, ...now }) => (needs.length > 0 ? { ...now, needs } : now))
          }
        />
        <section aria-label={`Preview, ${layerWord[draft.layer]}`} className={classes.preview}>
          {preview && move ? (
            <MoveLine move={preview} vocabulary={withOwn(vocabulary, [move])} />
          ) : (
            <p>Its line is shown here when the text above can be read.</p>
          )}
        </section>
        {canReplace && (
          <Checkbox
            mt="sm"
            label="Put it in place of what is selected"
            checked={replace}
            onChange={({ currentTarget }) => setReplace(currentTarget.checked)}
          />
        )}
        <Group justify="flex-end" mt="md">
          <Button variant="default" onClick={onClose}>
            Cancel
          </Button>
          <Button type="submit" disabled={!move}>
            Keep this move
          </Button>
        </Group>
      </form>
    </Modal>
  )
}
