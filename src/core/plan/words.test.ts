import { describe, expect, it } from 'vitest'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { materialsOf, roundOf } from './material'
import { type PlanWishes, wishesFor } from './plan'
import { planClass } from './planner'
import { taughtText } from './tell'
import { wordsOfPlan } from './words'

/** A class of some sheets, with what is said in it. */
function classOf(sheets: readonly string[], more: Partial<PlanWishes> = {}) {
  const all = sheets.map((text, i) => ({
    ...readSheet(text, vocabulary).combination,
    id: `dance ${i}`,
  }))
  const own = materialsOf(all, vocabulary, USUAL_HOUSE)
  const wishes = {
    ...wishesFor(all[0]!, 'improver'),
    combinations: all.map(({ id }) => id),
    ...more,
  }
  const { drills } = planClass(wishes, own)
  const words = wordsOfPlan({ drills, wishes }, own)
  const said = drills.flatMap((drill) =>
    (words.get(drill.id)?.say ?? []).map((line) => `${drill.kind}: ${line}`),
  )
  return { drills, own, said }
}

const NOTED = `sway 1
"Lamp oil"
phrase A 8 "Pour"
  feet 1 step R side; 2 close L; 3 step R side; 4 touch L together; 5 step L side; 6 close R; 7 step L side; 8 touch R together
  hips 3 hip-drop R note "a small one"
  note 5 "look over the lamp"
`

/** Eight eights, none like the one before, and a ninth. */
const LONG = `sway 1
"Long lamp"
${'ABCDEFGHI'
  .split('')
  .map(
    (name) => `phrase ${name} 8
  feet 1 step R side; 2 close L; 3 step R side; 4 touch L together; 5 step L side; 6 close R; 7 step L side; 8 touch R together
  hips 4 ${name < 'E' ? 'hip-drop' : 'hip-lift'} L`,
  )
  .join('\n')}
order A B C D E F G H I
`

describe('what is said before a step', () => {
  it('has what the sheet notes, with its count, where it is new, and once', () => {
    const { said } = classOf([NOTED])
    expect(said.filter((line) => /small one|over the lamp/.test(line))).toEqual([
      'walk: On 5: look over the lamp',
      'walk: On 3: a small one',
    ])
  })

  it('does not say again what was said with the walk, be that in halves', () => {
    const full = NOTED.replace('hips 3', 'arms 1 both second; 5 both crown; 7 both low\n  hips 3')
    for (const level of ['new', 'advanced'] as const) {
      const { drills, said } = classOf([full], { level })
      const walks = drills.filter(({ kind }) => kind === 'walk')
      expect(walks.map(({ half }) => half?.from)).toEqual(level === 'new' ? [1, 5] : [undefined])
      expect(said.filter((line) => line.startsWith('all: Weight'))).toEqual([])
      expect(said.filter((line) => line.startsWith('walk: Weight')).length).toBeGreaterThan(0)
    }
  })

  it('tells each dance to listen where it meets its music first, and how to stand', () => {
    const { drills, said } = classOf([NOTED, NOTED.replace('Lamp oil', 'Wick')], { minutes: 90 })
    const listening = said.filter((line) => line.startsWith('run: Listen first'))
    expect(listening).toHaveLength(2)
    expect(said.filter((line) => line.startsWith('run: Once more: knees soft'))).toHaveLength(2)
    for (const id of ['dance 0', 'dance 1']) {
      const own = drills.filter(({ music, combination }) => music && combination === id)
      const [first, second] = own.map(({ talk }) => talk)
      expect(first).toBeGreaterThanOrEqual(USUAL_HOUSE.limits['plan.listen'])
      expect(first).toBeGreaterThan(second ?? 0)
    }
  })

  it('is a page of the handout: each step in its order, without a clock', () => {
    const { own } = classOf([NOTED])
    const text = taughtText(own.find('dance 0')!, own)
    expect(text).toMatch(/^Walk it · A[\s\S]*All layers · A[\s\S]*Other side/)
    expect(text).toContain('On 5: look over the lamp')
    expect(text).not.toMatch(/\d:\d\d/)
  })
})

describe('a long dance', () => {
  it('is shown in parts, each before anything new of it is taught', () => {
    const { drills, own } = classOf([LONG], { minutes: 180 })
    const names = (drill: (typeof drills)[number]) =>
      roundOf(drill, own)?.passes.map(({ phrase }) => phrase.name) ?? []
    const shown = drills.filter(({ kind }) => kind === 'show')
    expect(shown.map((drill) => names(drill).join(''))).toEqual(['ABCDEFGH', 'I'])
    const seen = new Set<string>()
    for (const drill of drills.filter(({ combination }) => combination !== undefined)) {
      if (drill.kind === 'show') for (const name of names(drill)) seen.add(name)
      else for (const name of names(drill)) expect(seen).toContain(name)
    }
    // A short class leaves out all of it before anything that is danced.
    expect(classOf([LONG], { minutes: 15 }).drills.some(({ kind }) => kind === 'show')).toBe(false)
  })
})
