import { spawnSync } from 'node:child_process'
import { cpSync, mkdirSync, mkdtempSync, readFileSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { beforeAll, describe, expect, it } from 'vitest'

const ROOT = join(import.meta.dirname, '..', '..')
const scratch = mkdtempSync(join(tmpdir(), 'molten-sway-recipes-'))
const page = readFileSync(join(ROOT, 'docs', 'changing.md'), 'utf8')

/** The steps of a section: a new file, or text behind a line of one that is there. */
function stepsOf(title: string) {
  const section = page.split(/^## /m).find((part) => part.startsWith(`${title}\n`)) ?? ''
  const step = /^(New|In) `([^`]+)`(?:, behind `([^`]+)`)?:\n\n```ts\n([\s\S]*?)```$/gm
  return [...section.matchAll(step)].map(([, , path = '', behind, text = '']) => ({
    path,
    behind,
    text,
  }))
}

function follow(title: string): number {
  const steps = stepsOf(title)
  for (const { path, behind, text } of steps) {
    const file = join(scratch, path)
    if (behind === undefined) {
      mkdirSync(dirname(file), { recursive: true })
      writeFileSync(file, text)
      continue
    }
    const before = readFileSync(file, 'utf8')
    const lines = before.split('\n')
    const at = lines.indexOf(behind)
    expect(
      lines.filter((line) => line === behind),
      `${path}: ${behind}`,
    ).toHaveLength(1)
    writeFileSync(
      file,
      [...lines.slice(0, at + 1), text.trimEnd(), ...lines.slice(at + 1)].join('\n'),
    )
  }
  return steps.length
}

const node = (...args: string[]) => {
  const { status, stdout, stderr } = spawnSync(process.execPath, args, { cwd: scratch })
  return { status, out: stdout.toString(), err: stderr.toString() }
}

describe('the recipes for changes', () => {
  beforeAll(() => {
    for (const name of [
      'src',
      'tsconfig.json',
      'tsconfig.core.json',
      'vite.config.ts',
      'package.json',
    ])
      cpSync(join(ROOT, name), join(scratch, name), { recursive: true })
    symlinkSync(join(ROOT, 'node_modules'), join(scratch, 'node_modules'))
  })

  it('for a rule and for a kind are all that is needed: it compiles, is found, read and said', () => {
    expect(follow('A rule')).toBe(7)
    expect(follow('A kind of what is danced')).toBe(6)
    const types = node('node_modules/typescript/bin/tsc', '-p', 'tsconfig.core.json')
    expect(types.out).toBe('')
    expect(types.status).toBe(0)
    const build = ['node_modules/vite/bin/vite.js', 'build', '--ssr', 'src/cli/sway.ts']
    expect(node(...build, '--outDir', 'built', '--logLevel', 'error').status).toBe(0)

    const sheet = join(scratch, 'quiet.sway')
    writeFileSync(
      sheet,
      'sway 1\ntitle Quiet\nphrase A 8\n feet 1 step R side; 2 touch L\nphrase B 4\norder A B\n',
    )
    const checked = JSON.parse(node('built/sway.js', 'check', sheet, '--json').out)
    expect(checked.findings).toContainEqual(
      expect.objectContaining({
        code: 'phrase.empty',
        at: 'B1',
        text: 'Nothing is danced here yet.',
      }),
    )

    const typed = join(scratch, 'breath.sway')
    writeFileSync(
      typed,
      'sway 1\ntitle Quiet\nphrase A 8\n feet 1 step R side; 2 touch L\n torso 1-4 breathe out\norder A\n',
    )
    const written = node('built/sway.js', 'convert', typed, '--to', 'json').out
    expect(JSON.parse(written).phrases[0].events).toContainEqual(
      expect.objectContaining({ layer: 'torso', what: { kind: 'breath', way: 'out' } }),
    )
    const file = join(scratch, 'breath.sway.json')
    writeFileSync(file, written)
    expect(node('built/sway.js', 'convert', file, '--to', 'sway').out).toMatch(
      /torso +1-4 breathe out/,
    )
    const again = JSON.parse(node('built/sway.js', 'check', file, '--json').out)
    expect(again.findings.map(({ code }: { code: string }) => code)).not.toContain('phrase.empty')
  }, 120_000)
})
