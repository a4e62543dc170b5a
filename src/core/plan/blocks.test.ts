import { describe, expect, it } from 'vitest'
import { demo } from '../../../tests/demo'
import { materials, wishesOf } from '../../../tests/teaching'
import { blocksOf } from './blocks'
import { secondsOf } from './material'
import { planClass } from './planner'

describe('a class in blocks', () => {
  it('leaves no step out, follows the clock, and is read as few: an hour has at most twenty', () => {
    for (const { title } of demo)
      for (const minutes of [15, 60, 120]) {
        const { drills } = planClass(wishesOf(title, { minutes, level: 'improver' }), materials)
        const blocks = blocksOf(drills, materials)
        expect(blocks.flatMap((block) => block.drills)).toEqual(drills)
        let at = 0
        for (const block of blocks) {
          expect(block.at).toBe(at)
          expect(block.seconds).toBe(
            block.drills.reduce((sum, drill) => sum + secondsOf(drill, materials), 0),
          )
          at += block.seconds
        }
        for (const [i, block] of blocks.entries())
          expect(block.title).not.toBe(blocks[i - 1]?.title)
        if (minutes === 60) expect(blocks.length).toBeLessThanOrEqual(20)
        expect(blocks[0]?.title).toBe('Hello')
        expect(blocks.at(-1)?.title).toBe('Cool down')
      }
  })
})
