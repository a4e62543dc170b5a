/** Where a command writes to, and how it ends. */
export interface Output {
  /** What was asked for. */
  readonly print: (text: string | Uint8Array) => void
  /** What is to be known besides. */
  readonly say: (text: string) => void
}

/** It was read, but something stays that can't be danced, or is too hard. */
export const FAULTS = 1
/** Nothing could be read. */
export const UNREADABLE = 2
