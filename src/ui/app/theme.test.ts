import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'

const css = readFileSync(join(import.meta.dirname, 'theme.css'), 'utf8')

type Tokens = Readonly<Record<string, string>>

/** The colours of a theme; the evening has those of the day that it does not set. */
function tokensOf(scheme: 'light' | 'dark'): Tokens {
  const block = new RegExp(`color-scheme="${scheme}"\\] \\{([^}]*)\\}`).exec(css)?.[1] ?? ''
  return Object.fromEntries(
    [...block.matchAll(/--([\w-]+): (#[0-9a-f]{6});/g)].map(([, name = '', value = '']) => [
      name,
      value,
    ]),
  )
}

/** Relative luminance, as WCAG 2 defines it. */
function luminance(hex: string): number {
  const [r = 0, g = 0, b = 0] = [1, 3, 5].map((at) => {
    const share = Number.parseInt(hex.slice(at, at + 2), 16) / 255
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4
  })
  return 0.2126 * r + 0.7152 * g + 0.0722 * b
}

function contrast(a: string, b: string): number {
  const [high = 0, low = 0] = [luminance(a), luminance(b)].sort((x, y) => y - x)
  return (high + 0.05) / (low + 0.05)
}

const LAYERS = ['feet', 'hips', 'torso', 'arms', 'head']

describe.each(['light', 'dark'] as const)('the %s theme', (scheme) => {
  const tokens = tokensOf(scheme)
  const ratio = (text: string, ground: string) =>
    contrast(tokens[text] ?? '#000000', tokens[ground] ?? '#000000')

  it.each([
    ...['ink', 'quiet', 'ember', 'fault', ...LAYERS].flatMap((text) => [
      [text, 'paper'],
      [text, 'card'],
    ]),
    ['on-ember', 'ember'],
    ...['on-bar', 'bar-quiet', 'bar-ember'].map((text) => [text, 'bar']),
  ])('can be read: %s on %s (AA)', (text = '', ground = '') => {
    expect(tokens).toHaveProperty([text])
    expect(ratio(text, ground)).toBeGreaterThanOrEqual(4.5)
  })

  it.each([
    ['floor-ink', 'floor'],
    ['floor-ember', 'floor'],
    ['floor', 'floor-ember'],
  ])('can be read from three metres: %s on %s (AAA)', (text, ground) => {
    expect(ratio(text, ground)).toBeGreaterThanOrEqual(7)
  })

  it('tells the layers apart by more than their words, and the ribbon’s two feet', () => {
    const colours = LAYERS.map((layer) => tokens[layer])
    expect(new Set(colours).size).toBe(LAYERS.length)
    expect(ratio('ribbon-right', 'paper')).toBeGreaterThan(3)
    expect(ratio('ribbon-right', 'ribbon-left')).toBeGreaterThan(1.5)
  })
})
