import { describe, expect, it } from 'vitest'
import { newReturn, sent } from '../core/practice/returned'
import { marked, withSeconds } from './marks'

describe('what a page remembers', () => {
  it('adds up rounds and minutes, and sends begun minutes as whole ones', () => {
    const at = { chunk: 'a', side: 'L', percent: 60 } as const
    const twice = marked(marked(marked(newReturn('abcdefgh', 'x'), at, true), at, false), at, true)
    expect(twice.rows).toEqual([{ ...at, clean: 2, notYet: 1 }])
    const danced = withSeconds(withSeconds(twice, '2026-11-29', 50), '2026-11-29', 20)
    expect(sent(danced).days).toEqual([{ day: '2026-11-29', minutes: 2 }])
  })
})
