import { createStore } from 'zustand/vanilla'

/** How the list of what fits is shown: as a sheet from below for a finger, beside the count for a mouse. */
export interface Placing {
  readonly by: 'finger' | 'mouse'
  /** Where the count is in the window, in pixels. */
  readonly left: number
  readonly top: number
}

/** What fits where the selection stands is asked for; absent while it is not. */
export const placing = createStore<Placing | { readonly by: undefined }>(() => ({ by: undefined }))

/** The next place that is touched is the end of what is selected. */
export const extending = createStore<{ readonly isOn: boolean }>(() => ({ isOn: false }))

export const openPlacing = (how: Placing): void => placing.setState(how, true)

export const closePlacing = (): void => {
  placing.setState({ by: undefined }, true)
  extending.setState({ isOn: false })
}
