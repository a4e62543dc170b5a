import classes from './braid.module.css'
import type { RibbonShape } from './ribbonShape'

/** The weight ribbon, with a jagged mark in each gap. */
export function Ribbon({
  shape,
  width,
  y,
}: {
  shape: RibbonShape
  width: number
  y: { L: number; R: number }
}) {
  const middle = (y.L + y.R) / 2
  const reach = Math.abs(y.R - y.L) * 0.75
  return (
    <g className={classes.ribbon}>
      {shape.strands.map(({ path, split }) => (
        <path
          key={path}
          d={path}
          strokeWidth={split ? width / 2.4 : width}
          stroke="url(#ribbon-heat)"
          fill="none"
          strokeLinecap="round"
        />
      ))}
      {shape.gaps.map((x) => (
        <path
          key={x}
          className={classes.gap}
          d={`M${x} ${middle - reach} l-4 ${reach * 0.6} l8 ${reach * 0.5} l-4 ${reach * 0.9}`}
        />
      ))}
    </g>
  )
}

/** The ribbon's colour goes from the left foot to the right one; drawn once for all ribbons of a height. */
export function RibbonInk({ top, bottom }: { top: number; bottom: number }) {
  return (
    <defs>
      <linearGradient
        id="ribbon-heat"
        gradientUnits="userSpaceOnUse"
        x1={0}
        x2={0}
        y1={top}
        y2={bottom}
      >
        <stop offset="0" className={classes.inkLeft} />
        <stop offset="1" className={classes.inkRight} />
      </linearGradient>
    </defs>
  )
}
