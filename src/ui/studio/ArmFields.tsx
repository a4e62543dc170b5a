import { NativeSelect } from '@mantine/core'
import { HandShape, PalmWay } from '../../core/body/hands'
import { ArmPlace, Via } from '../../core/body/places'
import { SIDES, Side, sideWord } from '../../core/body/side'
import { type ArmsWhat, handsWith, isAnything } from '../../core/what/arms'
import type { What } from '../../core/what/kinds'
import { PairSelect } from './PairSelect'
import classes from './studio.module.css'

/** Where the arms go, how the hands are held, and which arm is in front. */
export function ArmFields({
  what,
  write,
}: {
  readonly what: ArmsWhat
  readonly write: (what: What) => void
}) {
  const { R, L, hands, via, over, ...rest } = what
  const shown = { ...(via && { via }), ...(over && { over }), ...(hands && { hands }) }
  // Without anything it would be nothing: take it out instead.
  const change = (next: ArmsWhat) => {
    if (isAnything(next)) write(next)
  }
  const places = { ...(R && { R }), ...(L && { L }) }
  return (
    <>
      <div className={classes.cardRow}>
        <PairSelect
          part="arm"
          places={ArmPlace.options}
          value={what}
          onPair={(pair) => {
            const { over: front, ...kept } = shown
            const crosses = front && pair[front] !== undefined
            change({ ...rest, ...kept, ...pair, ...(crosses && { over: front }) })
          }}
        />
        <NativeSelect
          size="xs"
          label="By the"
          className={classes.grow}
          data={['', ...Via.options].map((one) => ({ value: one, label: one || 'straight' }))}
          value={via ?? ''}
          onChange={({ currentTarget }) => {
            const { via: _, ...kept } = shown
            const said = Via.safeParse(currentTarget.value)
            change({ ...rest, ...places, ...kept, ...(said.success && { via: said.data }) })
          }}
        />
        {R && L && (
          <NativeSelect
            size="xs"
            label="In front"
            className={classes.grow}
            data={[
              { value: '', label: 'the lead arm' },
              ...SIDES.map((side) => ({ value: side, label: sideWord[side] })),
            ]}
            value={over ?? ''}
            onChange={({ currentTarget }) => {
              const { over: _, ...kept } = shown
              const said = Side.safeParse(currentTarget.value)
              change({ ...rest, ...places, ...kept, ...(said.success && { over: said.data }) })
            }}
          />
        )}
      </div>
      <div className={classes.cardRow}>
        <PairSelect
          part="hand"
          places={HandShape.options}
          value={{ R: hands?.R?.shape, L: hands?.L?.shape }}
          onPair={(pair) => change(handsWith(what, 'shape', pair))}
        />
        <PairSelect
          part="palm"
          places={PalmWay.options}
          value={{ R: hands?.R?.palm, L: hands?.L?.palm }}
          onPair={(pair) => change(handsWith(what, 'palm', pair))}
        />
      </div>
    </>
  )
}
