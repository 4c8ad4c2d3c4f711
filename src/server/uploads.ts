// Footage uploads by the tus protocol: streamed to disk, resumed after a break, recorded when complete.
import { mkdirSync } from 'node:fs'
import { Server } from '@tus/server'
import { Problem } from '../core/problem'
import { FlushedStore } from './flushedStore'
import { addFootage, shownName } from './footage'
import { idFrom } from './http'
import { problemSentence } from '../core/words/en/problems'
import { KEPT_FREE } from './room'
import { freeBytes, uploadsFolder } from './store'
import { noteOf, replacesSchema, uploadNotes } from './uploadNotes'
import { findWorkout } from './workouts'

const kept = globalThis as typeof globalThis & { jivetTus?: Server }

/** The most that one file may hold: half a terabyte, a day of high-quality footage. */
const MOST_BYTES = 512 * 1024 ** 3

const FULL = { status_code: 507, body: problemSentence({ code: 'disk-full' }) }

const NO_LENGTH = { status_code: 411, body: problemSentence({ code: 'length-missing' }) }

/** What uploads under way have still to bring: their room is taken. */
async function promisedBytes(): Promise<number> {
  return (await uploadNotes()).reduce((sum, { size, there }) => sum + Math.max(0, size - there), 0)
}

export function uploadServer(): Server {
  kept.jivetTus ??= make()
  return kept.jivetTus
}

function make(): Server {
  mkdirSync(uploadsFolder(), { recursive: true })
  return new Server({
    path: '/api/uploads',
    datastore: new FlushedStore({ directory: uploadsFolder() }),
    maxSize: MOST_BYTES,
    // What has come whole is footage: whoever cancels now is too late.
    disableTerminationForFinishedUploads: true,
    relativeLocation: true,
    async onUploadCreate(_request, upload) {
      await findWorkout(idFrom(upload.metadata?.workoutId ?? '')).catch(asTusError)
      // A length that comes later would be room that nobody can reserve.
      if (upload.size === undefined) throw NO_LENGTH
      if (upload.size + (await promisedBytes()) + KEPT_FREE > (await freeBytes())) throw FULL
      return {}
    },
    async onUploadFinish(_request, upload) {
      await addFootage({
        workoutId: idFrom(upload.metadata?.workoutId ?? ''),
        name: shownName(upload.metadata?.filename ?? ''),
        bytes: upload.size ?? 0,
        upload: upload.id,
        replaces: replacesSchema.parse(upload.metadata?.replaces),
      })
      return {}
    },
    async onIncomingRequest(request, id) {
      if (request.method === 'HEAD') await finishedOnce(id)
    },
    // The store hides why a write failed; whether there is room tells.
    onResponseError: async () => ((await freeBytes()) < KEPT_FREE ? FULL : undefined),
  })
}

/**
 * Makes footage of an upload that has come whole and is none yet: its finish failed. A page that asks how much is there
 * and hears that all is takes it for done.
 */
async function finishedOnce(upload: string): Promise<void> {
  const note = await noteOf(upload)
  if (!note || note.there !== note.size) return
  const { workoutId, filename, size, replaces } = note
  await addFootage({ workoutId, name: shownName(filename), bytes: size, upload, replaces })
}

function asTusError(error: unknown): never {
  if (error instanceof Problem) throw { status_code: 404, body: error.message }
  throw error
}
