// Writes THIRD-PARTY.md from package-lock.json: every package that Jivet needs to run, with its licence.
//   node scripts/thirdParty.mjs
import { readFileSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

const ROOT = join(dirname(fileURLToPath(import.meta.url)), '..')

/** @returns the page, and the packages that say no licence. */
export function thirdParty() {
  const { packages } = JSON.parse(readFileSync(join(ROOT, 'package-lock.json'), 'utf8'))
  const needed = Object.entries(packages)
    .filter(([path, { dev }]) => path && !dev)
    .map(([path, { version, license }]) => ({ name: path.split('node_modules/').at(-1), version, license }))
    .sort((one, other) => one.name.localeCompare(other.name) || one.version.localeCompare(other.version))
  const rows = needed.map(({ name, version, license }) => `| ${name} | ${version} | ${license ?? 'none said'} |`)
  const page = [
    '# What Jivet is built on',
    '',
    'Made from package-lock.json by `node scripts/thirdParty.mjs`; `npm test` holds the two together. Tools that only',
    'build and test are not listed. PostgreSQL, ffmpeg and flite come from the packages of Debian, with their licences.',
    '',
    '| package | version | licence |',
    '|---|---|---|',
    ...new Set(rows),
    '',
  ].join('\n')
  return { page, unlicensed: needed.filter(({ license }) => !license).map(({ name }) => name) }
}

if (process.argv[1]?.endsWith('thirdParty.mjs')) writeFileSync(join(ROOT, 'THIRD-PARTY.md'), thirdParty().page)
