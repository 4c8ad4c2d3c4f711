// Sweeps at once and says what went; with `--dry`, what would go. Run by `npm run tidy`.
import { Problem } from '../core/problem'
import { sql } from './db'
import { tidy } from './tidy'

const dry = process.argv.includes('--dry')
const swept = await tidy({ dry, anyway: process.argv.includes('--anyway') }).catch(async (error: unknown) => {
  if (!(error instanceof Problem)) throw error
  console.error(error.message)
  await sql().end()
  return process.exit(1)
})
for (const { what, path, bytes } of swept)
  console.log(`${dry ? 'would go' : 'gone'}  ${what.padEnd(7)}  ${String(bytes).padStart(12)} bytes  ${path}`)
const megabytes = swept.reduce((sum, { bytes }) => sum + bytes, 0) / 1e6
console.log(`${swept.length} ${swept.length === 1 ? 'file' : 'files'}, ${megabytes.toFixed(1)} MB`)
await sql().end()
