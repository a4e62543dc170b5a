import type { Series } from '../../core/series/series'

/** Changes a series, and says what that moves. */
export type ChangeSeries = (label: string, make: (now: Series) => Series, mark?: string) => void
