import { it } from 'vitest'
import { demo } from '../../../tests/demo'
import { ORDINARY } from '../../../tests/ordinary'
import { DancerLevel } from '../combination/combination'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { materialsOf, roundOf, secondsOf } from './material'
import { wishesFor } from './plan'
import { planClass } from './planner'
import { teachingOf } from './teaching'
import { proposeWay } from './ways'

it('measures', () => {
  const all = [...ORDINARY.map((s) => readSheet(s, vocabulary).combination), ...demo].map(
    (c, i) => ({ ...c, id: `c${i}` }),
  )
  const per: number[] = [],
    perW: number[] = []
  const bad: Record<string, number> = {}
  const say = (k: string, ex: string) => {
    bad[k] = (bad[k] ?? 0) + 1
    if (bad[k]! <= 3) console.log(k, ex)
  }
  let t = 0,
    n = 0,
    worst = 0
  const opens: string[] = []
  const taught: string[] = []
  for (const [i, c] of all.entries())
    for (const minutes of [15, 45, 60, 90])
      for (const level of process.env.LV
        ? DancerLevel.options
        : ([c.level ?? 'improver'] as const)) {
        const m = materialsOf([c], vocabulary, USUAL_HOUSE)
        const w = {
          ...wishesFor(c, level),
          level,
          minutes,
          type: minutes < 20 ? ('slot' as const) : ('drop-in' as const),
        }
        const t0 = performance.now()
        const p = planClass(w, m)
        const dt = performance.now() - t0
        t += dt
        n++
        worst = Math.max(worst, dt)
        const sum = p.drills.reduce((s, d) => s + secondsOf(d, m), 0)
        const tag = `${c.title} ${minutes} ${level}`
        if (sum - p.over !== minutes * 60) say('sum', `${tag} ${sum} ${p.over}`)
        const open = p.drills
          .filter((d) => d.kind === 'open')
          .reduce((s, d) => s + secondsOf(d, m), 0)
        if (open) opens.push(`${tag}: ${Math.round(open / 60)}`)
        if (p.left.length) taught.push(`${tag}: ${p.room.counts}/${p.room.of}`)
        for (const d of p.drills) {
          if (d.talk > 90) say('talk', `${tag} ${d.kind} ${d.talk}`)
          if (d.combination && d.repeats > 8) say('rounds', `${tag} ${d.kind} ${d.repeats}`)
          if (d.combination && secondsOf(d, m) - d.talk > 180)
            say('long', `${tag} ${d.kind} ${secondsOf(d, m)}`)
          if (
            d.combination &&
            d.layers.length === 1 &&
            d.seconds === undefined &&
            ['alone', 'feet'].includes(d.kind) &&
            secondsOf(d, m) - d.talk > 60
          )
            say('piece', `${tag} ${d.kind} ${secondsOf(d, m) - d.talk}`)
        }
        const ph = new Map<string, number>(),
          phw = new Map<string, number>()
        for (const d of p.drills)
          if (['alone', 'feet', 'all', 'on-feet', 'walk'].includes(d.kind))
            for (const x of new Set((roundOf(d, m)?.passes ?? []).map((q) => q.phrase.id))) {
              if (d.kind !== 'walk') ph.set(x, (ph.get(x) ?? 0) + 1)
              phw.set(x, (phw.get(x) ?? 0) + 1)
            }
        per.push(...ph.values())
        perW.push(...phw.values())
        if (!p.left.length)
          for (const pass of m.find(c.id)!.lead.passes)
            for (const e of pass.events)
              if (
                !p.drills.some(
                  (d) =>
                    ['all', 'feet'].includes(d.kind) &&
                    d.layers.includes(e.layer) &&
                    roundOf(d, m)!.passes.some((q) => q.phrase.id === pass.phrase.id),
                )
              )
                say('event', `${tag} ${pass.phrase.name} ${e.layer}`)
        // pauses
        let since = 0,
          most = 0,
          pauses = 0
        for (const d of p.drills) {
          if (d.kind === 'pause' || d.kind === 'open' || d.task === 'halves') {
            most = Math.max(most, since)
            since = 0
            pauses += d.kind === 'pause' ? 1 : 0
          } else since += secondsOf(d, m)
        }
        most = Math.max(most, since)
        if (most > 1200 && minutes > 20) say('stretch', `${tag} ${most}`)
        if (pauses < Math.floor(minutes / 60) * 2) say('pauses', `${tag} ${pauses}`)
        let run = 0
        for (const d of p.drills) {
          if (d.talk >= 15 || d.seconds) run = 0
          run += d.seconds ? 0 : secondsOf(d, m)
          if (d.combination && run > (level === 'new' || level === 'improver' ? 360 : 480)) {
            say('danced', `${tag} ${d.kind} ${run}`)
            run = 0
          }
        }
        const un = new Set(p.drills.map((d) => d.id))
        if (un.size !== p.drills.length) say('ids', tag)
        const wh = { R: 0, L: 0 }
        for (const d of p.drills)
          if (
            ['all', 'other-side', 'join', 'sides', 'run'].includes(d.kind) &&
            !(d.music && !d.task) &&
            (d.kind !== 'other-side' ||
              p.drills.some(
                (e) =>
                  e.kind === 'all' &&
                  e.layers.join() === d.layers.join() &&
                  e.phrases.join() === d.phrases.join(),
              ) ||
              d.phrases.length > 1)
          )
            for (const s of d.sides) wh[s] += d.repeats * (roundOf(d, m)?.counts ?? 0)
        const which = teachingOf(m.find(c.id)!, w, m).which
        if (which === 'both' && wh.R !== wh.L)
          say(
            'whole',
            `${tag} ${JSON.stringify(wh)} ${p.drills.map((d) => d.kind + d.sides.join('') + d.repeats).join(' ')}`,
          )
      }
  const med = (l: number[]) => l.toSorted((a, b) => a - b)[l.length >> 1]
  console.log(
    'median',
    med(per),
    'max',
    Math.max(...per),
    'with walks',
    med(perW),
    Math.max(...perW),
    'mean',
    per.reduce((a, b) => a + b, 0) / per.length,
  )
  console.log('ms', t / n, worst, bad)
  console.log('open', opens.length, opens.filter((_, i) => i % 12 === 0).join('; '))
  console.log('left', taught.length, taught.join('; '))
  const ways: Record<string, number> = {}
  for (const c of all) {
    const m = materialsOf([c], vocabulary, USUAL_HOUSE)
    const w = proposeWay(teachingOf(m.find(c.id)!, wishesFor(c, 'improver'), m)).way
    ways[w] = (ways[w] ?? 0) + 1
  }
  console.log(ways)
})
