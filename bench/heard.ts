// Simulated takes as they were heard, kept in the folder KEPT where there is one: hearing takes most of a bench's time.
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { deserialize, serialize } from 'node:v8'
import { hearTake, type HeardTake } from '../demo/takes/judge'
import { makeTake, type KindName, type Split } from '../demo/takes/takes'
import { EVIDENCE_VERSION } from '../src/core/evidence'

/** Lines that synthesisers spoke are kept here. */
const SPOKEN = join(tmpdir(), 'jivet-spoken')

export async function heardTake(kind: KindName, split: Split, number: number): Promise<HeardTake> {
  const kept = process.env.KEPT && join(process.env.KEPT, `${EVIDENCE_VERSION} ${split} ${kind} ${number}.heard`)
  if (kept && existsSync(kept)) return deserialize(readFileSync(kept)) as HeardTake
  const heard = await hearTake(makeTake(kind, split, number, SPOKEN))
  if (kept) {
    mkdirSync(dirname(kept), { recursive: true })
    writeFileSync(`${kept}.part`, serialize(heard))
    renameSync(`${kept}.part`, kept)
  }
  return heard
}
