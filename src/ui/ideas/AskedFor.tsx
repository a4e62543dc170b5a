import { Button, NativeSelect, Popover } from '@mantine/core'
import { useStore } from 'zustand'
import { DancerLevel } from '../../core/combination/combination'
import type { WantedEnd } from '../../core/suggest/asked'
import { FASTEST, SLOWEST } from '../../core/time/tempo'
import { NumberField } from '../parts/NumberField'
import { useGroups } from '../planning/usePlanning'
import classes from './ideas.module.css'
import { type Wished, wished } from './wished'

const ENDS: Readonly<Record<WantedEnd, string>> = {
  switch: 'so that it switches sides',
  repeat: 'so that it repeats',
}

/** What ideas are asked for besides: their end, for whom, at which level and tempo. */
export function AskedFor() {
  const wish = useStore(wished, (s) => s)
  const groups = useGroups()
  const { end, tempo, level, group } = wish
  const set = (changed: Partial<Wished>) => wished.setState(changed)
  const named = groups.find(({ id }) => id === group?.id)?.name
  const said = [
    end && `ends ${ENDS[end]}`,
    named && (group?.news ? `${named}, one new thing` : `what ${named} knows`),
    level,
    tempo && `at ${tempo}`,
  ].filter(Boolean)
  return (
    <Popover position="bottom-start" trapFocus returnFocus withinPortal>
      <Popover.Target>
        <Button size="compact-sm" variant={said.length > 0 ? 'light' : 'subtle'}>
          {said.length > 0 ? `Asked: ${said.join(', ')}` : 'Ask for more …'}
        </Button>
      </Popover.Target>
      <Popover.Dropdown className={classes.asked} aria-label="What ideas are asked for">
        <NativeSelect
          size="xs"
          label="Ends"
          value={end ?? ''}
          onChange={({ currentTarget: { value } }) =>
            set({ end: value === '' ? undefined : (value as WantedEnd) })
          }
          data={[
            { value: '', label: 'any way' },
            ...Object.entries(ENDS).map(([value, label]) => ({ value, label })),
          ]}
        />
        <NativeSelect
          size="xs"
          label="For"
          value={group ? `${group.news} ${group.id}` : ''}
          onChange={({ currentTarget: { value } }) =>
            set({
              group:
                value === ''
                  ? undefined
                  : { id: value.slice(2), news: value.startsWith('1') ? 1 : 0 },
            })
          }
          data={[
            { value: '', label: 'anybody' },
            ...groups.flatMap(({ id, name }) => [
              { value: `0 ${id}`, label: `${name}: only what it knows` },
              { value: `1 ${id}`, label: `${name}: with one new thing` },
            ]),
          ]}
        />
        <NativeSelect
          size="xs"
          label="Level"
          value={level ?? ''}
          onChange={({ currentTarget: { value } }) =>
            set({ level: value === '' ? undefined : DancerLevel.parse(value) })
          }
          data={[{ value: '', label: 'as it is' }, ...DancerLevel.options]}
        />
        <NumberField
          size="xs"
          label="Tempo, where it is not its own"
          min={SLOWEST}
          max={FASTEST}
          value={tempo}
          onCommit={(now) => set({ tempo: now })}
          onClear={() => set({ tempo: undefined })}
        />
      </Popover.Dropdown>
    </Popover>
  )
}
