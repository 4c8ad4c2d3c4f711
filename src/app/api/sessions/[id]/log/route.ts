import { textAttachment } from '@/server/attachment'
import { idFrom, route } from '@/server/http'
import { downloadName } from '@/server/packs'
import { floorLogOf } from '@/server/sessions'

/** The record of a session as a file. */
export const GET = route<{ id: string }>(async (_request, { id }) => {
  const log = await floorLogOf(idFrom(id))
  const name = downloadName(log.score.title, ` ${log.openedAt.slice(0, 10)}.floor.json`)
  return textAttachment(`${JSON.stringify(log, null, 2)}\n`, 'application/json', name)
})
