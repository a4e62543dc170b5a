import demo from '../src/storage/demo/demo.json'
import { Combination } from '../src/core/combination/combination'
import { passesOf } from '../src/core/combination/passes'
import { vocabulary } from '../src/core/moves/vocabulary'
import { planOf, simulate } from '../src/core/simulate/simulate'
import { dance } from '../src/core/simulate/primitives'
import { startState } from '../src/core/simulate/start'
const c = Combination.array().parse(demo).find(({ id }) => id.includes('lantern'))!
const time = (n: string, f: () => unknown) => { for (let i=0;i<3000;i++) f(); const t=performance.now(); for (let i=0;i<5000;i++) f(); console.log(n, ((performance.now()-t)/5).toFixed(1),'us') }
const passes = passesOf(c)
time('passes', () => passesOf(c))
time('plan', () => planOf(passes, vocabulary))
const plan = planOf(passes, vocabulary)
console.log(plan.length)
time('dance', () => { let s = startState(c.start); for (const p of plan) s = dance(s, p.action, p.at).state })
time('spread', () => plan.map((p) => ({ ...p, after: 1 })))
time('sim', () => simulate(c, vocabulary))
const cc = structuredClone(c)
time('sim clone', () => simulate(cc, vocabulary))
const p2 = structuredClone(plan)
time('dance clone', () => { let s = startState(c.start); for (const p of p2) s = dance(s, p.action, p.at).state })
