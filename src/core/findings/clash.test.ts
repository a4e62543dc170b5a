import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { claimOf } from '../combination/claims'
import { SCHEMA_VERSION } from '../combination/combination'
import { dancedIn } from '../combination/lengths'
import { mirrorEvent } from '../combination/mirror'
import { vocabulary } from '../moves/vocabulary'
import { overlap } from '../time/time'
import { checkCombination } from './check'

/** What clashes in one phrase, as the model says it, pair by pair and without any shortcut. */
function pairs(combination: Parameters<typeof checkCombination>[0]): readonly string[] {
  const found: string[] = []
  for (const phrase of combination.phrases) {
    const events = dancedIn(phrase, vocabulary)
    for (const [i, a] of events.entries())
      for (const b of events.slice(i + 1)) {
        const [one, two] = [claimOf(a, vocabulary), claimOf(b, vocabulary)]
        const shares = one.parts.some((part) => two.parts.includes(part))
        if (shares && overlap(a, b)) found.push([a.id, b.id].sort().join(' '))
      }
  }
  return found
}

describe('two moves at once', () => {
  it('clash only where they share a part at the same time, and each pair is named once', () => {
    holds(
      fc.property(anyCombination(), (any) => {
        const { pickup: _, ...plain } = any
        const combination = {
          ...plain,
          phrases: plain.phrases.map((phrase) => ({
            ...phrase,
            events: phrase.events.filter(({ at }) => at >= 0),
          })),
          order: plain.phrases.map(({ id }) => ({ phrase: id, mirrored: false })),
        }
        const sharing = new Set(pairs(combination))
        const named = checkCombination(combination, vocabulary)
          .findings.filter(
            ({ code, side, option }) =>
              code === 'layer.clash' && side === 'lead' && option === undefined,
          )
          .map(({ events }) => [...events].sort().join(' '))
        expect(new Set(named).size).toBe(named.length)
        for (const pair of named) expect(sharing).toContain(pair)
      }),
      { numRuns: 300, seed: 141 },
    )
  })

  it('need the same parts on the other side, right and left exchanged', () => {
    holds(
      fc.property(anyCombination({ kept: false }), (combination) => {
        const swapped = (part: string) =>
          part.replace(/[RL]$/, (side) => (side === 'R' ? 'L' : 'R'))
        for (const event of combination.phrases.flatMap(({ events }) => events)) {
          const here = claimOf(event, vocabulary)
          const there = claimOf(mirrorEvent(event), vocabulary)
          expect(there.kind).toBe(here.kind)
          const isOneSided =
            event.what.kind === 'arms' ||
            event.what.kind === 'legs' ||
            (event.what.kind === 'move' && (event.what.side ?? event.what.arm))
          const expected = isOneSided ? here.parts.map(swapped) : here.parts
          expect([...there.parts].sort()).toEqual([...expected].sort())
        }
      }),
      { numRuns: 200, seed: 142 },
    )
  })

  it('never clash with a texture laid over them, unless that is a texture too', () => {
    const textures = vocabulary.moves.filter(({ kind }) => kind === 'texture')
    const others = vocabulary.moves.filter(
      ({ kind, layer }) => kind !== 'texture' && layer !== 'feet',
    )
    expect(textures.length).toBeGreaterThan(6)
    for (const texture of textures)
      for (const other of others.filter((move) =>
        move.claims.some((part) => texture.claims.includes(part)),
      )) {
        const at = { at: 0, length: 12 } as const
        const events = [texture, other].map((move, i) => ({
          id: `e${i}`,
          layer: move.layer,
          ...at,
          what: {
            kind: 'move',
            move: move.id,
            ...(move.sided === 'side' && { side: 'R' }),
            ...(move.sided === 'direction' && { way: 'cw' }),
          },
        }))
        const phrase = { id: 'A', name: 'A', title: '', counts: 8, events }
        const combination = {
          kind: 'combination',
          schemaVersion: SCHEMA_VERSION,
          id: 'c',
          title: '',
          families: [],
          tempo: 96,
          teachTempo: 64,
          lead: 'R',
          start: {
            weight: 'L',
            level: 'soft',
            hips: 'C',
            ribs: 'C',
            arms: { R: 'low', L: 'low' },
            gaze: 'front',
            facing: 0,
          },
          phrases: [phrase],
          order: [{ phrase: 'A', mirrored: false }],
        }
        const { findings } = checkCombination(
          combination as unknown as Parameters<typeof checkCombination>[0],
          vocabulary,
        )
        expect(
          findings.filter(({ code }) => code === 'layer.clash'),
          `${texture.id} and ${other.id}`,
        ).toEqual([])
      }
  })
})
