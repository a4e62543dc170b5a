import { describe, expect, it } from 'vitest'
import { agreement } from '../../../tests/pieces/agreement'
import { listen } from '../beats/listen'
import { type DemoSong, demoSong } from './demoSongs'
import { DEMO_SONGS, type DemoId } from './titles'

const made = new Map<DemoId, DemoSong>()
function songNamed(id: DemoId): DemoSong {
  const song = made.get(id) ?? demoSong(id)
  made.set(id, song)
  return song
}

describe('the songs of the demo', () => {
  it('are the very same each time', () => {
    const again = demoSong('kiln-yard').samples
    expect(songNamed('kiln-yard').samples.every((value, i) => value === again[i])).toBe(true)
  })

  it.each(DEMO_SONGS)('$title is heard as it is played', ({ id }) => {
    const song = songNamed(id)
    const { samples, rate, counts, sections, silent } = song
    expect(samples.every((value) => Math.abs(value) < 1)).toBe(true)
    const heard = listen(samples, rate)
    if (typeof heard === 'string') throw new Error(heard)
    const isCounted = (at: number) =>
      silent.every(({ from, to }) => at < (counts[from] as number) || at > (counts[to] as number))
    const truth = counts.filter((at) => isCounted(at))
    expect(agreement(heard.counts.filter(isCounted), truth)).toBeGreaterThan(0.95)
    const borders = heard.sections.map(({ at }) => heard.counts[at] as number)
    const played = sections.map(({ at }) => counts[at] as number)
    expect(agreement(borders, played, 1.5)).toBeGreaterThan(0.5)
  })
})
