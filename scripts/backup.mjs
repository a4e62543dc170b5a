import { createHash } from 'node:crypto'
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { strToU8, zipSync } from 'fflate'
import { ROOT } from './setup.mjs'

/**
 * A backup of many combinations: the demo's, under other names. Returns the path of the zip.
 * @param nameOf the id and the title of each
 */
export function writeBackup(many, nameOf) {
  const demo = JSON.parse(readFileSync(join(ROOT, 'src/storage/demo/demo.json'), 'utf8'))
  const files = {}
  for (let i = 0; i < many; i++) {
    const record = { ...demo[i % demo.length], ...nameOf(i) }
    files[`combinations/${i}.sway.json`] = strToU8(JSON.stringify(record))
  }
  const manifest = {
    kind: 'molten-sway-backup',
    schemaVersion: 1,
    files: Object.entries(files).map(([path, bytes]) => ({
      path,
      sha256: createHash('sha256').update(bytes).digest('hex'),
    })),
  }
  const path = join(mkdtempSync(join(tmpdir(), 'sway-')), 'backup.zip')
  writeFileSync(path, zipSync({ 'manifest.json': strToU8(JSON.stringify(manifest)), ...files }))
  return path
}
