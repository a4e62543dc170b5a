import type { ReactNode } from 'react'
import classes from './song.module.css'

/** Two things side by side. */
export const Pair = ({ children }: { readonly children: ReactNode }) => (
  <div className={classes.pair}>{children}</div>
)
