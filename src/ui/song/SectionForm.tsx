import { NativeSelect, TextInput } from '@mantine/core'
import { PART_KINDS } from '../../core/beats/parts'
import { labelOf } from '../../core/song/heard'
import { sectionChanged, sectionFrom, sectionJoined, sectionMoved } from '../../core/song/sections'
import type { Section, Song } from '../../core/song/song'
import { clockText } from '../../core/time/clock'
import { NumberField } from '../parts/NumberField'
import { Tool } from '../parts/Tool'
import type { Change } from './countChanges'
import { Pair } from './Pair'
import classes from './song.module.css'

/** What is known of a section, changed as it is typed. */
export function SectionForm({
  song,
  section,
  at,
  newId,
  change,
}: {
  readonly song: Song
  readonly section: Section
  readonly at: number
  readonly newId: () => string
  readonly change: Change
}) {
  const { id } = section
  const others = song.sections.filter((one) => one.id !== id && one.as === undefined)
  const set = (made: Parameters<typeof sectionChanged>[2], mark: string) =>
    change('section', (now) => sectionChanged(now, id, made), `${id} ${mark}`)
  return (
    <fieldset className={classes.form}>
      <legend>Section</legend>
      <Pair>
        <TextInput
          size="xs"
          label="Name"
          maxLength={40}
          value={section.label}
          onChange={({ currentTarget: { value } }) =>
            value !== '' && set({ label: value }, 'label')
          }
        />
        <NativeSelect
          size="xs"
          label="What it is"
          data={PART_KINDS.map((kind) => ({ value: kind, label: labelOf(kind) }))}
          value={section.kind}
          onChange={({ currentTarget }) => {
            const kind = currentTarget.value as Section['kind']
            const isNamed = section.label !== labelOf(section.kind)
            set({ kind, ...(!isNamed && { label: labelOf(kind) }) }, 'kind')
          }}
        />
      </Pair>
      <Pair>
        <NumberField
          label="Energy, 1 to 5"
          value={section.energy}
          min={1}
          max={5}
          onCommit={(energy) => set({ energy }, 'energy')}
        />
        <NativeSelect
          size="xs"
          label="Same as"
          data={[
            { value: '', label: 'no other' },
            ...others.map((one) => ({
              value: one.id,
              label: `${one.label}, ${clockText((song.counts.ms[one.at] ?? 0) / 1000)}`,
            })),
          ]}
          value={section.as ?? ''}
          onChange={({ currentTarget }) => set({ as: currentTarget.value || undefined }, 'as')}
        />
      </Pair>
      <Pair>
        <Tool
          onClick={() => change('new section', (now) => sectionFrom(now, at, newId()))}
          isOff={section.at === at}
        >
          New from here
        </Tool>
        <Tool
          onClick={() => change('join sections', (now) => sectionJoined(now, id))}
          isOff={song.sections[0]?.id === id}
        >
          Join to the last
        </Tool>
      </Pair>
      <Pair>
        <Tool
          onClick={() => change('section', (now) => sectionMoved(now, id, section.at - 1))}
          isOff={song.sections[0]?.id === id}
        >
          A count earlier
        </Tool>
        <Tool
          onClick={() => change('section', (now) => sectionMoved(now, id, section.at + 1))}
          isOff={song.sections[0]?.id === id}
        >
          A count later
        </Tool>
      </Pair>
    </fieldset>
  )
}
