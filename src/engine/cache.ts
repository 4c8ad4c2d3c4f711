// Where things stay that can be made again at any time, on this machine and for this user.
import { homedir } from 'node:os'
import { join } from 'node:path'

export const cacheFolder = (name: string): string =>
  join(process.env.XDG_CACHE_HOME ?? join(homedir(), '.cache'), 'jivet', name)
