import { build } from 'vite'
import { lazyCore } from './lazyCore.mjs'
import { gzipSync } from 'node:zlib'
const entry = process.argv[2]
const r = await build({ root: '/work/main', configFile: false, logLevel: 'error', plugins: [lazyCore()], build: { write: false, lib: { entry, formats: ['iife'], name: 'P' }, minify: true, rolldownOptions: { treeshake: { moduleSideEffects: false } } } })
const out = (Array.isArray(r) ? r[0] : r).output[0]
console.log('raw', out.code.length, 'gz', gzipSync(out.code).length)
const m = Object.entries(out.modules).map(([k, v]) => [k.replace('/work/main/', ''), v.renderedLength]).sort((a, b) => b[1] - a[1])
const by = new Map()
for (const [k, l] of m) { const d = k.includes('node_modules') ? k.split('node_modules/').pop().split('/')[0] : k.split('/').slice(0, 3).join('/'); by.set(d, (by.get(d) || 0) + l) }
for (const [k, l] of [...by].sort((a, b) => b[1] - a[1]).slice(0, 40)) console.log(l, k)
console.log(m.slice(0, 25).map(([k, l]) => l + ' ' + k).join('\n'))
console.log('--- zod users')
for (const [k, v] of Object.entries(out.modules)) {
  if (!k.includes('/src/') || !v.code) continue
  const lines = v.code.split('\n').filter((l) => /\b(_enum|object|string|number|array|literal|union|discriminatedUnion|record|int|coerce|strictObject)\(|safeParse|\.options\b|\.parse\(/.test(l) && /safeParse|parse\(|\.options|\b(z|_enum|external_exports)\b|= .*(object|literal|string|array|union|number)\(/.test(l))
  if (lines.length) console.log(k.replace('/work/main/', '') + '\n   ' + lines.map((l) => l.trim().slice(0, 110)).slice(0, 8).join('\n   '))
}
