import { NativeSelect } from '@mantine/core'
import {
  Grip,
  HoldHeight,
  isHand,
  type Meeting,
  Relation,
  Through,
  TouchAs,
} from '../../core/combination/between'
import type { Prop } from '../../core/combination/carried'
import type { Part } from '../../core/combination/part'
import { CENTRE } from '../../core/combination/whose'
import { NumberField } from '../parts/NumberField'
import { HandSelect, MetSelect, PartSelect, Pick, TwoSelect } from './meetingSelects'
import classes from './studio.module.css'

interface FieldsProps {
  readonly what: Meeting
  readonly parts: readonly Part[]
  readonly carried: readonly Prop[]
  readonly write: (what: Meeting) => void
}

/** What there is to say of one kind of meeting. */
export function MeetingFields({ what, parts, carried, write }: FieldsProps) {
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
          <ApartField
            apart={apart}
            onCommit={(metres) => write({ ...what, apart: metres })}
            onClear={() => write(rest)}
          />
        </div>
      )
    }
    case 'orbit': {
      const { apart, face, ...rest } = what
      return (
        <div className={classes.cardRow}>
          <TwoSelect
            labels={['Who', 'Round']}
            parts={parts}
            two={[what.of, what.round]}
            onChange={([of, round]) => write({ ...what, of, round })}
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
          <ApartField
            apart={apart}
            onCommit={(metres) => write({ ...what, apart: metres })}
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
          <TwoSelect
            labels={['Who carries', 'Whom']}
            parts={parts}
            two={[what.by, what.of]}
            onChange={([by, of]) => write({ ...what, by, of })}
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
          <TwoSelect
            labels={['Who', 'At']}
            parts={parts}
            two={[what.a, what.b]}
            onChange={([a, b]) => write({ ...what, a, b })}
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
    case 'pass':
      return (
        <div className={classes.cardRow}>
          <NativeSelect
            size="xs"
            label="What"
            data={carried.map(({ id, name }) => ({ value: id, label: name }))}
            value={what.prop}
            onChange={({ currentTarget: { value } }) => write({ ...what, prop: value })}
          />
          <HandSelect
            label="From"
            hand={what.from}
            parts={parts}
            not={what.to.part}
            onChange={(from) => write({ ...what, from })}
          />
          <HandSelect
            label="To"
            hand={what.to}
            parts={parts}
            not={what.from.part}
            onChange={(to) => write({ ...what, to })}
          />
        </div>
      )
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

interface ApartFieldProps {
  readonly apart: number | undefined
  readonly onCommit: (metres: number) => void
  readonly onClear: () => void
}

/** How far two are apart, in metres. */
const ApartField = ({ apart, onCommit, onClear }: ApartFieldProps) => (
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
    onCommit={(metres) => onCommit(Math.round(metres * 100) / 100)}
    onClear={onClear}
  />
)
