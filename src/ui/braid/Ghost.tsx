import classes from './braid.module.css'

/** Where something that is dragged would land, in pixels of the braid. */
export interface GhostBox {
  readonly left: number
  readonly top: number
  readonly width: number
  readonly height: number
}

export function Ghost({ box }: { box: GhostBox }) {
  return <div className={classes.ghost} style={box} data-ghost aria-hidden />
}
