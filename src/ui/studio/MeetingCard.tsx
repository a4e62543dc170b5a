import { ActionIcon, Button, NativeSelect, TextInput } from '@mantine/core'
import { IconArrowLeft, IconArrowRight, IconTrash, IconX } from '@tabler/icons-react'
import { useStore } from 'zustand'
import { capital } from '../../core/capital'
import {
  Grip,
  type Hand,
  HoldHeight,
  isHand,
  type Meeting,
  type Met,
  Relation,
  SpotName,
  Through,
  TouchAs,
} from '../../core/combination/between'
import type { Part } from '../../core/combination/part'
import { CENTRE } from '../../core/combination/whose'
import { type BetweenChange, changeBetween, removeBetween } from '../../core/edits/between'
import { meetingWords } from '../../core/teaching/meetingWords'
import { HALF_COUNT, labelIn, labelOfSpan, tick } from '../../core/time/time'
import { NumberField } from '../parts/NumberField'
import { changeAll, type Session } from '../stores/session'
import { documentOf, meetingPicked } from '../stores/state'
import classes from './studio.module.css'

/** Everything about what two do with each other, to be changed by hand. */
export function MeetingCard({
  session,
  onClose,
}: {
  readonly session: Session
  readonly onClose: () => void
}) {
  const picked = useStore(session, meetingPicked)
  const { parts = [], phrases } = useStore(session, documentOf)
  const phrase = phrases.find(({ between = [] }) => between.some(({ id }) => id === picked?.id))
  if (!picked || !phrase) return null
  const set = (change: BetweenChange, mark?: string) =>
    changeAll(session, `change the ${picked.what.kind}`, changeBetween(picked.id, change), mark)
  const write = (what: Meeting) => set({ what })
  return (
    <section className={classes.card} aria-label="What they do together">
      <header className={classes.cardHead}>
        <h2 className="display">{capital(picked.what.kind)}</h2>
        <ActionIcon variant="subtle" color="gray" aria-label="Close" onClick={onClose}>
          <IconX size={16} />
        </ActionIcon>
      </header>
      <p className={classes.cardWhen}>
        {meetingWords(picked.what, parts)}, counts {labelOfSpan(picked, labelIn(phrase))}
      </p>
      <div className={classes.cardRow}>
        <NativeSelect
          size="xs"
          aria-label="What they do"
          data={KINDS}
          value={picked.what.kind}
          onChange={({ currentTarget }) =>
            write(another(picked.what, currentTarget.value as Meeting['kind'], parts))
          }
        />
        <Button.Group>
          <Step
            label="Half a count earlier"
            onClick={() => set({ at: tick(picked.at - HALF_COUNT) })}
          >
            <IconArrowLeft size={14} />
          </Step>
          <Step
            label="Half a count later"
            onClick={() => set({ at: tick(picked.at + HALF_COUNT) })}
          >
            <IconArrowRight size={14} />
          </Step>
        </Button.Group>
        <Button.Group>
          <Step
            label="Half a count shorter"
            onClick={() => set({ length: tick(Math.max(HALF_COUNT, picked.length - HALF_COUNT)) })}
          >
            −½
          </Step>
          <Step
            label="Half a count longer"
            onClick={() => set({ length: tick(picked.length + HALF_COUNT) })}
          >
            +½
          </Step>
        </Button.Group>
        <ActionIcon
          variant="default"
          aria-label="Take it out"
          onClick={() => {
            changeAll(session, `take the ${picked.what.kind} out`, removeBetween(picked.id))
            onClose()
          }}
        >
          <IconTrash size={16} />
        </ActionIcon>
      </div>
      <Fields what={picked.what} parts={parts} write={write} />
      <div className={classes.cardRow}>
        {(['cue', 'note'] as const).map((key) => (
          <TextInput
            key={key}
            size="xs"
            label={capital(key)}
            className={classes.grow}
            value={picked[key] ?? ''}
            onChange={({ currentTarget: { value } }) =>
              set({ [key]: value }, `${key} ${picked.id}`)
            }
          />
        ))}
      </div>
    </section>
  )
}

interface StepProps {
  readonly label: string
  readonly onClick: () => void
  readonly children: React.ReactNode
}

const Step = ({ label, onClick, children }: StepProps) => (
  <Button size="compact-sm" variant="default" aria-label={label} onClick={onClick}>
    {children}
  </Button>
)

const KINDS: readonly { value: Meeting['kind']; label: string }[] = [
  { value: 'hold', label: 'hold' },
  { value: 'touch', label: 'touch' },
  { value: 'place', label: 'place' },
  { value: 'orbit', label: 'go round' },
  { value: 'support', label: 'support' },
  { value: 'led', label: 'lead a turn' },
  { value: 'look', label: 'look' },
  { value: 'wait', label: 'wait' },
]

/** The same two doing something else. */
function another(what: Meeting, kind: Meeting['kind'], parts: readonly Part[]): Meeting {
  const [first, second] = twoOf(what, parts)
  const hands = {
    from:
      what.kind === 'hold' || what.kind === 'touch'
        ? what.from
        : ({ part: first, side: 'R' } as const),
    to:
      what.kind === 'hold' || what.kind === 'touch'
        ? what.to
        : ({ part: second, side: 'L' } as const),
  }
  switch (kind) {
    case 'hold':
      return { kind, ...hands, grip: isHand(hands.to) ? 'palm' : 'flat' }
    case 'touch':
      return { kind, ...hands, as: 'palm' }
    case 'place':
      return { kind, of: first, rel: 'right', to: second }
    case 'orbit':
      return { kind, of: first, round: second, degrees: 360 }
    case 'support':
      return { kind, by: second, of: first, share: 20 }
    case 'led':
      return { kind, of: first, by: { part: second, side: 'R' } }
    case 'look':
      return { kind, a: first, b: second }
    case 'wait':
      return { kind, of: [first] }
  }
}

function twoOf(what: Meeting, parts: readonly Part[]): readonly [string, string] {
  const other = (id: string) => parts.find((part) => part.id !== id)?.id ?? ''
  switch (what.kind) {
    case 'hold':
    case 'touch':
      return [what.from.part, what.to.part]
    case 'place':
      return [what.of, what.to === CENTRE ? other(what.of) : what.to]
    case 'orbit':
      return [what.of, what.round]
    case 'support':
      return [what.of, what.by]
    case 'led':
      return [what.of, what.by.part]
    case 'look':
      return [what.a, what.b]
    case 'wait':
      return [what.of[0] ?? '', other(what.of[0] ?? '')]
  }
}

interface FieldsProps {
  readonly what: Meeting
  readonly parts: readonly Part[]
  readonly write: (what: Meeting) => void
}

function Fields({ what, parts, write }: FieldsProps) {
  const names = parts.map(({ id, name }) => ({ value: id, label: name }))
  /** Nobody meets herself: who is chosen for both changes the other one too. */
  const others = (id: string) => names.filter(({ value }) => value !== id)
  switch (what.kind) {
    case 'hold':
    case 'touch':
      return (
        <>
          <div className={classes.cardRow}>
            <HandSelect
              label="Hand"
              hand={what.from}
              parts={parts}
              onChange={(from) => write({ ...what, from })}
              not={what.to.part}
            />
            <MetSelect
              met={what.to}
              parts={parts}
              not={what.from.part}
              onChange={(to) => write({ ...what, to })}
            />
          </div>
          <div className={classes.cardRow}>
            {what.kind === 'touch' ? (
              <Pick
                label="How"
                all={TouchAs.options}
                value={what.as}
                onChange={(as) => as && write({ ...what, as })}
              />
            ) : (
              <>
                <Pick
                  label="Grip"
                  all={Grip.options}
                  value={what.grip}
                  onChange={(grip) => grip && write({ ...what, grip })}
                />
                {isHand(what.to) && (
                  <Pick
                    label="Height"
                    all={HoldHeight.options}
                    value={what.height}
                    empty="waist, or as the arms lead"
                    onChange={(height) => {
                      const { height: _, ...rest } = what
                      write(height ? { ...rest, height } : rest)
                    }}
                  />
                )}
                <Pick
                  label="Turns"
                  all={Through.options}
                  value={what.through}
                  empty="no turn"
                  onChange={(through) => {
                    const { through: _, ...rest } = what
                    write(through ? { ...rest, through } : rest)
                  }}
                />
              </>
            )}
          </div>
        </>
      )
    case 'place': {
      const { apart, ...rest } = what
      return (
        <div className={classes.cardRow}>
          <PartSelect
            label="Who"
            data={others(what.to)}
            value={what.of}
            onChange={(of) => write({ ...what, of })}
          />
          <Pick
            label="Comes"
            all={Relation.options}
            value={what.rel}
            onChange={(rel) => rel && write({ ...what, rel })}
          />
          <PartSelect
            label="Of"
            data={[...others(what.of), { value: CENTRE, label: 'the middle' }]}
            value={what.to}
            onChange={(to) => write({ ...what, to })}
          />
          <NumberField
            size="xs"
            label="Metres"
            w={90}
            step={0.1}
            min={0.2}
            max={6}
            allowDecimal
            placeholder="usual"
            value={apart}
            onCommit={(metres) => write({ ...what, apart: Math.round(metres * 100) / 100 })}
            onClear={() => write(rest)}
          />
        </div>
      )
    }
    case 'orbit': {
      const { apart, face, ...rest } = what
      return (
        <div className={classes.cardRow}>
          <PartSelect
            label="Who"
            data={others(what.round)}
            value={what.of}
            onChange={(of) => write({ ...what, of })}
          />
          <PartSelect
            label="Round"
            data={others(what.of)}
            value={what.round}
            onChange={(round) => write({ ...what, round })}
          />
          <NumberField
            size="xs"
            label="Degrees"
            w={90}
            step={90}
            min={-1080}
            max={1080}
            value={what.degrees}
            onCommit={(degrees) => degrees !== 0 && write({ ...what, degrees })}
          />
          <NumberField
            size="xs"
            label="Metres"
            w={80}
            step={0.1}
            min={0.2}
            max={6}
            allowDecimal
            placeholder="usual"
            value={apart}
            onCommit={(metres) => write({ ...what, apart: Math.round(metres * 100) / 100 })}
            onClear={() => write(face ? { ...rest, face } : rest)}
          />
          <Pick
            label="Facing"
            all={['in', 'out', 'along'] as const}
            value={face}
            empty="as written"
            onChange={(to) =>
              write({ ...rest, ...(apart !== undefined && { apart }), ...(to && { face: to }) })
            }
          />
        </div>
      )
    }
    case 'support':
      return (
        <div className={classes.cardRow}>
          <PartSelect
            label="Who carries"
            data={others(what.of)}
            value={what.by}
            onChange={(by) => write({ ...what, by })}
          />
          <PartSelect
            label="Whom"
            data={others(what.by)}
            value={what.of}
            onChange={(of) => write({ ...what, of })}
          />
          <NumberField
            size="xs"
            label="% of her weight"
            w={110}
            step={5}
            min={5}
            max={60}
            value={what.share}
            onCommit={(share) => write({ ...what, share })}
          />
        </div>
      )
    case 'led':
      return (
        <div className={classes.cardRow}>
          <PartSelect
            label="Who turns"
            data={others(what.by.part)}
            value={what.of}
            onChange={(of) => write({ ...what, of })}
          />
          <HandSelect
            label="Led by"
            hand={what.by}
            parts={parts}
            not={what.of}
            onChange={(by) => write({ ...what, by })}
          />
        </div>
      )
    case 'look': {
      const { oneWay, ...rest } = what
      return (
        <div className={classes.cardRow}>
          <PartSelect
            label="Who"
            data={others(what.b)}
            value={what.a}
            onChange={(a) => write({ ...what, a })}
          />
          <PartSelect
            label="At"
            data={others(what.a)}
            value={what.b}
            onChange={(b) => write({ ...what, b })}
          />
          <NativeSelect
            size="xs"
            label="Eyes"
            data={[
              { value: 'meet', label: 'meet' },
              { value: 'one', label: 'only the first looks' },
            ]}
            value={oneWay ? 'one' : 'meet'}
            onChange={({ currentTarget: { value } }) =>
              write(value === 'one' ? { ...rest, oneWay: true } : rest)
            }
          />
        </div>
      )
    }
    case 'wait':
      return (
        <div className={classes.cardRow}>
          <NativeSelect
            size="xs"
            label="Who waits"
            data={names}
            value={what.of[0] ?? ''}
            onChange={({ currentTarget: { value } }) => write({ ...what, of: [value] })}
          />
        </div>
      )
  }
}

interface PartSelectProps {
  readonly label: string
  readonly data: readonly { readonly value: string; readonly label: string }[]
  readonly value: string
  readonly onChange: (id: string) => void
}

const PartSelect = ({ label, data, value, onChange }: PartSelectProps) => (
  <NativeSelect
    size="xs"
    label={label}
    data={[...data]}
    value={value}
    onChange={({ currentTarget }) => onChange(currentTarget.value)}
  />
)

interface PickProps<T extends string> {
  readonly label: string
  readonly all: readonly T[]
  readonly value: T | undefined
  /** What it is called where nothing is chosen; it can't be left open without one. */
  readonly empty?: string
  readonly onChange: (value: T | undefined) => void
}

function Pick<T extends string>({ label, all, value, empty, onChange }: PickProps<T>) {
  return (
    <NativeSelect
      size="xs"
      label={label}
      data={[
        ...(empty === undefined ? [] : [{ value: '', label: empty }]),
        ...all.map((one) => ({ value: one, label: one.replaceAll('-', ' ') })),
      ]}
      value={value ?? ''}
      onChange={({ currentTarget }) => onChange(all.find((one) => one === currentTarget.value))}
    />
  )
}

const SIDE_WORDS = { R: 'right', L: 'left' } as const

interface HandSelectProps {
  readonly label: string
  readonly hand: Hand
  readonly parts: readonly Part[]
  readonly not: string
  readonly onChange: (hand: Hand) => void
}

function HandSelect({ label, hand, parts, not, onChange }: HandSelectProps) {
  return (
    <NativeSelect
      size="xs"
      label={label}
      data={parts
        .filter(({ id }) => id !== not)
        .flatMap(({ id, name }) =>
          (['R', 'L'] as const).map((side) => ({
            value: `${id}.${side}`,
            label: `${name}’s ${SIDE_WORDS[side]}`,
          })),
        )}
      value={`${hand.part}.${hand.side}`}
      onChange={({ currentTarget }) => {
        const [part = '', side] = currentTarget.value.split('.')
        onChange({ part, side: side === 'L' ? 'L' : 'R' })
      }}
    />
  )
}

function MetSelect({
  met,
  parts,
  not,
  onChange,
}: {
  readonly met: Met
  readonly parts: readonly Part[]
  readonly not: string
  readonly onChange: (met: Met) => void
}) {
  const keyOf = (one: Met) =>
    isHand(one) ? `${one.part}.${one.side}` : `${one.part}..${one.on}.${one.side ?? ''}`
  return (
    <NativeSelect
      size="xs"
      label="Meets"
      data={parts
        .filter(({ id }) => id !== not)
        .flatMap(({ id, name }) => [
          ...(['R', 'L'] as const).map((side) => ({
            value: `${id}.${side}`,
            label: `${name}’s ${SIDE_WORDS[side]} hand`,
          })),
          ...SpotName.options.map((on) => ({
            value: `${id}..${on}.${isHand(met) || met.on !== on ? '' : (met.side ?? '')}`,
            label: `${name}’s ${on}`,
          })),
        ])}
      value={keyOf(met)}
      onChange={({ currentTarget }) => {
        const [part = '', side = '', on] = currentTarget.value.split('.')
        const spot = SpotName.safeParse(on).data
        onChange(spot ? { part, on: spot } : { part, side: side === 'L' ? 'L' : 'R' })
      }}
    />
  )
}
