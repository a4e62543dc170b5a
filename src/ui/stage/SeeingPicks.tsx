import { NativeSelect } from '@mantine/core'
import { CLEAREST, type Dancer } from '../../core/pose/dancer'
import { type View, viewFacts } from '../../core/pose/views'
import type { FrameChoice } from '../../dancer/frames'

/** How much larger than they are danced isolations can be shown. */
export const CLEARER = [1, 1.3, CLEAREST].map((by) => ({
  value: String(by),
  label: `${Math.round(by * 100)} %`,
}))

const GHOSTS = [
  { value: 'none', label: 'no ghost' },
  { value: 'next', label: 'next count' },
  { value: 'still', label: 'standing still' },
] as const satisfies readonly { readonly value: FrameChoice['ghost']; readonly label: string }[]

/** How an isolation is made visible. */
interface Seeing {
  readonly ghost: FrameChoice['ghost']
  readonly clearer: number
}

/** What is said on the picture while isolations are larger than they are danced. */
export const clearerWords = (clearer: number): string =>
  clearer > 1 ? ` Isolations at ${Math.round(clearer * 100)} %.` : ''

/** What is written on every picture of a dancer: whose right is where, and how large isolations are. */
export const pictureWords = (view: View, { options }: Dancer): string =>
  viewFacts[view].whose + clearerWords(options.clearer ?? 1)

/** What shows through beside the dancer, and how large isolations are shown. */
export function SeeingPicks({
  ghost,
  clearer,
  onChange,
}: Seeing & { readonly onChange: (change: Partial<Seeing>) => void }) {
  return (
    <>
      <NativeSelect
        size="xs"
        aria-label="Shows through beside it"
        value={ghost}
        onChange={({ currentTarget }) =>
          onChange({ ghost: currentTarget.value as FrameChoice['ghost'] })
        }
        data={GHOSTS}
      />
      <NativeSelect
        size="xs"
        aria-label="How large isolations are shown"
        value={String(clearer)}
        onChange={({ currentTarget }) => onChange({ clearer: Number(currentTarget.value) })}
        data={CLEARER}
      />
    </>
  )
}
