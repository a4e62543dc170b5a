import type { StoreApi } from 'zustand/vanilla'

/** A store that only its maker changes. */
export type Readable<T> = Pick<StoreApi<T>, 'getState' | 'getInitialState' | 'subscribe'>
