import { NativeSelect, Switch, TextInput } from '@mantine/core'
import { IconSearch } from '@tabler/icons-react'
import { memo, type RefObject, useMemo, useState } from 'react'
import { DancerLevel } from '../../core/combination/combination'
import { matches, type Wish } from '../../core/findings/summary'
import { Family, familiesWith } from '../../core/moves/move'
import type { OnShelf } from '../../storage/combinations'
import { CardGrid } from './CardGrid'
import type { CardActions } from './CombinationCard'
import classes from './combinations.module.css'

interface ShelfViewProps {
  readonly stored: readonly OnShelf[]
  readonly actions: CardActions
  readonly scroller: RefObject<HTMLElement | null>
}

/** What is looked for, and the cards that are like it. Only this is drawn again with each letter. */
export const ShelfView = memo(function ShelfView({ stored, actions, scroller }: ShelfViewProps) {
  const [wish, setWish] = useState<Wish>({ text: '', switches: false })
  const found = useMemo(
    () => stored.filter(({ summary }) => matches(summary, wish)),
    [stored, wish],
  )
  const used = useMemo(() => stored.flatMap(({ summary }) => summary.families), [stored])
  return (
    <>
      <div className={classes.wishes}>
        <TextInput
          className={classes.search}
          aria-label="Search combinations"
          placeholder="Search by name, family, tag"
          leftSection={<IconSearch size={16} />}
          value={wish.text}
          onChange={({ currentTarget: { value } }) => setWish((w) => ({ ...w, text: value }))}
        />
        <NativeSelect
          aria-label="Family"
          data={[{ value: '', label: 'every family' }, ...familiesWith(used)]}
          value={wish.family ?? ''}
          onChange={({ currentTarget: { value } }) =>
            setWish((w) => ({ ...w, family: Family.safeParse(value).data }))
          }
        />
        <NativeSelect
          aria-label="Level"
          data={[{ value: '', label: 'every level' }, ...DancerLevel.options]}
          value={wish.level ?? ''}
          onChange={({ currentTarget: { value } }) =>
            setWish((w) => ({ ...w, level: DancerLevel.safeParse(value).data }))
          }
        />
        <Switch
          label="switches by itself"
          checked={wish.switches}
          onChange={({ currentTarget: { checked } }) =>
            setWish((w) => ({ ...w, switches: checked }))
          }
        />
        <span className={classes.number} aria-live="polite" data-found>
          {`${found.length} of ${stored.length}`}
        </span>
      </div>
      <CardGrid shown={found} actions={actions} scroller={scroller} />
      {found.length === 0 && (
        <p className={classes.empty}>
          {stored.length === 0
            ? 'Nothing here yet. Start a new combination, or drop files here that were saved before.'
            : 'No combination is like that. Try a part of its name, or fewer filters.'}
        </p>
      )}
    </>
  )
})
