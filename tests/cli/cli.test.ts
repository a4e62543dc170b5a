import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { parseMidi } from 'midi-file'
import { describe, expect, it } from 'vitest'
// @ts-expect-error a plain script without types
import { buildCli } from '../../scripts/sway.mjs'
import { commandLine } from '../../src/cli/commandLine'
import { PART_KINDS } from '../../src/core/beats/parts'
import { play } from '../pieces/song'
import { wav } from '../pieces/wav'

const folder = mkdtempSync(join(tmpdir(), 'sway-cli-'))
/** What a command writes, and how it ends. */
function sway(...args: string[]) {
  const printed: Buffer[] = []
  const said: string[] = []
  const status = commandLine(args, {
    print: (text) => printed.push(Buffer.from(text)),
    say: (text) => said.push(text),
  })
  const bytes = Buffer.concat(printed)
  return { status, out: bytes.toString(), bytes, err: said.join('') }
}
const file = (name: string, text: string | Uint8Array) => {
  const path = join(folder, name)
  writeFileSync(path, text)
  return path
}

const CLEAN = `sway 1
title Ebb
phrase A 4
 feet 1 step side; 2 touch tog; 3 step side turn 90; 4 touch
order A A`

describe('the command line', () => {
  it('says what a practice page can’t be made of', () => {
    const path = file('page.sway', CLEAN)
    const asked = (...more: string[]) => {
      const { status, err } = sway('page', path, ...more)
      return [status, err.trim().replaceAll('\n', ' ')]
    }
    expect(asked('--phrases', 'Q')).toEqual([2, 'There is no phrase “Q” in it. Write --phrases A.'])
    expect(asked('--part', 'Blue')).toEqual([
      2,
      'Nobody is called “Blue” in it. It is for one dancer: leave --part out.',
    ])
    expect(asked('--sides', 'left')).toEqual([
      2,
      '“left” is no choice of sides. Write --sides both or --sides lead.',
    ])
    expect(asked('--of', '6/5')).toEqual([2, '“6/5” is no class of a series. Write --of 2/5.'])
    expect(asked('--made', 'today')).toEqual([2, '“today” is no day. Write --made 2026-11-29.'])
  })

  it('counts a song however its file is written, and says why it can’t', () => {
    const piece = play('tune', 'drum4', { seed: 9300, counts: 26 })
    const counted = (name: string, bytes: Uint8Array, ...more: string[]) =>
      sway('beats', file(name, bytes), '--json', ...more)
    const plain = JSON.parse(counted('plain.wav', wav(piece.samples, piece.rate)).out)
    expect(plain.seconds).toBeCloseTo(piece.seconds, 1)
    expect(plain.beats.length).toBeGreaterThan(20)
    for (const beat of plain.downbeats) expect(plain.beats).toContain(beat)
    for (const [name, how] of [
      ['three.wav', { bytes: 3, channels: 2 }],
      ['double.wav', { tag: 3, bytes: 8 }],
    ] as const)
      expect(JSON.parse(counted(name, wav(piece.samples, piece.rate, how)).out).tempo).toBe(
        plain.tempo,
      )
    expect(
      JSON.parse(counted('eight.wav', wav(piece.samples, piece.rate, { bytes: 1 })).out).tempo,
    ).toBeCloseTo(plain.tempo, 0)
    const cut = counted('cut.wav', wav(piece.samples, piece.rate, { lies: 9_000_000 }))
    expect([cut.status, cut.err]).toEqual([0, expect.stringMatching(/ends early/)])
    const silent = counted('silent.wav', wav(new Float32Array(200_000), 22_050))
    expect([silent.status, silent.err]).toEqual([0, expect.stringMatching(/Tap the counts/)])
    expect(JSON.parse(silent.out)).toMatchObject({ tempo: null, beats: [] })
    const short = counted('short.wav', wav(piece.samples.subarray(0, 60_000), 22_050))
    expect(short.err).toMatch(/Too short/)
    for (const [name, bytes, why] of [
      ['text.wav', Buffer.from('a song'), /no WAV file/],
      ['empty.wav', Buffer.alloc(0), /empty/],
      ['odd.wav', wav(piece.samples.subarray(0, 100), 22_050, { tag: 85 }), /not read here/],
    ] as const)
      expect(counted(name, bytes)).toMatchObject({ status: 2, err: expect.stringMatching(why) })
    const song = wav(piece.samples, piece.rate)
    for (const { kind, as, from, to, counts } of plain.sections) {
      expect(PART_KINDS).toContain(kind)
      expect(as === null || plain.sections[as].kind === kind).toBe(true)
      expect(plain.beats.filter((at: number) => at >= from && at < to)).toHaveLength(counts)
    }
    for (const sure of Object.values(plain.confidence)) {
      expect(sure).toBeGreaterThanOrEqual(0)
      expect(sure).toBeLessThanOrEqual(1)
    }
    // What is told goes before what is heard.
    const [tenth] = plain.beats.slice(10)
    const told = JSON.parse(
      counted('first.wav', song, '--first', String(tenth), '--phrase', '6').out,
    )
    expect(told.eights).toEqual(plain.beats.filter((_: number, i: number) => (i - 10) % 6 === 0))
    for (const [options, why] of [
      [['--tempo', '900'], /40 to 220/],
      [['--style', 'tango'], /maqsum/],
      [['--phrase', '8'], /--first/],
      [['--taps', '1,2,3'], /too few/],
    ] as const)
      expect(counted('told.wav', song, ...options)).toMatchObject({
        status: 2,
        err: expect.stringMatching(why),
      })
  })

  it('plans a class of one sheet or more, to the second, as an object or to be read', () => {
    const ebb = file('ebb.sway', CLEAN)
    const { status, out } = sway(
      'plan',
      ebb,
      ebb,
      '--minutes',
      '50',
      '--level',
      'new',
      '--type',
      'drop-in',
      '--json',
    )
    expect(status).toBe(0)
    const told = JSON.parse(out)
    expect([told.minutes, told.seconds]).toEqual([50, 50 * 60])
    let at = 0
    for (const step of told.steps) {
      expect(step.at).toBe(at)
      expect(Object.keys(step)).toEqual(
        expect.arrayContaining([
          'kind',
          'title',
          'phrases',
          'layers',
          'side',
          'rounds',
          'tempo',
          'talk',
          'say',
        ]),
      )
      at += step.seconds
    }
    expect(at).toBe(told.seconds)
    expect(told.steps.map(({ kind }: { kind: string }) => kind)).toEqual(
      expect.arrayContaining([
        'hello',
        'show',
        'warm-up',
        'walk',
        'all',
        'run',
        'pause',
        'recap',
        'cool-down',
      ]),
    )
    const lead = JSON.parse(sway('plan', ebb, '--minutes', '30', '--sides', 'lead', '--json').out)
    expect(lead.steps.flatMap(({ side }: { side: string[] }) => side)).not.toContain('L')
    const text = sway('plan', ebb, '--minutes', '20').out
    expect(text).toMatch(/^20 minutes\n +0:00 {2}Hello/)
    for (const wrong of [
      ['--minutes', '5'],
      ['--level', 'expert'],
      ['--way', 'sideways'],
      ['--type', 'x'],
      ['--sides', 'both2'],
    ])
      expect(sway('plan', ebb, ...wrong)).toMatchObject({
        status: 2,
        err: expect.stringMatching(/Write --/),
      })
  })

  it('prints one object about a sheet, and says in the exit code how it is', () => {
    const { status, out, err } = sway('check', file('ebb.sway', CLEAN), '--json')
    expect([status, err]).toEqual([0, ''])
    const told = JSON.parse(out)
    expect(told).toMatchObject({
      title: 'Ebb',
      counts: 8,
      lead: 'R',
      ends: {
        weight: 'L',
        free: 'R',
        facing: 180,
        travel: expect.objectContaining({ right: expect.any(Number) }),
      },
      joins: { repeats: true, switches: false },
      maxTempo: 220,
      tempoLimits: [],
      space: { room: { width: 8, depth: 6 }, dancers: 12, fit: expect.any(Number) },
      left: [],
      messages: [],
    })
    expect(told.findings).toContainEqual(
      expect.objectContaining({
        code: 'join.foot',
        kind: 'note',
        side: 'lead',
        at: 'A4',
        pass: 2,
        layer: 'feet',
      }),
    )
    expect(told.load).toHaveLength(8)
    for (const { load, parts, starts, turning } of told.load) {
      const sum = parts.reduce(
        (all: number, { own, share }: { own: number; share: number }) => all + own * share,
        starts + turning,
      )
      expect(load).toBeCloseTo(sum, 2)
    }
    expect(sway('check', file('ebb.sway', CLEAN)).out).toMatch(/tempo up to \d+\nload .*\nspace /)
  })

  it('repairs the feet for what is wanted, and prints the costs beside the sheet', () => {
    const path = file(
      'stays.sway',
      'sway 1\ntitle Stays\nphrase A 4\n feet 1 step R side; 2 close L; 3 step R side; 4 close L # last',
    )
    const { status, out, err } = sway('repair', path, '--for', 'switch')
    expect(status).toBe(0)
    expect(out).toContain('4 touch L together')
    expect(err).toContain('0.6\tA4\tclose L -> touch L together')
    expect(JSON.parse(sway('check', file('repaired.sway', out), '--json').out).joins.switches).toBe(
      true,
    )
    const told = JSON.parse(sway('repair', path, '--for', 'switch', '--json').out)
    expect(told).toMatchObject({
      cost: 0.6,
      edits: [{ at: 'A4', from: 'close L', to: 'touch L together', cost: 0.6 }],
      sheet: out,
    })
    expect(told.others).toHaveLength(2)
    for (const { cost, edits, sheet } of told.others) {
      expect(cost).toBeGreaterThanOrEqual(0.6)
      expect(edits.reduce((sum: number, edit: { cost: number }) => sum + edit.cost, 0)).toBeCloseTo(
        cost,
        6,
      )
      expect(
        JSON.parse(sway('check', file('other.sway', sheet), '--json').out).joins.switches,
      ).toBe(true)
    }
    expect(sway('repair', path, '--for', 'repeat').out).toBe(sway('format', path).out)
    expect(told.left).toEqual([])
    const clash = file(
      'clash.sway',
      'sway 1\nphrase A 4\n feet 1 step R side; 2 close L; 3 step R side; 4 touch L together\n hips 1-4 eight-outward R; 1-4 eight-inward R',
    )
    const still = sway('repair', clash, '--for', 'faults')
    expect(still.status).toBe(1)
    expect(still.err).toMatch(/^0\tin all\nleft\tA1\thips, not of the feet: “/)
    expect(JSON.parse(sway('repair', clash, '--for', 'faults', '--json').out).left).toEqual([
      expect.objectContaining({ code: 'layer.clash', at: 'A1', layer: 'hips' }),
    ])
    const kept = file('kept.sway', 'sway 1\nphrase A 1\n feet 1 kick L !keep')
    const none = sway('repair', kept, '--for', 'faults')
    expect([none.status, none.out]).toEqual([1, ''])
    expect(none.err).toMatch(/^No repair of the feet leads there/)
    expect(sway('repair', path, '--for', 'fun').err).toMatch(/faults/)
  })

  it('prints the version for a level', () => {
    const path = file(
      'level.sway',
      'sway 1\ntempo 110\nlevel advanced\nphrase A 4\n feet 1 step R side; 2 step L side; 3 step R side; 4 step L side\n hips 1-4 three-quarter-shimmy R\n torso ~1-4 shoulder-shimmy',
    )
    const { out, err, status } = sway('level', path, '--to', 'new')
    expect(status).toBe(0)
    expect(err).toMatch(/shoulder shimmy -> left out/)
    expect(out).toContain('level   new')
    expect(out).not.toContain('shoulder-shimmy')
    expect(JSON.parse(sway('level', path, '--to', 'new', '--json').out)).toMatchObject({
      sheet: out,
      load: { limit: 4.5 },
      reached: true,
      left: [],
    })
    const hard = file(
      'hard.sway',
      'sway 1\nlevel advanced\nphrase A 4\n feet 1 step R side; 2 step L in-place turn 720; 3 step R side',
    )
    const spun = sway('level', hard, '--to', 'new')
    expect(spun.status).toBe(1)
    expect(spun.err).toMatch(/^still too hard\tA2\tfeet: A turn of 720°/m)
    expect(JSON.parse(sway('level', hard, '--to', 'new', '--json').out)).toMatchObject({
      reached: false,
      left: expect.arrayContaining([expect.objectContaining({ code: 'turn.too-fast', at: 'A2' })]),
    })
    const easy = file('easy.sway', 'sway 1\nphrase A 4\n feet 1 step R side; 2 touch L together')
    const plain = sway('level', easy, '--to', 'new')
    expect([plain.status, plain.err]).toEqual([0, ''])
    expect(JSON.parse(sway('level', easy, '--to', 'new', '--json').out)).toMatchObject({
      reached: true,
      left: [],
    })
    expect(sway('level', path, '--to', 'best').err).toMatch(/no level/)
  })

  it('exits 1 on a fault, and goes on over words it cannot read', () => {
    const path = file(
      'slip.sway',
      'sway 1\nphrase A 4\n feet 1 step R; 2 step R; 3 tuoch L\n hips 1 hip-drpo',
    )
    const { status, out, err } = sway('check', path, '--json')
    expect(status).toBe(1)
    const { findings, messages } = JSON.parse(out)
    expect(findings[0]).toMatchObject({ code: 'feet.loaded', at: 'A2' })
    expect(findings[0]).not.toHaveProperty('pass')
    expect(messages).toEqual([
      { line: 3, column: 29, text: expect.stringContaining('touch') },
      { line: 4, column: 9, text: expect.stringContaining('hip-drop') },
    ])
    expect(err).toMatch(/slip\.sway:3:29: .*\n.*slip\.sway:4:9:/)
    expect(sway('check', path).out).toMatch(/fault A2 feet: You already stand/)
  })

  it.each([
    ['no first line', 'phrase A 8', /no combination/],
    ['another letter code', Uint8Array.from([115, 119, 97, 121, 32, 49, 10, 0xff, 0xfe]), /UTF-8/],
    ['too much', `sway 1\n${'#'.repeat(1_000_001)}`, /1 MB/],
    ['a newer version', 'sway 9\n', /newer version/],
  ])('exits 2 on %s and says what to do', (name, text, message) => {
    const { status, out, err } = sway(
      'check',
      file(`${name.replaceAll(' ', '-')}.txt`, text),
      '--json',
    )
    expect([status, out]).toEqual([2, ''])
    expect(err).toMatch(message)
    expect(err.trim().split('\n').length).toBeGreaterThan(1)
  })

  it('formats, mirrors and converts there and back', () => {
    const path = file('round.sway', CLEAN)
    const plain = sway('format', path).out
    expect(plain).toContain(
      'feet   1 step R side; 2 touch L together; 3 step L side turn 90; 4 touch R in-place',
    )
    expect(sway('format', file('again.sway', plain)).out).toBe(plain)
    const mirrored = file('mirrored.sway', sway('mirror', path).out)
    expect(readFileSync(mirrored, 'utf8')).toContain(
      '1 step L side; 2 touch R together; 3 step R side turn -90',
    )
    expect(sway('mirror', mirrored).out).toBe(plain)
    for (const to of ['json', 'csv']) {
      const converted = file(
        `round.${to === 'json' ? 'sway.json' : to}`,
        sway('convert', path, '--to', to).out,
      )
      expect(sway('format', converted).out).toBe(plain)
    }
    expect(sway('convert', path, '--to', 'vtt').out).toMatch(/^WEBVTT/)
    expect(parseMidi(sway('convert', path, '--to', 'mid').bytes).header.ticksPerBeat).toBe(480)
    expect(sway('convert', path, '--to', 'docx').err).toMatch(/no format/)
    for (const word of ['constructor', 'toString', '__proto__'])
      expect(sway('convert', path, '--to', word)).toMatchObject({
        status: 2,
        err: expect.stringMatching(/no format/),
      })
    // Letters beyond Latin-1 stand in the file as UTF-8.
    const far = file('far.sway', 'sway 1\ntitle Kōlea €\nphrase A 4\n feet 1 step\n say 1 "ʻami"')
    const midi = Buffer.from(sway('convert', far, '--to', 'mid').bytes)
    expect(midi.includes(Buffer.from('Kōlea €', 'utf8'))).toBe(true)
    expect(midi.includes(Buffer.from('ʻami', 'utf8'))).toBe(true)
    expect(sway('convert', path, '--to', 'csv').out.startsWith('\uFEFFphrase,count')).toBe(true)
    expect(sway('mirror', file('said.sway', `${CLEAN}\nphrase B 4\n say 1 "left foot"`)).err).toBe(
      '“left foot” -> “right foot”\n',
    )
    expect(sway('print', path).out).toMatch(
      /RIGHT SIDE[\s\S]*Right foot steps to the right\.[\s\S]*LEFT SIDE[\s\S]*Left foot steps to the left\./,
    )
    expect(JSON.parse(sway('schema').out)).toMatchObject({
      title: 'Molten Sway combination',
      type: 'object',
    })
    expect(sway().status).toBe(2)
  })

  it('is the same as a program of its own, with its exit code', () => {
    const built = buildCli()
    const clash = file('clash.sway', 'sway 1\nphrase A 4\n feet 1 step R side; 2 step R side')
    for (const args of [['check', clash, '--json'], ['check', 'no such file'], []]) {
      const { status, stdout, stderr } = spawnSync(process.execPath, [built, ...args])
      const own = sway(...args)
      expect([status, stdout.toString(), stderr.toString()]).toEqual([own.status, own.out, own.err])
    }
    const piped = spawnSync(process.execPath, [built, 'format', '-'], { input: CLEAN })
    expect(piped.stdout.toString()).toBe(sway('format', file('piped.sway', CLEAN)).out)
  })
})
