const WORDS = {
  saved: 'saved',
  saving: 'saving…',
  failed: 'not saved',
  elsewhere: 'saved as a copy',
} as const

/** Says whether all of what is shown is stored: “saved” stands only while nothing waits. */
export function SavedWord({ state }: { readonly state: keyof typeof WORDS }) {
  return <span data-save-state={state}>{WORDS[state]}</span>
}
