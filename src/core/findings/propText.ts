import { sideWord } from '../body/side'
import { capital } from '../capital'
import type { ActId } from '../combination/carried'
import { lengthWords, type Units } from '../house/lengths'
import { actRow } from '../props/acts'
import { countWords } from '../time/countWords'
import type { PropFact } from './propFact'

const nameOfAct = (act: ActId): string => actRow(act).name

const DRAPES: Readonly<Record<string, string>> = {
  none: 'in the hands',
  shoulders: 'round the shoulders',
  behind: 'behind you',
  front: 'in front of you',
  overhead: 'over your head',
  frame: 'a frame',
  'wrap-R': 'wrapped round your right',
  'wrap-L': 'wrapped round your left',
  head: 'on your head',
  air: 'in the air',
  floor: 'on the floor',
}

const seconds = (value: number): string => `${value.toFixed(2).replace(/0$/, '')} s`

/** What is found of something that is carried, in a sentence that says what to do. */
export function propText(fact: PropFact, units: Units): string {
  const metres = (value: number) => lengthWords(value, units)
  switch (fact.code) {
    case 'prop.full':
      return `The ${sideWord[fact.hand]} hand has ${fact.holds} in it, and can’t ${nameOfAct(fact.act)} ${fact.prop}. Let that go first, or use the other hand.`
    case 'prop.empty':
      return fact.hand
        ? `The ${sideWord[fact.hand]} hand does not hold ${fact.prop}, so it can’t ${nameOfAct(fact.act)}. Take it there first, or use the other hand.`
        : `No hand holds ${fact.prop} here, so it can’t be done: ${nameOfAct(fact.act)}. Take it first.`
    case 'prop.two-hands':
      return fact.act
        ? `“${capital(nameOfAct(fact.act))}” needs both hands on ${fact.prop}. Take it with the other hand before.`
        : `${fact.move ?? 'This hold'} needs both hands on ${fact.prop}. Take it with the other hand before, or hold the arms without it.`
    case 'prop.drape':
      return fact.from.length === 0
        ? `“${capital(nameOfAct(fact.act))}” is nothing that can be done with ${fact.prop}. Take it out, or do something else with it.`
        : `${fact.prop} is ${DRAPES[fact.is]} here, and “${nameOfAct(fact.act)}” begins with it ${listed(fact.from.map((one) => DRAPES[one] ?? one))}. Bring it there first, or leave this out.`
    case 'prop.no-turn':
      return `“${capital(nameOfAct(fact.act))}” is made by a turn, and the feet turn nowhere in these counts. Write a turn of 90° or more there, or leave it out.`
    case 'prop.unready':
      return `“${capital(nameOfAct(fact.act))}” wants ${READY[fact.ready] ?? `“${fact.ready}” made ready`} before. Write “ready ${fact.ready}” a count or more earlier.`
    case 'prop.late':
      return `“${capital(nameOfAct(fact.act))}” takes ${seconds(fact.least)} with ${fact.prop}, and has ${seconds(fact.seconds)}. Give it more counts, or slow it down.`
    case 'prop.lag':
      return `${fact.prop} is round ${countWords(Math.round(fact.counts * 10) / 10)} after you, and still ${Math.round(fact.degrees)}° behind here. Begin “${nameOfAct(fact.act)}” later, or let it come round first.`
    case 'prop.hands-apart':
      return fact.isPass
        ? `To pass ${fact.prop} over the hands come together, and they are ${metres(fact.metres)} apart. Bring both arms to one place for it.`
        : `The hands are ${metres(fact.metres)} apart here, and ${fact.prop} has ${metres(fact.most)} between them. Bring the arms nearer, or let one edge slide.`
    case 'prop.clap':
      return `${fact.hand ? `The ${sideWord[fact.hand]} hand holds ${fact.prop} and is` : `Both hands hold ${fact.prop} and are`} to do ${fact.move}. Let go before, or leave that out.`
    case 'prop.wound':
      return fact.move
        ? `The arm is wrapped in ${fact.prop} here and is told to do ${fact.move}. Roll out first, or leave that out.`
        : `${fact.prop} is wound round you ${fact.halves} half turns: that is hard to come out of. Roll out in between.`
    case 'prop.underfoot':
      return `${metres(fact.metres)} of ${fact.prop} lie on the floor where the ${sideWord[fact.foot]} foot comes down: whoever steps on it slips. Lift it, take it with the other hand, or step elsewhere.`
    case 'prop.air':
      switch (fact.why) {
        case 'lost':
          return `${fact.prop} is thrown and nobody catches it. Write the catch, or carry it.`
        case 'short':
          return `${fact.prop} is to be caught ${seconds(fact.by)} after it is thrown: so short is no throw. Catch it later.`
        case 'long':
          return `${fact.prop} would be in the air for ${seconds(fact.by)}, longer than it stays there. Catch it sooner.`
        case 'far':
          return `${fact.prop} comes down ${metres(fact.by)} from the hand that is to catch it. Catch it with the other hand, or where it was thrown.`
      }
      return ''
    case 'prop.join':
      return `${fact.prop} ends ${fact.ends}, and the ${fact.into === 'repeat' ? 'next round' : 'other side'} begins with it ${fact.starts}. Bring it back before the end.`
  }
}

const READY: Readonly<Record<string, string>> = {
  'hair-in': 'the hair out of the way',
  'elbow-in': 'the elbow inside',
}

const listed = (words: readonly string[]): string =>
  words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} or ${words.at(-1)}`
