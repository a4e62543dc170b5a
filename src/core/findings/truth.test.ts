import { describe, expect, it } from 'vitest'
import type { Combination, DancerLevel } from '../combination/combination'
import { mirror } from '../combination/mirror'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { checkCombination } from './check'
import { severityOf } from './finding'
import { findingText, placeText } from './findingText'

interface Danced {
  readonly tempo?: number
  readonly level?: DancerLevel
  /** More lines of the header, or what is written behind the phrase. */
  readonly head?: string
  readonly tail?: string
}

function found(
  lines: string,
  { tempo = 96, level = 'intermediate', head = '', tail = '' }: Danced,
) {
  const sheet = `sway 2\ntempo ${tempo}\nlevel ${level}\n${head}\nphrase A 8\n${lines}\n${tail}`
  const { combination, messages } = readSheet(sheet, vocabulary)
  expect(messages).toEqual([])
  const of = (one: Combination) =>
    checkCombination(one, vocabulary).findings.map((finding) => ({
      said: `${severityOf(finding)} ${finding.code} ${placeText(finding.spot)}`,
      text: findingText(finding),
    }))
  const here = of(combination)
  // The other side is judged the same, word for word at the same places.
  expect(of(mirror(combination)).map(({ said }) => said)).toEqual(here.map(({ said }) => said))
  return here
}

/** What is only said of how it goes on: a line is no combination. */
const GOES_ON = /^note join[.](foot|place|facing)/

const SILENT: readonly (readonly [string, string, Danced?])[] = [
  [
    'C17 a pickup behind the last step of a figure, and over one',
    'feet 1 grapevine R; 5 grapevine L',
    { tail: 'phrase B 8\nfeet <8& kick R forward; 1 step R side; 8 close L\norder A B A' },
  ],
  ['C21 either side', 'feet 1 step R side\nhips 3 hip-lift R either'],
  [
    'C7 a partner beside',
    'feet 1 step R side\nhead 3 look partner',
    { head: 'start weight L, arms low, partner R, facing 0' },
  ],
  ['A1 a quick pair', 'hips 3 hip-lift R; 3& hip-drop R\nfeet 3 touch R together'],
  ['A1 arms in one count', 'arms 1 both high-v; 1& both low', { tempo: 60 }],
  ['A1 the same again', 'torso 3 rib-tilt R; 4 rib-tilt R'],
  ['A2 a figure and what follows it', 'feet 1 grapevine R; 5 step L side'],
  ['A3 one arm is sent on', 'arms 1-4 both hips; 3 R front'],
  ['A3 an accent on a held place', 'hips 1-4 at L; 3 hip-bump L'],
  ['A4 a whip over a wave', 'torso 5-8 body-wave-up\nhead 5 head-whip'],
  [
    'A5 a rise ends',
    'feet 1 step R side; 2 close L; 3 step R side; 4 close L; 4& rise; 5 step R side large; 6 close L; 7 step R side; 8 close L',
    { tempo: 60, tail: 'phrase B 8\nfeet 1 step R side; 2 close L; 3 step R side; 4 close L' },
  ],
  [
    'A5 straight knees end',
    'feet 1 step R side; 2 close L; 3 straighten; 5 step R side\nhips 5-8 knee-shimmy',
  ],
  [
    'A6 a sway from weight that has settled',
    'feet 1 step R side; 2 step L side\nhips 3-8 hip-circle-large cw',
    { tail: 'phrase B 8\nfeet 1 sway L; 3 sway R; 5 step L in-place; 7 close R' },
  ],
  [
    'A6 hips go home',
    'feet 1 step R side; 2 step L in-place; 4 step R side; 6 close L\nhips 2 at L',
  ],
  [
    'A7 a look ends',
    'feet 5 step R side turn 180; 6 step L side turn 180\nhead 3 look over L',
    { tail: 'phrase B 8\nfeet 1 step R side; 2 step L in-place\norder A B B B B' },
  ],
  ['A8 a small ring over steps', 'feet 1 step R side; 3 close L\nhips 1-4 hip-circle-small cw'],
  ['A9 near is near enough', 'torso 1-2 lean R', { tempo: 100 }],
  ['A9 half as large', 'torso 5 rib-circle cw size 50%; 7 rib-circle cw size 50%', { tempo: 110 }],
  ['A10 it runs on', 'torso 8 side-bend R', { tempo: 104, tail: 'phrase B 8\ntorso 3 chest-lift' }],
  ['A11 a roll in a second', 'head 7-8 head-roll cw', { tempo: 120 }],
  [
    'A12 a turn long after',
    'feet 1 touch R in-place; 7 step R side turn 90\nhead 1-4 head-roll cw',
  ],
  [
    'A13 joins are measured from count 1',
    'feet <8 step R forward; 1 step L back; 2 close R; 3 step L forward; 4 close R; 5 step L side; 6 close R; 7 step L in-place; 8 close R',
    { head: 'start weight L\npickup 1' },
  ],
  [
    'A17 eights for new dancers',
    'hips 1-2 eight-outward R; 3-4 eight-outward R\ntorso ~1-4 shoulder-shimmy',
    { tempo: 90, level: 'new' },
  ],
  [
    'A18 a whole turn for improvers',
    'feet 3 close R; 4 step L in-place turn -360',
    { tempo: 88, level: 'improver' },
  ],
  ['A19 a lifted foot comes down', 'feet 1-4 march R', { tempo: 60 }],
  [
    'A20 weight settles',
    'feet 4& step R side\nhips 5-8 eight-outward R',
    { tail: 'phrase B 8\nfeet 1 close R' },
  ],
  ['A21 a small turn on both feet', 'feet 2 centre; 4 pivot -90'],
  [
    'A22 a written facing of the other side',
    'feet 1 step R side; 2 touch L together; 3 step L side; 4 touch R together',
    {
      tail: 'phrase B 8\nfeet 1-8 step R in-place every 2; 2,4,6,8 step L side small turn 90\nfacing 8 360\nphrase C 8\nfeet 1 step R side; 2 close L; 3 step R side\norder A B C B~',
    },
  ],
  ['A23 a held place melts', 'arms 1-4 both hips; 5-8 snake-arms', { tempo: 100 }],
  ['B1 a sway to the other foot', 'feet 1 step R side; 2 sway L; 3 sway R'],
  ['B2 a rock', 'feet 1 step R forward; 3 sway L'],
  ['B3 two turns', 'feet 1-4 chaine R', { tempo: 80, level: 'new' }],
  [
    'B4 up before the turn',
    'feet 1 step R in-place; 1& bend; 2 rise; 2& pivot -360; 3 step L in-place',
    { tempo: 80 },
  ],
  ['B5 a count between', 'feet 3 step R side turn 90\nhead 5-6 head-roll cw'],
  ['B6 a nod', 'head 4 nod', { level: 'new' }],
  ['B7 three leaps', 'feet 1 leap R side; 2 leap L side; 3 jump both', { level: 'improver' }],
  [
    'C1 knees in turn',
    'feet 2 jump out\nlegs 3 R in; 3& R home; 4 L in until 4\nhips 3 hip-bump R',
  ],
  ['C1 quick knees', 'legs 3 R in; 3e R home, L in; 3& L home', { tempo: 100 }],
  ['B10 a knee without weight', 'feet 1 touch R side\nlegs 1 R in until 2'],
  ['C2 low, until it is up again', 'feet 1 low; 1 step R side; 3 close L; 8 up'],
  ['C2 walks on the toes', 'feet 1 toes; 1-4 march R; 5-8 march R; 8& up'],
  ['C3 a turn while down', 'feet 1& bend; 2 pivot 90; 3 close R'],
  ['C4 a hop that goes on', 'feet 1 step R side; 2 hop R forward; 3 step L forward'],
  ['C4 jumps that travel', 'feet 1 jump both back; 2 jump out forward; 3 jump in'],
  ['C5 presses', 'feet 1 press R forward; 2 close R; 3 press L back; 4 close L'],
  ['C5 home by itself', 'feet 1 press R side flat; 2 recover; 3 step R side'],
  ['C5 weight on both', 'feet 1 step R side both; 2 step L side'],
  ['C5 a flat touch', 'feet 1 touch R forward flat; 2 close R'],
  ['C6 twisted, with a pop', 'torso 1 at twist L until 3; 2 chest-pop'],
  ['C6 forward and up', 'torso 1 at forward; 4 at upright\nhips 1-4 hip-circle-small cw'],
  [
    'C6 held to a count',
    'hips 1 at L until 3; 5 hip-bump L\narms 1 both crown until 4; 7 both low',
  ],
  [
    'C7 from a side',
    'feet 1 step R side turn 90; 2 close L\nhead 3 look audience; 5 look corner R',
  ],
  [
    'C7 looks',
    'head 1 look corner L; 2 look back R; 4 look down R; 6 look front\narms 1 R front',
    { tempo: 80 },
  ],
  ['C8 each arm its own', 'arms 1 R second via front, L low as "on the hem"'],
  ['B8 the other hand, and a soft one', 'arms 3 L fist; 5 R soft\nprop 1-8 R "fan"'],
  ['C8 two moves', 'arms 1-4 R wrist-circle, L palm-push every 1'],
  ['C10 lips and heart', 'arms 2 R lips, L heart; 4 both waist; 6 both low'],
  ['C9 hands', 'arms 5 R front fist palm in; 6 R palm up; 8 R low'],
  [
    'C9 a hand on its way, and during a path',
    'arms 1 both high-v; 1& R fist; 2 R flat; 5-8 snake-arms; 6 L point',
  ],
  ['C10 in front', 'arms 3 R cross-chest over, L cross-chest; 7 both low'],
  [
    'C14 free counts end what was begun',
    'feet 1 step R side; 2 close L; 3 lift R\nhips 3 knee-shimmy\nfree 5-8 "play"',
  ],
  [
    'C14 anywhere after free counts',
    'feet 1 step R side; 3 close L\narms 1 both high-v\nhead 1 look R\nfree 4-8 "play"',
    {
      tail: 'phrase B 8\nfeet 1 step L side; 3 close R; 5 step L side; 7 close R\narms 1-4 snake-arms\norder A B',
    },
  ],
  [
    'C15 a pose',
    'feet 8 touch R side\narms 7 both high-v; 8 both high-v\npose 8 "hand out"',
    { head: 'once' },
  ],
  ['C16 the head stays', 'hips 1-8 hip-circle-small cw\nhead 1-8 stay'],
  [
    'C20 the end meets where the loop begins',
    'feet 1 step R side; 3 close L\ntorso 8 at forward',
    { tail: 'phrase B 8\nfeet 1 step R side; 3 close L\norder A | B' },
  ],
  ['C21 free arms', 'arms 1 both high-v; 3 free; 7 both low'],
  ['C24 prepared', 'feet 7 step R side\nprepare 3 "elbow inside" for 7'],
  ['C25 breath and face', 'breath 1-4 in; 5-8 out\nface 5 "smile"'],
  ['C10 the floor, down there', 'feet 1 deep; 8 up\narms 2 both floor; 6 both low'],
  ['C11 taps round', 'feet 1-8 touch R side small every 1 share 270\n facing 8 270'],
  ['C11 eight walks', 'feet 1-8 walk-forward R; 1-8 share -360\n facing 8 -360'],
  ['C11 halves', 'feet 1 step R side turn 22.5; 2 close L turn -22.5'],
  ['C19 danced once', 'feet 1 step R side turn 90', { head: 'once' }],
]

const SPOKEN: readonly (readonly [string, string, string, (Danced & { text?: RegExp })?])[] = [
  [
    'A1 too fast',
    'arms 1-2 both second; 3 snake-arms; 4 both low',
    'snag move.too-fast A3',
    { tempo: 120 },
  ],
  [
    'A2 a figure is cut',
    'feet 1 grapevine R; 3 step R side',
    'note move.remainder A1',
    { text: /first 2 counts/ },
  ],
  ['A3 two paths', 'hips 1-4 hip-circle-large cw; 3-6 eight-outward R', 'fault layer.clash A3'],
  ['A3 an accent in a path', 'hips 1-4 eight-outward R; 3-3 hip-bump R', 'snag layer.clash A3'],
  ['A4 two ways of the trunk', 'torso 1-4 camel; 3-6 rib-circle cw', 'fault layer.clash A3'],
  [
    'A5 long on the toes',
    'feet 1 rise',
    'note balance.long A1',
    { tempo: 90, tail: 'phrase B 8\nhips 1 hip-bump R\norder A B' },
  ],
  ['A6 on planted feet', 'hips 1-2 half-circle-front R; 8 at R', 'snag join.hips A8'],
  [
    'A7 the round begins with a look',
    'feet 1 step R side; 2 touch L together',
    'note join.gaze A8',
    { head: 'start gaze L' },
  ],
  [
    'A8 a large ring over steps',
    'feet 1 step R side; 2 close L; 3 step R side\nhips 1-4 hip-circle-large cw',
    'note move.needs A1',
  ],
  [
    'A9 half the time',
    'torso 1 body-wave-down; 2 body-wave-down',
    'snag move.too-fast A1',
    { tempo: 120 },
  ],
  [
    'A10 something follows',
    'torso 8 side-bend R',
    'snag move.too-fast A8',
    { tempo: 104, tail: 'phrase B 8\ntorso 1 camel' },
  ],
  [
    'A11 quick for improvers',
    'head 7-8 head-roll cw',
    'care head.quick A7',
    { tempo: 120, level: 'improver' },
  ],
  ['A12 in the turn', 'feet 5 step R side turn 180\nhead 4-5 head-roll cw', 'care head.turning A4'],
  [
    'A13 every later round begins elsewhere',
    'feet <8 kick R forward turn 90; 1 step R side; 2 close L; 3 step R in-place turn -90; 4 step L in-place; 5 step R in-place; 6 step L in-place',
    'note join.facing A6',
    { head: 'pickup 1' },
  ],
  [
    'A14 what helps',
    'feet 1 step R side; 2 step L in-place; 8 touch R together',
    'note join.foot A8',
    { text: /to switch, make the last touch a step/ },
  ],
  [
    'A14 both sides',
    'feet 1 step R side; 2 touch L together; 3 step L side; 8 close R',
    'note join.foot A8',
    { text: /Both sides are in it/, tail: 'order A A~' },
  ],
  [
    'A16 two slips',
    'feet 1 step R side; 2 step R side; 4 step L side; 5 step L side',
    'fault feet.loaded A5',
  ],
  [
    'A17 too much',
    'feet 1-8 walk-forward R\nhips 1-8 three-quarter-shimmy\narms 1-8 snake-arms',
    'note load.high A1',
    { level: 'new' },
  ],
  [
    'A18 for new dancers',
    'feet 3 close R; 4 step L in-place turn -360',
    'snag turn.too-fast A4',
    { tempo: 88, level: 'new', text: /3 or 4 steps/ },
  ],
  ['A19 a lift of its own', 'feet 1 lift R', 'note balance.long A1', { tempo: 60 }],
  ['A20 the next count', 'feet 4 step R side; 5 close R', 'fault feet.loaded A5'],
  ['A21 a large turn on both feet', 'feet 2 centre; 4 pivot 270', 'snag turn.planted A4'],
  [
    'A22 a quarter short',
    'feet 1 step R side; 2 touch L together; 3 step L side; 4 touch R together',
    'snag turn.sum B8',
    {
      tail: 'phrase B 8\nfeet 1-8 step R in-place every 2; 2,4,6,8 step L side small turn 90\nfacing 8 270',
    },
  ],
  [
    'A23 from the other side',
    'hips 2 at R; 3 half-circle-front R',
    'snag layer.no-time A3',
    { tempo: 132 },
  ],
  [
    'B1 where you are',
    'feet 3 step R side; 4 close L; 5 step R side; 6 sway R',
    'note feet.same-sway A6',
  ],
  ['B2 left where it touched', 'feet 1 touch R diag-forward; 5 sway R', 'note feet.left-out A5'],
  ['B3 eight turns', 'feet 1-8 step R in-place every 1 turn 360', 'care turn.many A5'],
  ['B4 deep', 'feet 1 step R in-place; 1& bend large; 2 pivot -360', 'care turn.low A2'],
  [
    'B5 right after',
    'feet 5 step R side turn 180; 6 step L side turn 180\nhead 6-7 head-roll cw',
    'care head.turning A6',
  ],
  ['B6 a whip', 'head 4 head-whip', 'care head.level A4', { level: 'new', text: /nod is enough/ }],
  [
    'B7 nine leaps',
    'feet 1 leap R side; 1& leap L side; 2 leap R side; 2& leap L side; 3 leap R side; 3& leap L side; 4 leap R side; 4& leap L side; 5 leap R side',
    'note load.impact A5',
    { level: 'improver' },
  ],
  ['C1 one tick', 'legs 3 R in; 3 R out', 'fault layer.clash A3'],
  ['C1 too soon for a leg', 'legs 3 R in; 3e R home', 'snag move.too-fast A3', { tempo: 126 }],
  ['B10 over bent knees', 'feet 1 step R side; 1& bend\nlegs 2 R in', 'care legs.twist A2'],
  [
    'C2 deep for long',
    'feet 1 deep',
    'note legs.long A1',
    { tempo: 80, tail: 'phrase B 8\norder A B' },
  ],
  ['C4 on the free foot', 'feet 1 step R side; 2 hop L forward', 'fault feet.no-support A2'],
  ['C5 a loaded foot', 'feet 1 step R side; 2 press R forward', 'fault feet.loaded-touch A2'],
  ['C5 nothing to come home from', 'feet 1 step R side; 2 recover R', 'fault feet.loaded A2'],
  [
    'C7 with the back to it',
    'feet 1 step R side turn 180\nhead 3 look audience',
    'snag look.behind A3',
  ],
  [
    'C7 a partner behind',
    'feet 1 step R side\nhead 3 look partner',
    'snag look.behind A3',
    { head: 'start weight L, arms low, partner behind, facing 0', text: /The partner is 180/ },
  ],
  [
    'C21 loaded on this side, and needed on this one',
    'feet 1 step R side\nhips 3 hip-lift R',
    'snag hips.loaded-lift A3',
  ],
  ['C8 one arm twice', 'arms 1 R second; 1 R low', 'fault layer.clash A1'],
  ['C9 two shapes at once', 'arms 5 R fist; 5 R flat', 'fault layer.clash A5'],
  [
    'B8 a hand that holds something makes a fist',
    'arms 3 R fist\nprop 1-8 R "fan"',
    'snag prop.hand A3',
  ],
  [
    'C20 it meets what is danced once, and not the loop',
    'feet 1 step R side; 3 close L\ntorso 8 at forward',
    'note join.trunk B8',
    {
      tail: 'phrase B 8\nfeet 1 step R side; 3 close L\ntorso 4 at upright\norder A | B',
    },
  ],
  ['C15 a shimmy in a pose', 'hips 7-8 knee-shimmy\npose 7-8', 'snag stay.moved A7'],
  ['C16 a wave takes the head', 'torso 1-4 body-wave-down\nhead 1-8 stay', 'snag stay.moved A1'],
  ['C24 nothing comes', 'prepare 3 "elbow inside" for 7', 'note prepare.lost A3'],
  ['C10 standing', 'arms 2 both floor', 'snag arms.low A2'],
  ['C11 nobody steps', 'feet 1 step R side; 2 close L; 5-8 share 180', 'note turn.idle A5'],
  [
    'C19 the weight all the same',
    'feet 1 step R side; 2 step R side',
    'fault feet.loaded A2',
    { head: 'once' },
  ],
]

describe('the judge says nothing of', () => {
  it.each(SILENT.map(([name, lines, danced = {}]) => ({ name, lines, danced })))(
    '$name',
    ({ lines, danced }) => {
      const said = found(lines, danced).map((one) => one.said)
      expect(said.filter((one) => !GOES_ON.test(one))).toEqual([])
    },
  )
})

describe('the judge says a word of', () => {
  it.each(
    SPOKEN.map(([name, lines, expected, danced = {}]) => ({ name, lines, expected, danced })),
  )('$name', ({ lines, expected, danced }) => {
    const all = found(lines, danced)
    expect(all.map(({ said }) => said)).toContain(expected)
    const text = all.find(({ said }) => said === expected)?.text
    if (danced.text) expect(text).toMatch(danced.text)
  })
})
