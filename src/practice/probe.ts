import { vocabularyFor } from '../core/moves/vocabulary'
import { performanceOf } from '../core/performance/performance'
import { danceOf } from '../core/piece/dance'
import { dancersOf } from '../core/pose/dancers'

Object.assign(globalThis, { x: { danceOf, performanceOf, dancersOf, vocabularyFor } })
