import { describe, expect, it } from 'vitest'
import { LAYERS } from '../body/layers'
import { mirror } from '../combination/mirror'
import { passesOf } from '../combination/passes'
import { checkCombination } from '../findings/check'
import { vocabulary } from '../moves/vocabulary'
import { simulate } from '../simulate/simulate'
import { sayPass } from '../teaching/say'
import { readSheet } from './readSheet'
import { writeSheet } from './writeSheet'

/** As it is typed under a phrase of 8, as it is printed, and what of it the page says. */
const LINES: readonly (readonly [typed: string, printed: string, said: RegExp])[] = [
  ['feet 1 low; 1 step R side; 8 up', 'feet 1 step R side; 1 low; 8 up', /low from here/i],
  ['feet 1 deep; 8 down', 'feet 1 deep; 8 up', /up again/i],
  ['feet 1 toes; 8 soft', 'feet 1 toes; 8 up', /on the toes from here/i],
  [
    'feet 1 step R side; 2 hop forward',
    'feet 1 step R side; 2 hop L forward',
    /hop forward on the left foot/i,
  ],
  [
    'feet 1 hop L in-place small; 2 recover L',
    'feet 1 hop L small; 2 recover L',
    /hop on the left foot/i,
  ],
  ['feet 2 jump both back', 'feet 2 jump both back', /jump back onto both feet/i],
  [
    'feet 3 jump out forward turn 90',
    'feet 3 jump out forward turn 90',
    /jump forward onto both feet, turning 90° to the right/i,
  ],
  [
    'feet 1 press R side flat; 2 recover',
    'feet 1 press R side flat; 2 recover L',
    /right foot presses to the right, half the weight/i,
  ],
  ['feet 1 step R side; 2 recover', 'feet 1 step R side; 2 recover L', /back onto the left foot/i],
  [
    'feet 3 step R side both',
    'feet 3 step R side both',
    /right foot steps to the right, weight on both feet/i,
  ],
  ['feet 5 touch R forward flat', 'feet 5 touch R forward flat', /right foot touches forward/i],
  ['feet 1 step R side turn 22.5', 'feet 1 step R side turn 22.5', /turning 22\.5° to the right/i],
  [
    'feet 1 step R side turn 45.0; 2 up',
    'feet 1 step R side turn 45; 2 up',
    /turning 45° to the right/i,
  ],
  ['legs 3 R in; 3& R home', 'legs 3 R in; 3& R home', /right knee in\..*right leg home/i],
  ['legs 5 both out until 8', 'legs 5 both out until 8', /both legs out, held to 8/i],
  ['legs 1 R knee in, L home', 'legs 1 R in, L home', /right knee in, left leg home/i],
  ['legs 2 toes in L', 'legs 2 L in', /left knee in/i],
  ['torso 1 at forward; 3 at upright', 'torso 1 at forward; 3 at upright', /body forward/i],
  ['torso 1 at twist R until 3', 'torso 1 at twist R until 3', /body twisted right, held to 3/i],
  [
    'torso 2 at tip L; 5 shoulder L back until 6',
    'torso 2 at tip L; 5 shoulder L back until 6',
    /left shoulder back, held to 6/i,
  ],
  [
    'arms 5 R front fist palm in',
    'arms 5 R front fist palm in',
    /right arm to front, fist, palm in/i,
  ],
  ['arms 5 R front palm in fist', 'arms 5 R front fist palm in', /fist, palm in/i],
  ['arms 6 L palm up; 7 both soft', 'arms 6 L palm up; 7 both soft', /left hand: palm up/i],
  [
    'arms 7 both flat palm front until 8',
    'arms 7 both flat palm front until 8',
    /both hands: flat hand, palm front, held to 8/i,
  ],
  [
    'arms 1 R low point, L palm easy',
    'arms 1 R low point, L palm easy',
    /right arm to low, one finger; left hand: palm as it comes/i,
  ],
  [
    'arms 3 R cross-chest over, L cross-chest',
    'arms 3 R cross-chest over, L cross-chest',
    /right arm to cross-chest, in front; left arm to cross-chest/i,
  ],
  [
    'arms 3 R cross-chest over fist, L cross-chest',
    'arms 3 R cross-chest fist over, L cross-chest',
    /right arm to cross-chest, in front, fist/i,
  ],
  [
    'hips 1-4 hip-circle-large cw easier half-circle-back easier none',
    'hips 1-4 hip-circle-large cw easier half-circle-back easier none',
    /large hip circle, clockwise, until 4/i,
  ],
  [
    'feet 3 leap R side easier (step R side turn 90) harder grapevine',
    'feet 3 leap R side easier (step R side turn 90) harder grapevine',
    /right foot leaps to the right/i,
  ],
  [
    'arms 1-4 R wrist-circle cw easier (R low, L hips via front)',
    'arms 1-4 R wrist-circle cw easier (R low, L hips via front)',
    /wrist circle/i,
  ],
  [
    'free 5-8 "play with the tune"',
    'free 5-8 "play with the tune"',
    /play with the tune, until 8/i,
  ],
  ['arms 1-8 free', 'arms 1-8 free', /arms free, until 8/i],
  ['head 1-8 stays', 'head 1-8 stay', /the head stays, until 8/i],
  ['hips 1 at R until 2', 'hips 1 at R until 2', /hips to the right, held to 2/i],
  ['arms 1 both crown until 3&', 'arms 1 both crown until 3', /both arms to crown, held to 3/i],
  ['feet 1 low until 7', 'feet 1 low until 7', /low from here/i],
  [
    'arms 1 R second via front, L low as "on the hem"',
    'arms 1 L low as "on the hem"; 1 R second via front',
    /on the hem. Right arm to second, by the front/i,
  ],
  ['arms 1 R high-v, L hips via side', 'arms 1 R high-v, L hips via side', /by the side/i],
  [
    'arms 1-4 R wrist-circle cw, L palm-push every 1',
    'arms 1-4 L palm-push every 1; 1-4 R wrist-circle cw',
    /R wrist circles/i,
  ],
  ['arms 1-4 wrist-circle R', 'arms 1-4 R wrist-circle cw', /R wrist circles/i],
  ['arms 5 arm-reach R alone', 'arms 5 arm-reach R alone', /one-arm reach/i],
  ['head 1 look corner L', 'head 1 look corner L', /left front corner/i],
  ['head 2 look back R', 'head 2 look back R', /back over the right shoulder/i],
  ['head 4 look audience; 5 look hand', 'head 4 look audience; 5 look hand', /at the audience/i],
  ['head 6 look down R', 'head 6 look down R', /down to the right foot/i],
  ['arms 2 R mouth, L chest', 'arms 2 R lips, L heart', /right arm to lips, left arm to heart/i],
  ['arms 2 both head top', 'arms 2 both head-top', /both arms to head-top/i],
  [
    'feet 1-4 touch R side small every 1 share 270',
    'feet 1 touch R side small; 1-4 share 270; 2 touch R side small; 3 touch R side small; 4 touch R side small',
    /turning 67\.5° to the right/i,
  ],
  [
    'feet 1-8 walk-forward R; 1-8 share -360',
    'feet 1-8 walk-forward R; 1-8 share -360',
    /turning 45° to the left/i,
  ],
]

describe('what practice says, on the sheet', () => {
  it.each(LINES)('%s is printed as %s, said, mirrored, and read back', (typed, printed, said) => {
    const { combination, messages } = readSheet(`sway 2\nphrase A 8\n  ${typed}\n`, vocabulary)
    expect(messages).toEqual([])
    const text = writeSheet(combination, vocabulary)
    // Two arms in one entry are nothing new where each is written by itself.
    if (!/arms 1 R/.test(typed)) expect(text).toMatch(/^sway 2\n/)
    const line = text.split('\n').filter((one) => /^\s/.test(one))
    expect(line.map((one) => one.trim().replace(/\s+/g, ' ')).join(' ')).toBe(printed)
    expect(readSheet(text, vocabulary)).toMatchObject({ combination, messages: [] })
    expect(mirror(mirror(combination))).toEqual(combination)
    const simulation = simulate(combination, vocabulary)
    const [pass] = simulation.passes
    if (!pass) throw new Error('nothing is danced')
    const words = sayPass(simulation, pass, new Set(LAYERS), vocabulary)
      .flatMap(({ feet, layers }) => [...feet, ...layers.map(({ text: one }) => one)])
      .join('. ')
    expect(words).toMatch(said)
  })

  it('stays version 1 where nothing new is said, and refuses what no foot does', () => {
    const plain = readSheet('sway 2\nphrase A 8\n feet 1 step R side; 2 hop R\n', vocabulary)
    expect(writeSheet(plain.combination, vocabulary)).toMatch(/^sway 1\n/)
    for (const [wrong, why] of [
      ['1 hop R together', /goes side, forward/],
      ['1 jump R forward', /./],
      ['1 step R side flat', /Only a touch or a press/],
      ['1 touch R side both', /no weight on both feet/],
      ['1 step R side turn 22.3', /whole or half/],
      ['5 share 180', /counts that share/],
      ['1-4 share 0', /none/],
      ['1 step R side alone', /Only a move of the arms/],
      ['1 step R side until 3', /Only a place/],
      ['3 low until 2', /before it begins/],
      ['3 low until 4-5', /the one count/],
    ] as const) {
      const { messages } = readSheet(`sway 2\nphrase A 8\n feet ${wrong}\n`, vocabulary)
      expect(messages.map(({ text }) => text).join(' '), wrong).toMatch(why)
    }
    const once = readSheet('sway 2\nonce\nphrase A 8\n feet 1 step R side\n', vocabulary)
    expect(once.combination.once).toBe(true)
    expect(writeSheet(once.combination, vocabulary)).toMatch(/\nonce\n/)
  })
})

describe('words of a phrase', () => {
  it.each([
    ['pose 8 "hand out"', 'stop', 'a picture: hand out'],
    ['pose 8', 'stop', 'a picture'],
    ['breath 1-4 in; 5-8 out', 'breathe in', ''],
    ['face 5 "smile"', 'smile', ''],
    ['prepare 3 "elbow inside" for 7', 'for 7: elbow inside', ''],
  ])('%s is printed as it is typed, called, and noted on the page', (line, called, noted) => {
    const { combination, messages } = readSheet(`sway 2\nphrase A 8\n  ${line}`, vocabulary)
    expect(messages).toEqual([])
    const printed = writeSheet(combination, vocabulary)
    expect(printed).toMatch(/^sway 2/)
    expect(printed.replace(/ +/g, ' ')).toContain(` ${line}\n`)
    const simulation = simulate(combination, vocabulary)
    const [pass] = simulation.passes
    const said = pass ? sayPass(simulation, pass, new Set(LAYERS), vocabulary) : []
    expect(said.flatMap(({ cues }) => cues)).toContain(called)
    expect(said.flatMap(({ asides }) => asides).join('; ')).toBe(noted)
    expect(mirror(mirror(combination))).toEqual(combination)
  })

  it.each([
    ['breath 1-4 in; 3-6 out', /Another breath is written there/],
    ['breath 1 up', /breath 1-4 in; 5-8 out/],
    ['prepare 3 "elbow inside"', /Write what for, and when/],
    ['face 5', /face 1 "…"/],
    ['free 5-8 "play"\n  feet 6 step R side', /counts of A are free/],
  ])('%s is answered with what is wrong, and nothing is lost', (line, message) => {
    const { combination, messages } = readSheet(`sway 2\nphrase A 8\n  ${line}`, vocabulary)
    expect(messages.map(({ text }) => text).join()).toMatch(message)
    const again = readSheet(writeSheet(combination, vocabulary), vocabulary)
    expect(again.combination).toEqual(combination)
  })
})

describe('families', () => {
  it.each([
    ['family street, latin', ['street', 'latin']],
    ['family temple-dance', ['temple-dance']],
    ['family belly', ['belly']],
  ])('%s is read, printed and read back', (line, families) => {
    const { combination, messages } = readSheet(`sway 2\n${line}\nphrase A 8`, vocabulary)
    expect(messages).toEqual([])
    expect(combination.families).toEqual(families)
    const printed = writeSheet(combination, vocabulary)
    expect(readSheet(printed, vocabulary).combination).toEqual(combination)
    // An older app opens what it knows.
    expect(printed.startsWith('sway 1')).toBe(families[0] === 'belly')
  })

  it('that are none, or nearly a known one, are answered', () => {
    for (const line of ['family bely', 'family "two words"', 'family 7']) {
      const { messages } = readSheet(`sway 2\n${line}\nphrase A 8`, vocabulary)
      expect(messages.map(({ text }) => text).join(), line).toMatch(/is no family/)
    }
  })
})

describe('what is danced once before the loop', () => {
  const sheet = (order: string) =>
    readSheet(`sway 2\nphrase A 8\nphrase B 4\nphrase C 8\n${order}`, vocabulary)

  it.each([
    ['order A | B B C~', 'order A | B*2 C~'],
    ['order A A | A B', 'order A*2 | A B'],
    ['order A | B | C', 'order A | B C', /One “\|” stands/],
    ['order | A B', 'order A B', /One “\|” stands/],
  ])('%s is printed as %s', (typed, printed, message?: RegExp) => {
    const { combination, messages } = sheet(typed)
    expect(messages.map(({ text }) => text).join()).toMatch(message ?? /^$/)
    expect(writeSheet(combination, vocabulary).replace(/ +/g, ' ')).toContain(`${printed}\n`)
    expect(mirror(mirror(combination))).toEqual(combination)
  })

  it('know a ring by what it goes through first, a partner, and what may be danced on either side', () => {
    const { combination, messages } = readSheet(
      'sway 2\nstart weight L, arms low, partner L, facing 0\nphrase A 8\n hips 1 hip-slide R; 2-5 hip-circle-small by front; 7 hip-bump either\n head 3 look partner\norder A A~',
      vocabulary,
    )
    expect(messages).toEqual([])
    const printed = writeSheet(combination, vocabulary)
    expect(printed).toContain('2-5 hip-circle-small by front; 7 hip-bump R either')
    expect(printed).toContain('start   weight L, arms low, partner L, facing 0')
    expect(readSheet(printed, vocabulary).combination).toEqual(combination)
    // From the right to the front it goes anticlockwise; from the other side it is the mirror image.
    const ways = (one: typeof combination) =>
      passesOf(one, vocabulary).map(
        ({ events }) =>
          events.flatMap(({ what }) => (what.kind === 'move' && what.by ? [what.way] : []))[0],
      )
    expect(ways(combination)).toEqual(['ccw', 'cw'])
    expect(ways(mirror(combination))).toEqual(['cw', 'ccw'])
    const both = readSheet('sway 2\nphrase A 8\n hips 1 hip-circle-small by front cw', vocabulary)
    expect(both.messages[0]?.text).toMatch(/not both/)
    const none = readSheet('sway 2\nphrase A 8\n hips 1 knee-shimmy either', vocabulary)
    expect(none.messages[0]?.text).toMatch(/has no side/)
  })

  it('know all of an own move: what it risks and needs, its forms, its own time; what is missing is named', () => {
    const typed =
      'move kneel-slow "Slow kneel" torso path counts 4 claims waist motion "arc(C>F>C)" fastest 2.5 needs warm-back risk knees|back easier rib-slide cue "down" aka "prayer|low bow"'
    const { combination, messages } = readSheet(
      `sway 2\n${typed}\nphrase A 8\n torso 1-4 kneel-slow`,
      vocabulary,
    )
    expect(messages).toEqual([])
    expect(combination.moves?.[0]).toMatchObject({
      risk: ['knees', 'back'],
      needs: ['warm-back'],
      fastest: 2.5,
      easier: 'rib-slide',
      aka: ['prayer', 'low bow'],
    })
    const printed = writeSheet(combination, vocabulary)
    expect(printed).toMatch(/^sway 2\n/)
    expect(readSheet(printed, vocabulary).combination).toEqual(combination)
    const { lead } = checkCombination(combination, vocabulary)
    expect(lead.vocabulary.find('kneel-slow')).toMatchObject({
      risk: ['knees', 'back'],
      fastest_s: 2.5,
    })
    const bare = readSheet('sway 2\nmove lift-slow "Lift" hips place\nphrase A 8', vocabulary)
    expect(bare.messages[0]?.text).toContain('a motion is missing')
  })
})
