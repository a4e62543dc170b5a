import { MultiSelect, NativeSelect, Select, TextInput } from '@mantine/core'
import { type Combination, DancerLevel } from '../../core/combination/combination'
import type { Group } from '../../core/diary/diary'
import type { WishesChange } from '../../core/plan/edits'
import {
  ClassType,
  LEAST_MINUTES,
  MOST_MINUTES,
  type PlanWishes,
  Seen,
  SidesWish,
  TeachingWay,
} from '../../core/plan/plan'
import type { Proposal } from '../../core/plan/planner'
import { FASTEST, SLOWEST } from '../../core/time/tempo'
import { TimeOfDay } from '../../core/time/timeOfDay'
import { NumberField } from '../parts/NumberField'
import classes from './plan.module.css'

const WAY_WORDS: Readonly<Record<TeachingWay, string>> = {
  propose: 'whichever suits it',
  phrases: 'phrase by phrase',
  layers: 'layer by layer',
  counts: 'count by count',
}
const TYPE_WORDS: Readonly<Record<ClassType, string>> = {
  'drop-in': 'drop-in: all of it, both sides',
  technique: 'technique: three things, then their use',
  choreography: 'choreography over weeks',
  slot: 'a slot of a longer class',
}
const SIDES_WORDS: Readonly<Record<SidesWish, string>> = {
  propose: 'whichever suit it',
  both: 'both',
  lead: 'the lead side alone',
  last: 'the other side last',
}
const SEEN_WORDS: Readonly<Record<Seen, string>> = {
  none: 'nobody has',
  some: 'some have',
  all: 'everybody has',
}

interface WishesFormProps {
  readonly wishes: PlanWishes
  readonly proposal: Proposal
  readonly all: readonly Combination[]
  /** Those of it that are deleted: they stay wished for until they are taken off. */
  readonly gone: readonly { readonly id: string; readonly title: string }[]
  readonly groups: readonly Group[]
  readonly group: string | undefined
  /** Minutes this group has taken for eight new counts. */
  readonly pace: number | undefined
  readonly onWishes: (label: string, change: WishesChange) => void
  readonly onGroup: (id: string | undefined) => void
}

/** What a class is planned from. */
export function WishesForm(props: WishesFormProps) {
  const { wishes, proposal, all, gone, groups, group, pace, onWishes, onGroup } = props
  const { ways, room } = proposal
  const titleOf = (id: string) => [...all, ...gone].find((one) => one.id === id)?.title ?? 'gone'
  return (
    <section className={classes.wishes} aria-label="What the class is planned from">
      <MultiSelect
        size="xs"
        label="Combinations"
        data={[...all, ...gone].map(({ id, title }) => ({ value: id, label: title }))}
        value={[...wishes.combinations]}
        maxValues={8}
        searchable
        onChange={(combinations) =>
          combinations.length > 0 && onWishes('other combinations', { combinations })
        }
      />
      <div className={classes.pair}>
        <NumberField
          label="Minutes"
          min={LEAST_MINUTES}
          max={MOST_MINUTES}
          step={5}
          value={wishes.minutes}
          onCommit={(minutes) => onWishes('length of the class', { minutes })}
        />
        <NativeSelect
          size="xs"
          label="Level"
          data={DancerLevel.options}
          value={wishes.level}
          onChange={({ currentTarget: { value } }) =>
            onWishes('level', { level: DancerLevel.parse(value) })
          }
        />
        <NativeSelect
          size="xs"
          className={classes.wide ?? ''}
          label="Mixed levels"
          data={[
            { value: '', label: 'no, all the same' },
            ...DancerLevel.options
              .slice(DancerLevel.options.indexOf(wishes.level) + 1)
              .map((value) => ({ value, label: `up to ${value}` })),
          ]}
          value={wishes.levelTo ?? ''}
          onChange={({ currentTarget: { value } }) =>
            onWishes('mixed levels', {
              levelTo: value === '' ? undefined : DancerLevel.parse(value),
            })
          }
        />
        <NumberField
          label="Tempo now"
          min={SLOWEST}
          max={FASTEST}
          step={2}
          value={wishes.tempoNow}
          onCommit={(tempoNow) => onWishes('tempo now', { tempoNow })}
        />
        <NumberField
          label="Target tempo"
          min={SLOWEST}
          max={FASTEST}
          step={2}
          value={wishes.tempoTarget}
          onCommit={(tempoTarget) => onWishes('tempo meant', { tempoTarget })}
        />
        <NativeSelect
          size="xs"
          className={classes.wide ?? ''}
          label="Kind of class"
          data={ClassType.options.map((value) => ({ value, label: TYPE_WORDS[value] }))}
          value={wishes.type}
          onChange={({ currentTarget: { value } }) =>
            onWishes('kind of class', { type: ClassType.parse(value) })
          }
        />
        <NativeSelect
          size="xs"
          className={classes.wide ?? ''}
          label="Sides"
          data={SidesWish.options
            .toReversed()
            .map((value) => ({ value, label: SIDES_WORDS[value] }))}
          value={wishes.sides}
          onChange={({ currentTarget: { value } }) =>
            onWishes('sides', { sides: SidesWish.parse(value) })
          }
        />
        <NativeSelect
          size="xs"
          className={classes.wide ?? ''}
          label="Taught"
          data={TeachingWay.options
            .toReversed()
            .map((value) => ({ value, label: WAY_WORDS[value] }))}
          value={wishes.way}
          onChange={({ currentTarget: { value } }) =>
            onWishes('way of teaching', { way: TeachingWay.parse(value) })
          }
        />
        <NativeSelect
          size="xs"
          className={classes.wide ?? ''}
          label="Seen it before"
          data={Seen.options.map((value) => ({ value, label: SEEN_WORDS[value] }))}
          value={wishes.seen}
          onChange={({ currentTarget: { value } }) =>
            onWishes('who has seen it', { seen: Seen.parse(value) })
          }
        />
      </div>
      <TextInput
        size="xs"
        type="time"
        label="Begins at"
        value={wishes.startsAt ?? ''}
        onChange={({ currentTarget: { value } }) => {
          if (value === '') onWishes('begin', { startsAt: undefined })
          else if (TimeOfDay.safeParse(value).success) onWishes('begin', { startsAt: value })
        }}
      />
      {room.of > room.counts && (
        <p className={classes.because}>
          {wishes.minutes} minutes are room for <b>{room.counts}</b> of {room.of} counts.
        </p>
      )}
      {wishes.way === 'propose' &&
        ways.map(({ combination, way, because }) => (
          <p key={combination} className={classes.because}>
            <b>{titleOf(combination)}</b> {WAY_WORDS[way]}: {because}.
          </p>
        ))}
      <Select
        size="xs"
        label="Group"
        placeholder="no group"
        clearable
        data={groups.map(({ id, name }) => ({ value: id, label: name }))}
        value={group ?? null}
        onChange={(id) => onGroup(id ?? undefined)}
      />
      {pace !== undefined && (
        <p className={classes.because}>
          About {Math.round(pace)} min for eight new counts in its last classes.
        </p>
      )}
      {wishes.known.reviews.map(({ combination, phrases, because }) => (
        <p key={combination + phrases.join()} className={classes.because}>
          Review <b>{titleOf(combination)}</b>: {because}.
        </p>
      ))}
    </section>
  )
}
