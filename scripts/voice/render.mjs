/**
 * Renders the calling voice: every count and cue word of the vocabulary, at two speeds, one
 * sound file a speed and a table of where each word lies in it. Needs `flite` and `opusenc`
 * (Debian: flite, opus-tools); what it writes is kept in the repository, so nobody else does.
 */
import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import Papa from 'papaparse'

const root = new URL('../..', import.meta.url).pathname
const folder = mkdtempSync(join(tmpdir(), 'voice-'))
const RATE = 16_000
const GAP = 0.04
const SPEEDS = { normal: 0.7, fast: 0.5 }

const sayAs = JSON.parse(readFileSync(join(root, 'scripts/voice/words.json'), 'utf8'))
const { data } = Papa.parse(readFileSync(join(root, 'src/core/moves/moves.csv'), 'utf8'), {
  header: true,
  skipEmptyLines: true,
})
const cueWords = data.flatMap(({ cue }) => cue.toLowerCase().split(/[\s-]+/)).filter(Boolean)
const words = [...new Set([...Object.keys(sayAs), ...cueWords])].sort()

/** The samples of a mono 16-bit WAV file, as numbers from -1 to 1. */
function samplesOf(file) {
  const bytes = readFileSync(file)
  const at = bytes.indexOf('data') + 8
  const values = new Float32Array((bytes.length - at) >> 1)
  for (let i = 0; i < values.length; i++) values[i] = bytes.readInt16LE(at + 2 * i) / 32_768
  return values
}

/** Loudness in frames of 5 ms. */
function framesOf(samples) {
  const size = RATE / 200
  return Array.from({ length: Math.floor(samples.length / size) }, (_, i) =>
    Math.sqrt(samples.slice(i * size, (i + 1) * size).reduce((sum, x) => sum + x * x, 0) / size),
  )
}

function trimmed(samples) {
  const frames = framesOf(samples)
  const loud = Math.max(...frames)
  const from = frames.findIndex((frame) => frame > loud * 0.02)
  const to = frames.findLastIndex((frame) => frame > loud * 0.03) + 1
  const size = RATE / 200
  return samples.slice(Math.max(0, from) * size, to * size)
}

/** Seconds until the vowel sounds: a hissing start is taken off by a low pass at 900 Hz. */
function onsetOf(samples) {
  const share = 1 - Math.exp((-2 * Math.PI * 900) / RATE)
  let low = 0
  let lower = 0
  const dull = samples.map((x) => {
    low += share * (x - low)
    lower += share * (low - lower)
    return lower
  })
  const frames = framesOf(dull)
  const loud = Math.max(...frames)
  return frames.findIndex((frame) => frame > loud * 0.45) / 200
}

function wavOf(samples) {
  const bytes = Buffer.alloc(44 + 2 * samples.length)
  bytes.write('RIFF', 0)
  bytes.writeUInt32LE(36 + 2 * samples.length, 4)
  bytes.write('WAVEfmt ', 8)
  bytes.writeUInt32LE(16, 16)
  bytes.writeUInt16LE(1, 20)
  bytes.writeUInt16LE(1, 22)
  bytes.writeUInt32LE(RATE, 24)
  bytes.writeUInt32LE(2 * RATE, 28)
  bytes.writeUInt16LE(2, 32)
  bytes.writeUInt16LE(16, 34)
  bytes.write('data', 36)
  bytes.writeUInt32LE(2 * samples.length, 40)
  samples.forEach((x, i) => {
    bytes.writeInt16LE(Math.round(Math.max(-1, Math.min(1, x)) * 32_767), 44 + 2 * i)
  })
  return bytes
}

const table = Object.fromEntries(words.map((word) => [word, {}]))
for (const [speed, stretch] of Object.entries(SPEEDS)) {
  const all = []
  for (const word of words) {
    const file = join(folder, 'word.wav')
    const text = sayAs[word] ?? word
    execFileSync('flite', [
      '-voice',
      'slt',
      '--setf',
      `duration_stretch=${stretch}`,
      '-t',
      text,
      '-o',
      file,
    ])
    const samples = trimmed(samplesOf(file))
    const loud = Math.max(...framesOf(samples))
    const start = all.length / RATE
    for (const x of samples) all.push(x * Math.min(6, 0.3 / loud))
    table[word][speed] = [start, samples.length / RATE, Math.max(0, onsetOf(samples))].map(
      (seconds) => Math.round(seconds * 10_000) / 10_000,
    )
    for (let i = 0; i < GAP * RATE; i++) all.push(0)
  }
  const file = join(folder, `${speed}.wav`)
  writeFileSync(file, wavOf(all))
  execFileSync('opusenc', [
    '--quiet',
    '--bitrate',
    '24',
    file,
    join(root, `src/audio/voice/${speed}.ogg`),
  ])
}
const rows = words.map((word) => `  ${JSON.stringify(word)}: ${JSON.stringify(table[word])}`)
writeFileSync(join(root, 'src/audio/voice/words.json'), `{\n${rows.join(',\n')}\n}\n`)
