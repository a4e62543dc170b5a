// What takes too long for every change: all cases of every property, damaged and garbled files by
// the tens of thousands under a new seed, and sixty browsers killed in the middle of the work.
import { bin, installPackages, run } from './setup.mjs'

installPackages()
const seed = process.argv[2] ?? String(Date.now() % 1_000_000)
console.log(`seed ${seed}`)
const codes = [
  run(bin('vitest'), ['run', '--project', 'unit'], {
    env: { ...process.env, CASES: 'all', GARBLED: '20000', SEED: seed },
  }),
  run(process.execPath, ['scripts/kills.mjs', '60', seed]),
  // A song and its clicks over five minutes at each speed.
  run(bin('vitest'), ['run', '--project', 'sound', 'song.sound'], {
    env: { ...process.env, SONG_SECONDS: '300' },
  }),
]
process.exit(codes.every((code) => code === 0) ? 0 : 1)
