import type { CSSProperties, ReactNode, Ref } from 'react'
import { useStore } from 'zustand'
import type { Family } from '../../core/moves/move'
import type { Pose } from '../../core/pose/joints'
import type { View } from '../../core/pose/views'
import { FLAT, flatOf } from '../../core/skin/flat'
import { dressFor } from '../../core/skin/outfits'
import { dancerNow } from '../stores/dancer'
import classes from './stage.module.css'

/** The floor a pose is drawn flat on. */
function FlatFloor({
  view,
  label,
  children,
}: {
  readonly view: View
  readonly label: string
  readonly children: ReactNode
}) {
  const { look } = useStore(dancerNow, (s) => s)
  return (
    <svg
      className={classes.flat}
      viewBox={`${FLAT.left} ${FLAT.top} ${FLAT.width} ${FLAT.height}`}
      role="img"
      aria-label={label}
      style={{ '--skin': `var(--skin-${look.skin})` } as CSSProperties}
    >
      <ellipse className={classes.floor} cx={0} cy={0} rx={70} ry={view === 'above' ? 0 : 7} />
      {children}
    </svg>
  )
}

/** A pose drawn flat: where there is no WebGL, on paper, and as a small picture. */
export function FlatFigure({
  pose,
  view,
  label,
  families,
}: {
  readonly pose: Pose
  readonly view: View
  readonly label: string
  /** Of the dance: the dancer is dressed for it. */
  readonly families: readonly Family[]
}) {
  const { look } = useStore(dancerNow, (s) => s)
  return (
    <FlatFloor view={view} label={label}>
      {flatOf(pose, view, dressFor(look, families)).map(({ layer, tone, width, d }, i) => (
        <path
          // Pieces have no names of their own and are drawn anew each time.
          // biome-ignore lint/suspicious/noArrayIndexKey: the order is all there is
          key={i}
          d={d}
          className={`${classes[tone]} layer-${layer}`}
          fill={width > 0 ? 'none' : undefined}
          stroke={width > 0 ? undefined : 'none'}
          strokeWidth={width || undefined}
        />
      ))}
    </FlatFloor>
  )
}

/** Where a pose is drawn flat again and again by `drawFlat`. */
export function FlatStage({
  group,
  view,
  label,
}: {
  readonly group: Ref<SVGGElement>
  readonly view: View
  readonly label: string
}) {
  return (
    <FlatFloor view={view} label={label}>
      <g ref={group} data-flat />
    </FlatFloor>
  )
}
