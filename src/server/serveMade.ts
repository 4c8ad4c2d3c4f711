// Serves what is made while somebody waits for it.
import { join } from 'node:path'
import { serveFile, type Serving } from './serveFile'
import { keepFile, storedFile, withRequestFolder } from './store'

/**
 * What is made lies in this machine's store under its contents, which no row names: it is swept after a day.
 * @param make writes `out`, and may use the folder for what waits.
 */
export async function serveMade(
  request: Request,
  serving: Serving,
  make: (out: string, folder: string) => Promise<void>,
): Promise<Response> {
  const hash = await withRequestFolder(async (folder) => {
    const out = join(folder, 'made')
    await make(out, folder)
    return keepFile(out, { passing: true })
  })
  return serveFile(request, await storedFile(hash), serving)
}
