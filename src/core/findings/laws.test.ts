import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyEdit } from '../../../tests/anyEdit'
import { anyCombination } from '../../../tests/arbitraries'
import { demo } from '../../../tests/demo'
import { holds } from '../../../tests/holds'
import { TEMPO_CODES } from '../../../tests/tempoCodes'
import { combination, feet, move, on, withLengths } from '../../../tests/write'
import { Combination, type Event } from '../combination/combination'
import { mirror } from '../combination/mirror'
import { whatOf } from '../combination/whatOf'
import { leaveFinding, takeUpFinding } from '../edits/leave'
import { sharedTurn, spreadTurn, toFourWalls } from '../edits/turns'
import { houseOf, USUAL_HOUSE, USUAL_RULES, withLimit } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { courseOf } from '../simulate/course'
import { simulate } from '../simulate/simulate'
import { turnsOf } from '../simulate/turns'
import { COUNT, tick } from '../time/time'
import { checkCombination, danceablesOf, tempoLimitsOf } from './check'
import { type Finding, severityOf } from './finding'
import { tempoRoom } from './tempoLimits'

const check = (written: Combination) => checkCombination(written, vocabulary)
const key = ({ code, side, spot, events }: Finding) => [code, side, spot.pass, events[0]].join()

/** Everything written out so that it means the same at twice the length: sizes, repeats and rates. */
const spelt = (event: Event): Event => {
  const { what } = event
  const move_ = what.kind === 'move' ? vocabulary.find(what.move) : undefined
  if (what.kind === 'foot' && !what.action.size && what.action.primitive === 'step')
    return { ...event, what: { ...what, action: { ...what.action, size: 'large' } } }
  if (!move_ || what.kind !== 'move') return event
  return {
    ...event,
    what: { ...what, every: what.every ?? move_.length },
    ...(event.rate === undefined && { rate: 2 }),
  }
}

describe('what is said after edits', () => {
  it('is what would be said of the same combination had it just been read, however it came there', () => {
    holds(
      fc.property(
        anyCombination(),
        fc.array(anyEdit, { minLength: 1, maxLength: 8 }),
        (any, all) => {
          let edited = any
          for (const edit of all) {
            check(edited)
            edited = edit(edited)
          }
          const here = check(edited)
          const read = check(JSON.parse(JSON.stringify(edited)))
          expect(here.findings).toEqual(read.findings)
          expect(here.left).toEqual(read.left)
          expect(here.loads).toEqual(read.loads)
          expect(here.joins).toEqual(read.joins)
          expect(tempoRoom(here)).toEqual(tempoRoom(read))
          for (const side of ['lead', 'other'] as const) {
            expect(here[side].danced).toEqual(read[side].danced)
            expect(courseOf(here[side])).toEqual(courseOf(read[side]))
          }
        },
      ),
      { numRuns: 600, seed: 311 },
    )
  })
})

describe('what only hangs on time', () => {
  it('is the same at twice the tempo, with everything twice as long', () => {
    holds(
      fc.property(anyCombination(), (any) => {
        const { pickup: _, ...rest } = any
        const events = (phrase: Combination['phrases'][number]) =>
          withLengths(phrase)
            .filter(({ at, layer, what }) => at >= 0 && !(layer === 'feet' && what.kind === 'move'))
            // What is there on its tick already has one tick at the least, at any tempo.
            .filter(({ on }) => !on)
            .map(spelt)
        const slow = {
          ...rest,
          // An option is as long as it was.
          order: rest.order.map(({ options: _, ...entry }) => entry),
          tempo: Math.max(40, Math.min(110, rest.tempo)),
          phrases: rest.phrases.map((phrase) => ({
            ...phrase,
            counts: Math.min(8, phrase.counts),
            events: events(phrase).filter((e) => e.at + (e.length ?? 1) <= 96),
          })),
        }
        const twice = (event: Event): Event => ({
          ...event,
          at: tick(event.at * 2),
          ...(event.length !== undefined && { length: tick(event.length * 2) }),
          ...(event.rate !== undefined && { rate: event.rate / 2 }),
          what:
            event.what.kind === 'move' && event.what.every
              ? { ...event.what, every: tick(event.what.every * 2) }
              : event.what,
        })
        const fast = {
          ...slow,
          tempo: slow.tempo * 2,
          phrases: slow.phrases.map((phrase) => ({
            ...phrase,
            counts: phrase.counts * 2,
            events: phrase.events.map(twice),
          })),
        }
        const found = (written: Combination) =>
          check(written)
            .findings.filter(({ code }) => TEMPO_CODES.includes(code))
            // An option is as long as it was.
            .filter(({ option }) => option === undefined)
            // The first start has the count-in, which is counts and not seconds.
            .filter(({ spot, code }) => spot.pass > 0 || code !== 'layer.no-time')
            .filter(({ spot, code }) => spot.pass > 0 || code !== 'turn.too-fast')
            .map(key)
            .sort()
        expect(found(fast)).toEqual(found(slow))
      }),
      { numRuns: 250, seed: 411 },
    )
  })

  it('is not there at the highest tempo that is said, and is just above it', () => {
    holds(
      fc.property(anyCombination(), (any) => {
        const { most, obstacles } = tempoRoom(check(any))
        const tempoFindings = (tempo: number) =>
          danceablesOf(check({ ...any, tempo }))
            .flatMap((one) => tempoLimitsOf(one, () => tempo))
            // What no tempo mends says nothing of the tempo.
            .filter((limit) => limit.most >= 1)
        if (most !== undefined) expect(tempoFindings(most)).toEqual([])
        if (most !== undefined && most < 220)
          expect(tempoFindings(most + 1).length).toBeGreaterThan(0)
        const tempos = obstacles.map((one) => one.most)
        expect(tempos).toEqual([...tempos].sort((a, b) => a - b))
        expect(obstacles.length).toBeLessThanOrEqual(3)
      }),
      { numRuns: 150, seed: 412 },
    )
  })
})

describe('turns', () => {
  it('add up to where the dance faces, however they are kept or seen', () => {
    holds(
      fc.property(anyCombination(), (any) => {
        for (const side of [any, mirror(any)]) {
          const danced = simulate(side, vocabulary)
          const sum = turnsOf(danced).reduce((all, { degrees }) => all + degrees, 0)
          expect(danced.end.facing - danced.start.facing).toBe(sum)
          const last = turnsOf(danced).at(-1)
          if (last) expect(last.facing).toBe(danced.end.facing)
        }
      }),
      { numRuns: 250, seed: 413 },
    )
  })

  it('that are kept go the mirrored way over the floor in the kept facing', () => {
    const turn = combination(
      [feet('1 step R side turn 90; 2 step L forward turn 180; 3 step R back turn 90')],
      { keepTurns: true },
    )
    const other = simulate(mirror(turn), vocabulary).danced.map(({ action }) => action)
    expect(other.map(({ foot, direction, turn: degrees }) => [foot, direction, degrees])).toEqual([
      ['L', 'side', 90],
      ['R', 'back', 180],
      ['L', 'forward', 90],
    ])
    // A figure that turns is danced so too, and both ends lie opposite each other.
    for (const id of ['three-step-turn', 'two-step-turn', 'chaine', 'paddle-turn', 'pivot-half']) {
      const figure = combination([[move(id, '1', 'R')]], { keepTurns: true })
      const [here, there] = [simulate(figure, vocabulary), simulate(mirror(figure), vocabulary)]
      expect(there.end.facing).toBe(here.end.facing)
      expect(there.danced.some(({ fault }) => fault)).toBe(false)
      const at = (s: typeof here) => s.end.feet[s.end.weight === 'R' ? 'R' : 'L'].place
      expect(at(there).right + at(here).right).toBeCloseTo(0, 0)
    }
  })

  it('are kept and taken back: the mirror of the mirror is the original', () => {
    holds(
      fc.property(anyCombination(), (any) => {
        const kept = { ...any, keepTurns: true as const }
        expect(mirror(mirror(kept))).toEqual(kept)
        const signs = (one: Combination) =>
          simulate(one, vocabulary)
            .danced.filter(({ event }) => !event.kept)
            .map(({ action }) => action.turn ?? 0)
        expect(signs(mirror(kept))).toEqual(signs(kept))
      }),
      { numRuns: 150, seed: 414 },
    )
  })

  it('are shared by figures too, to half a degree, exactly, and on the other side as well', () => {
    holds(
      fc.property(
        fc.integer({ min: -1440, max: 1440 }).filter((halves) => halves !== 0),
        fc.integer({ min: 1, max: 8 }),
        (halves, n) => {
          const degrees = halves / 2
          const plain = combination([[move('walk-forward', '1-8', 'R')]])
          const span = { at: tick(0), length: tick(n * COUNT) }
          const turned = sharedTurn('A', span, degrees, 'shared')(plain)
          for (const [sign, one] of [
            [1, turned],
            [-1, mirror(turned)],
          ] as const) {
            const { danced, end } = simulate(one, vocabulary)
            expect(end.facing).toBe(sign * degrees)
            for (const [k, { action }] of danced.slice(0, n).entries()) {
              const sum = danced
                .slice(0, k + 1)
                .reduce((all, step) => all + (step.action.turn ?? 0), 0)
              expect(Math.abs(sum - (sign * degrees * (k + 1)) / n)).toBeLessThanOrEqual(0.25)
              expect(Number.isInteger(2 * (action.turn ?? 0))).toBe(true)
            }
          }
          expect(check(turned).findings.filter(({ code }) => code === 'turn.idle')).toEqual([])
        },
      ),
      { numRuns: 80, seed: 416 },
    )
  })

  it('are shared over steps in whole degrees that add up, and lead to all four walls', () => {
    holds(
      fc.property(
        fc.integer({ min: -720, max: 720 }),
        fc.integer({ min: 1, max: 8 }),
        (degrees, n) => {
          const steps = Array.from(
            { length: 8 },
            (_, i) => `${i + 1} step ${i % 2 ? 'L' : 'R'} in-place`,
          )
          const plain = combination([feet(steps.join(';'))])
          const turned = spreadTurn('A', { at: tick(0), length: tick(n * COUNT) }, degrees)(plain)
          const shares = simulate(turned, vocabulary)
            .danced.slice(0, n)
            .map(({ action }) => action.turn ?? 0)
          expect(shares.reduce((a, b) => a + b, 0)).toBe(degrees)
          expect(Math.max(...shares) - Math.min(...shares)).toBeLessThanOrEqual(1)
          const walls = toFourWalls({ start: 0, end: degrees }, degrees < 0 ? -1 : 1)(turned)
          expect(simulate(walls, vocabulary).end.facing).toBe(degrees < 0 ? -90 : 90)
          expect(check(walls).findings.filter(({ code }) => code === 'turn.sum')).toEqual([])
        },
      ),
      { numRuns: 60, seed: 415 },
    )
  })
})

describe('ordinary dancing', () => {
  it.each(
    vocabulary.moves.filter(({ layer }) => layer === 'feet').map((row) => [row.id, row] as const),
  )('%s at its usual tempo is left in peace', (_, row) => {
    const tempo = Math.min(
      140,
      Math.max(60, Math.round((0.8 * 60 * row.length) / COUNT / row.fastest_s)),
    )
    const once = combination([[{ ...move(row.id, '1'), what: whatOf(row) }]], { tempo })
    const said = check(once).findings.filter((one) => severityOf(one) !== 'note')
    // A run of four a count goes where it goes: two bars of it take more than the front row has.
    expect(said.map(({ code }) => code)).toEqual([])
  })

  it('as in the demo has one deliberate fault, one that does not switch, and no snag', () => {
    const all = demo.map((one) => ({ title: one.title, ...check(one) }))
    const loud = all.flatMap(({ title, findings }) =>
      findings
        .filter((one) => ['fault', 'snag', 'care'].includes(severityOf(one)))
        .map(({ code }) => `${title}: ${code}`),
    )
    // Who leans on a partner is told to be warm, once a piece.
    expect(loud).toEqual(['Find the Slip: feet.loaded', 'Two Lamps: pair.support'])
    expect(all.some(({ joins }) => !joins.switches)).toBe(true)
  })
})

describe('the house', () => {
  it('moves every limit it names: a figure that is changed changes what is found', () => {
    const wide = combination([feet('1 step R side; 2 touch L together')])
    const codes = (rules: typeof USUAL_RULES, written: Combination) =>
      checkCombination(written, vocabulary, houseOf(rules)).findings.map(({ code }) => code)
    expect(codes(USUAL_RULES, wide)).not.toContain('feet.too-fast')
    expect(
      codes(withLimit(USUAL_RULES, 'quick.eitherFoot', 0.55), { ...wide, tempo: 220 }),
    ).not.toEqual(codes(USUAL_RULES, { ...wide, tempo: 220 }))
    expect(codes({ ...USUAL_RULES, room: { width: 2, depth: 2 } }, wide)).toContain('space.room')
    expect(codes({ ...USUAL_RULES, dancers: 200 }, wide)).toContain('space.room')
    const far = simulate(wide, vocabulary, houseOf(withLimit(USUAL_RULES, 'landing.side', 0.9)))
    expect(far.danced[0]?.after.feet.R.place.right).toBeCloseTo(-0.11 + 0.9)
    const arms = combination([[on('arms', '1', { kind: 'arms', R: 'crown', L: 'crown' })]], {
      tempo: 200,
    })
    expect(codes(USUAL_RULES, arms)).toContain('arms.far')
    expect(codes(withLimit(USUAL_RULES, 'palm.crown.up', 0), arms)).not.toContain('arms.far')
    expect(
      withLimit(withLimit(USUAL_RULES, 'landing.side', 0.9), 'landing.side', undefined),
    ).toEqual(USUAL_RULES)
    expect(houseOf({ ...USUAL_RULES, limits: { 'landing.side': 99 } }).limits['landing.side']).toBe(
      1,
    )
  })

  it('that keeps its turns keeps them in every combination', () => {
    const turn = combination([feet('1 step R side turn 90; 2 touch L together')])
    const { other } = checkCombination(
      turn,
      vocabulary,
      houseOf({ ...USUAL_RULES, keepTurns: true }),
    )
    expect(other.end.facing).toBe(90)
    expect(checkCombination(turn, vocabulary, USUAL_HOUSE).other.end.facing).toBe(-90)
  })
})

describe('a finding that is left', () => {
  it('is gone with its reason kept, only for its own event, and can be taken up again', () => {
    const written = combination([feet('1 step R side; 2 step R side; 4 step R side')])
    const [first, second] = check(written).findings
    if (!first || !second) throw new Error('there should be two')
    const left = leaveFinding(first, 'we laugh about it')(written)
    const after = check(left)
    expect(after.findings.map(key)).toEqual(check(written).findings.slice(1).map(key))
    expect(after.left.map(({ because }) => because)).toEqual(['we laugh about it'])
    expect(Combination.parse(JSON.parse(JSON.stringify(left)))).toEqual(left)
    expect(takeUpFinding(first)(left)).toEqual(written)
    const whole = leaveFinding({ code: 'join.foot', events: [] }, 'it ends the show')(written)
    expect(check(whole).findings.some(({ code }) => code === 'join.foot')).toBe(false)
  })
})
