import { NativeSelect } from '@mantine/core'
import type { FrameChoice } from '../../dancer/frames'
import { CLEARER } from './pictureWords'

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
