import { ActionIcon, Button, NativeSelect, Switch, TextInput } from '@mantine/core'
import { IconArrowBackUp } from '@tabler/icons-react'
import { useState } from 'react'
import { useStore } from 'zustand'
import { DancerLevel } from '../../core/combination/combination'
import { DancerLook } from '../../core/house/dancerLook'
import { type HouseRules, USUAL_RULES, withLimit } from '../../core/house/house'
import { lengthIn, metresOf, rangeIn, Units } from '../../core/house/lengths'
import { LIMIT_GROUPS, LIMITS, LimitId, unitAfter } from '../../core/house/limits'
import { folded } from '../../core/record/folded'
import { changedLike } from '../../core/record/history'
import { KeysButton, KeysHelp } from '../parts/KeysHelp'
import { undoKeys } from '../parts/keys'
import { NumberField } from '../parts/NumberField'
import { UndoButtons } from '../parts/UndoButtons'
import { useScreenKeys } from '../parts/useScreenKeys'
import { changeHouse, houseNow } from '../stores/house'
import { useServices } from '../stores/services'
import { useChanges } from '../stores/useChanges'
import classes from './house.module.css'
import { Layerings } from './Layerings'

/** What may be chosen of the dancer that is drawn. */
const LOOKS: readonly {
  readonly label: string
  readonly part: keyof DancerLook
  readonly words: Readonly<Record<string, string>>
}[] = [
  { label: 'body', part: 'shape', words: { woman: 'a woman’s', man: 'a man’s' } },
  {
    label: 'outfit',
    part: 'outfit',
    words: {
      family: 'Match the dance family',
      scarf: 'hip scarf with fringe',
      'long skirt': 'long skirt',
      'short skirt': 'short skirt',
      sash: 'trousers with a sash',
    },
  },
  { label: 'waist', part: 'waist', words: { bare: 'bare', covered: 'covered' } },
  { label: 'hair', part: 'hair', words: { braid: 'braid', knot: 'knot', short: 'short' } },
  { label: 'skin', part: 'skin', words: { light: 'light', warm: 'warm', deep: 'deep' } },
]

/** How this studio works: its room, its class, its rules, and every figure the checks go by. */
export function HouseScreen() {
  const { house } = useServices()
  const rules = useStore(houseNow, ({ rules: now }) => now)
  const [query, setQuery] = useState('')
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set())
  const { note, ...changes } = useChanges<HouseRules>(({ before, after }) => {
    if (before && after) changeHouse(house, (now) => changedLike(now, before, after))
  })
  const keys = useScreenKeys(undoKeys(changes.undo, changes.redo))
  const save = (label: string, change: (now: HouseRules) => HouseRules) => {
    note({ label, mark: label, before: rules, after: change(rules) })
    changeHouse(house, change)
  }
  const set = <K extends keyof HouseRules>(key: K, value: HouseRules[K]) =>
    save(RULE_WORDS[key] ?? key, (now) => ({ ...now, [key]: value }))
  const words = folded(query).split(/\s+/)
  const found = LimitId.options.filter((id) => {
    const text = folded(`${LIMITS[id].words} ${LIMIT_GROUPS[groupOf(id)]} ${id}`)
    return words.every((word) => text.includes(word))
  })
  const groups = Object.keys(LIMIT_GROUPS).filter((group) =>
    found.some((id) => groupOf(id) === group),
  )
  const { room, heights, dancer, units } = rules
  return (
    <main className={classes.house}>
      <div className={classes.top}>
        <h1 className="display">House rules</h1>
        <UndoButtons {...changes} />
        <KeysButton onClick={keys.onOpen} />
        <KeysHelp {...keys} />
      </div>
      <p className={classes.lead}>
        What the checks go by in your studio. They are judgements, not laws: change what you see
        otherwise. Where someone has pain, an injury or a doubt, a doctor’s or physiotherapist’s
        word goes before any figure here.
      </p>
      <section className={classes.rules} aria-label="Room and class">
        <LengthField
          label="Room width"
          {...ROOM}
          units={units}
          value={room.width}
          onCommit={(width) => set('room', { ...room, width })}
        />
        <LengthField
          label="Room depth"
          {...ROOM}
          units={units}
          value={room.depth}
          onCommit={(depth) => set('room', { ...room, depth })}
        />
        <NumberField
          size="sm"
          label="Dancers in the class"
          min={1}
          max={200}
          value={rules.dancers}
          onCommit={(dancers) => set('dancers', dancers)}
        />
        <LengthField
          label="Shortest dancer"
          {...BODY}
          units={units}
          value={heights.shortest}
          onCommit={(shortest) => set('heights', { ...heights, shortest })}
        />
        <LengthField
          label="Tallest dancer"
          {...BODY}
          units={units}
          value={heights.tallest}
          onCommit={(tallest) => set('heights', { ...heights, tallest })}
        />
        <LengthField
          label="Figure height"
          {...BODY}
          units={units}
          value={dancer.height}
          onCommit={(height) => set('dancer', { ...dancer, height })}
        />
        <NativeSelect
          label="Figure build"
          data={[
            { value: '0.9', label: 'slender' },
            { value: '1', label: 'usual' },
            { value: '1.15', label: 'broad' },
          ]}
          value={String(dancer.build)}
          onChange={({ currentTarget }) =>
            set('dancer', { ...dancer, build: Number(currentTarget.value) })
          }
        />
        {LOOKS.map(({ label, part, words }) => (
          <NativeSelect
            key={part}
            label={`Figure ${label}`}
            data={Object.entries(words).map(([value, word]) => ({ value, label: word }))}
            value={dancer.look[part]}
            onChange={({ currentTarget }) =>
              set('dancer', {
                ...dancer,
                look: DancerLook.parse({ ...dancer.look, [part]: currentTarget.value }),
              })
            }
          />
        ))}
        <NativeSelect
          label="Units"
          data={Units.options}
          value={rules.units}
          onChange={({ currentTarget }) => set('units', Units.parse(currentTarget.value))}
        />
        <NativeSelect
          label="Usual level"
          data={DancerLevel.options}
          value={rules.level}
          onChange={({ currentTarget }) => set('level', DancerLevel.parse(currentTarget.value))}
        />
        <Switch
          label="Stagger every second row"
          checked={rules.staggered}
          onChange={({ currentTarget }) => set('staggered', currentTarget.checked)}
        />
        <Switch
          label="Turns keep their direction on the other side"
          checked={rules.keepTurns}
          onChange={({ currentTarget }) => set('keepTurns', currentTarget.checked)}
        />
      </section>
      <Layerings rules={rules} onChange={save} />
      <div className={classes.top}>
        <h2 className="display">Limits</h2>
        <TextInput
          aria-label="Find a limit"
          placeholder="Find a limit"
          size="sm"
          value={query}
          onChange={({ currentTarget }) => setQuery(currentTarget.value)}
        />
        <Button
          variant="default"
          size="compact-md"
          disabled={Object.keys(rules.limits).length === 0}
          onClick={() => set('limits', USUAL_RULES.limits)}
        >
          Reset all limits
        </Button>
      </div>
      {groups.map((group) => (
        <section key={group} aria-label={LIMIT_GROUPS[group]}>
          <h3>{LIMIT_GROUPS[group]}</h3>
          {MANY.has(group) && query === '' && !opened.has(group) ? (
            <Button
              variant="default"
              size="compact-sm"
              onClick={() => setOpened(new Set([...opened, group]))}
            >
              Show {LimitId.options.filter((id) => groupOf(id) === group).length} limits
            </Button>
          ) : (
            <div className={classes.limits}>
              {found
                .filter((id) => groupOf(id) === group)
                .map((id) => (
                  <LimitField
                    key={id}
                    id={id}
                    value={rules.limits[id]}
                    onChange={(value) => save(LIMITS[id].words, (now) => withLimit(now, id, value))}
                  />
                ))}
            </div>
          )}
        </section>
      ))}
      {groups.length === 0 && <p className={classes.lead}>No limit has these words.</p>}
    </main>
  )
}

const RULE_WORDS: Partial<Record<keyof HouseRules, string>> = {
  room: 'the room',
  dancers: 'the number of dancers',
  heights: 'the heights',
  dancer: 'the dancing figure',
  level: 'the level',
  staggered: 'the rows',
  keepTurns: 'keeping turns',
  limits: 'all limits',
}

/** Groups too long to lie open. */
const MANY: ReadonlySet<string> = new Set(['palm'])

const groupOf = (id: LimitId): string => id.split('.')[0] ?? ''

/** Metres that can be meant, and how far an arrow goes. */
const ROOM = { least: 1, most: 100, step: 0.5 } as const
const BODY = { least: 0.9, most: 2.3, step: 0.05 } as const

interface LengthFieldProps {
  readonly label: string
  /** In metres, as all below. */
  readonly value: number
  readonly least: number
  readonly most: number
  readonly step: number
  readonly units: Units
  readonly onCommit: (metres: number) => void
}

/** A length in what the studio measures with. */
function LengthField({ label, value, least, most, step, units, onCommit }: LengthFieldProps) {
  const isFeet = units === 'feet'
  return (
    <NumberField
      size="sm"
      allowDecimal
      label={label}
      suffix={isFeet ? ' ft' : ' m'}
      {...rangeIn(least, most, units)}
      step={isFeet ? step * 4 : step}
      value={lengthIn(value, units)}
      onCommit={(typed) => onCommit(metresOf(typed, units))}
    />
  )
}

interface LimitFieldProps {
  readonly id: LimitId
  readonly value: number | undefined
  readonly onChange: (value: number | undefined) => void
}

function LimitField({ id, value, onChange }: LimitFieldProps) {
  const { words, unit, usual, least, most } = LIMITS[id]
  return (
    <div className={classes.limit} data-changed={value !== undefined}>
      <NumberField
        allowDecimal
        label={words}
        suffix={` ${unitAfter(unit, value ?? usual)}`}
        min={least}
        max={most}
        decimalScale={3}
        step={usual >= 30 ? 15 : usual >= 4 ? 1 : 0.05}
        value={value ?? usual}
        onCommit={onChange}
      />
      <span className={classes.usual}>
        {value === undefined ? 'as usual' : `usually ${usual} ${unitAfter(unit, usual)}`}
        {value !== undefined && (
          <ActionIcon
            size="sm"
            variant="subtle"
            aria-label={`${words}: ${usual} ${unitAfter(unit, usual)} again`}
            onClick={() => onChange(undefined)}
          >
            <IconArrowBackUp size={14} />
          </ActionIcon>
        )}
      </span>
    </div>
  )
}
