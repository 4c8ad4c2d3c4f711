// Who may reach what, where Jivet is reached from other machines: decided here, from what a request carries; acted on
// by the gate.

/** What a cookie proves: the passphrase was known, or a device was paired to one workout's floor. */
export type Pass = { kind: 'owner' } | { kind: 'device'; workoutId: string }

/**
 * `in`: goes through. `ask`: the passphrase is asked for. `pair`: a device shows the code that it read. `shut`: not for
 * this device. Tried in that order: what is open to all, the code, whoever has no pass, the owner, the device.
 */
export type Entry = 'in' | 'ask' | 'pair' | 'shut'

/** What the gate tells pages of whoever asks; whatever a request brought under these names is taken off it. */
export const DEVICE_HEADER = 'x-jivet-device'
export const FROM_HEADER = 'x-jivet-from'

const OPEN = /^\/(?:_next\/static\/|icon\.svg$|api\/health$|enter$|api\/enter$)/
const PAIRING = /^\/pair\/[\w-]+$/
const SESSION = /^\/api\/sessions\/([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12})(?:\/|$)/

export interface Asked {
  method: string
  /** Without its query. */
  path: string
  pass: Pass | null
}

/** The session that a path is about, which has to be asked for its workout before a device may go on. */
export const sessionIn = (path: string): string | null => SESSION.exec(path)?.[1] ?? null

/** @param sessionOf the workout of the session that the path is about; null where it is about none. */
export function entryFor({ method, path, pass }: Asked, sessionOf: string | null): Entry {
  if (OPEN.test(path)) return 'in'
  if (PAIRING.test(path)) return method === 'GET' ? 'pair' : 'shut'
  if (!pass) return 'ask'
  if (pass.kind === 'owner') return 'in'
  return isOfFloor(method, path, pass.workoutId, sessionOf) ? 'in' : 'shut'
}

function isOfFloor(method: string, path: string, workoutId: string, sessionOf: string | null): boolean {
  if (path.startsWith('/_next/')) return true
  if (sessionIn(path)) return sessionOf === workoutId
  if (path === `/api/workouts/${workoutId}/sessions`) return method === 'POST'
  return (method === 'GET' || method === 'HEAD') && (path === `/w/${workoutId}/floor` || path === '/api/say')
}
