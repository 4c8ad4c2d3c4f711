// Who may reach what, where Jivet is reached from other machines: decided here, from what a request carries; acted on
// by the gate. What is not listed is the owner's alone.

/** What a cookie proves: the passphrase was known, or a device was paired to one workout's floor. */
export type Pass = { id: string } & ({ kind: 'owner' } | { kind: 'device'; workoutId: string })

/**
 * `in`: goes through. `ask`: the passphrase is asked for. `pair`: a device shows the code that it read. `shut`: not for
 * this device. Tried in that order: what is open to all, the code, whoever has no pass, the owner, the device.
 */
export type Entry = 'in' | 'ask' | 'pair' | 'shut'

/** What the gate tells pages of whoever asks; whatever a request brought under these names is taken off it. */
export const DEVICE_HEADER = 'x-jivet-device'
export const FROM_HEADER = 'x-jivet-from'
/** Id of the pass that a request came with; empty where there is no door. */
export const PASS_HEADER = 'x-jivet-pass'

/** A route as its file's folder names it, e.g. `/w/[id]/floor`; `*` at its end stands for anything below. */
export interface Listed {
  methods: readonly string[]
  route: string
}
const READ = ['GET', 'HEAD']

/** What anybody may reach, without a pass. */
export const OPEN: readonly Listed[] = [
  { methods: READ, route: '/_next/static/*' },
  { methods: READ, route: '/icon.svg' },
  { methods: READ, route: '/api/health' },
  { methods: READ, route: '/enter' },
  { methods: ['POST'], route: '/api/enter' },
]
/** What a paired device may reach besides, where `[id]` is its workout, or a session of it. */
export const FLOOR: readonly Listed[] = [
  { methods: READ, route: '/w/[id]/floor' },
  { methods: READ, route: '/api/say' },
  { methods: ['POST'], route: '/api/workouts/[id]/sessions' },
  { methods: READ, route: '/api/sessions/[id]' },
  { methods: ['POST'], route: '/api/sessions/[id]/events' },
  { methods: READ, route: '/api/sessions/[id]/log' },
]

const UUID = '[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}'
const SESSION = new RegExp(`^/api/sessions/(${UUID})(?:/|$)`)
const PAIRING = /^\/pair\/[\w-]+$/

export interface Asked {
  method: string
  /** By `plainPath`. */
  path: string
  pass: Pass | null
}

/** The session that a path is about, which has to be asked for its workout before a device may go on. */
export const sessionIn = (path: string): string | null => SESSION.exec(path)?.[1] ?? null

/** @param sessionOf the workout of the session that the path is about; null where it is about none. */
export function entryFor({ method, path, pass }: Asked, sessionOf: string | null): Entry {
  if (isListed(OPEN, method, path)) return 'in'
  if (PAIRING.test(path)) return method === 'GET' ? 'pair' : 'shut'
  if (!pass) return 'ask'
  if (pass.kind === 'owner') return 'in'
  const isOwnSession = sessionIn(path) === null || sessionOf === pass.workoutId
  return isOwnSession && isListed(FLOOR, method, path, pass.workoutId) ? 'in' : 'shut'
}

/** @param id what stands for `[id]` in a route that is about no session. */
function isListed(list: readonly Listed[], method: string, path: string, id = ''): boolean {
  return list.some(({ methods, route }) => {
    if (!methods.includes(method)) return false
    if (route.endsWith('/*')) return path.startsWith(route.slice(0, -1))
    return path === route.replace('[id]', sessionIn(path) ?? id)
  })
}
