import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { LIMITS } from '../../src/core/house/limits'

const ROOT = join(import.meta.dirname, '..', '..')
const DOCS = [
  'README.md',
  ...readdirSync(join(ROOT, 'docs'))
    .filter((one) => one.endsWith('.md'))
    .map((one) => `docs/${one}`),
]
const read = (path: string) => readFileSync(join(ROOT, path), 'utf8')

describe('the documents', () => {
  it.each(DOCS)('%s points only at what is there', (path) => {
    const links = [...read(path).matchAll(/\]\(([^)#]+)(?:#[^)]*)?\)/g)].map(([, to = '']) => to)
    const own = links.filter((to) => !/^[a-z]+:/.test(to))
    expect(own.filter((to) => !existsSync(join(ROOT, dirname(path), to)))).toEqual([])
  })

  it('name only folders and files of the source that are there', () => {
    for (const path of DOCS) {
      const named = [...read(path).matchAll(/`((?:src|tests|scripts|bench|docs)\/[\w./-]+)`/g)]
      // What a recipe makes is not there yet.
      const made = [...read(path).matchAll(/^New `([^`]+)`/gm)].map(([, place]) => place)
      for (const [, place = ''] of named)
        if (!made.includes(place)) expect(existsSync(join(ROOT, place)), place).toBe(true)
    }
  })

  it('show every picture there is, and not too many', () => {
    const pictures = readdirSync(join(ROOT, 'docs', 'screenshots'))
    expect(pictures.length).toBeLessThan(20)
    const text = read('README.md')
    expect(pictures.filter((one) => !text.includes(`docs/screenshots/${one}`))).toEqual([])
  })

  it('name the figures of the house as they are', () => {
    const text = read('docs/model.md').replaceAll(/\s+/g, ' ')
    for (const [said, id] of [
      ['within 0.22 s (fault 0.15)', 'quick.sameFoot'],
      ['within 0.11 s (fault 0.08)', 'quick.eitherFoot'],
      ['over 0.9 m', 'quick.stride'],
      ['over 3.5 m a second', 'reach.armSpeed'],
      ['Talk is 6 s', 'plan.talk'],
      ['8 for each new thing', 'plan.talkThing'],
      ['25 once for technique', 'plan.talkTechnique'],
      ['1.6 s a count', 'plan.walk'],
      ['none between up to 1.35 times', 'plan.riseNone'],
      ['over 0.5 m', 'join.travel'],
      ['in the air over 2 s', 'balance.air'],
      ['over 1 count before its event', 'call.lead'],
      ['2 before a switch', 'call.leadBig'],
    ] as const) {
      expect(text).toContain(said)
      expect(
        said
          .replaceAll(/[^\d.]+/g, ' ')
          .trim()
          .split(' ')
          .map(Number),
      ).toContain(LIMITS[id].usual)
    }
  })
})
