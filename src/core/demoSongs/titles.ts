/** The invented songs that can be tried, by what they are called. */
export const DEMO_SONGS = [
  { id: 'kiln-yard', title: 'Kiln Yard' },
  { id: 'slow-copper', title: 'Slow Copper' },
] as const
export type DemoId = (typeof DEMO_SONGS)[number]['id']
