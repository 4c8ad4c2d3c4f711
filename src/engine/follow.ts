// Where in a recording's picture somebody moves, so that a part of it can go along.
import { z } from 'zod'
import { MovementPath } from '../core/cut/followed'
import { partOf, type Aim, type Shape } from '../core/cut/framing'
import { Cache } from './cache'
import type { FootageFacts } from './probe'
import { smallPictures } from './watch'

const kept = new Cache('followed-1', { mostBytes: 200e6, leastBytes: 2 })
const keptSchema = z.array(z.object({ atMs: z.number(), at: z.number() }))

/**
 * Keys for a part of that shape; kept by the file's contents.
 * @throws Problem `tool-failed`, `tool-missing` or `cancelled`.
 */
export async function followOnce(
  file: { path: string; hash: string; facts: FootageFacts },
  shape: Shape,
  signal?: AbortSignal,
): Promise<Aim[]> {
  const name = `${file.hash}-${shape}`
  const known = keptSchema.safeParse(parsed(await kept.recall(name)))
  if (known.success) return known.data
  const aims = await follow(file, shape, signal)
  await kept.keep(name, JSON.stringify(aims))
  return aims
}

function parsed(text: Uint8Array | null): unknown {
  try {
    return text && (JSON.parse(text.toString()) as unknown)
  } catch {
    // Damaged: looked at anew.
    return null
  }
}

/** The same, looked at anew. */
export async function follow(
  { path, facts }: { path: string; facts: FootageFacts },
  shape: Shape,
  signal?: AbortSignal,
): Promise<Aim[]> {
  const part = partOf(facts, shape)
  const across = part.width < facts.width
  if (!across && part.height === facts.height) return []
  const movement = new MovementPath(across ? 'across' : 'down')
  await smallPictures(path, facts, { ...(signal ? { signal } : {}), onPicture: (picture) => movement.push(picture) })
  return movement.finish(across ? part.width / facts.width : part.height / facts.height)
}
