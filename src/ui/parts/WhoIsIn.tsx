// Who is in, where other machines are let in: each browser and device by its name, with a way to rename or remove it,
// and to log out.
'use client'
import { DoorOpen } from 'lucide-react'
import { useState, type ReactNode } from 'react'
import { toast } from 'sonner'
import { accessTexts as words } from '@/core/words/en/floor'
import { call } from '../api'
import { Button } from './Button'
import { Sheet } from './Sheet'

interface Device {
  id: string
  kind: 'owner' | 'device'
  name: string
  workoutTitle: string | null
  seenAt: string
}
interface Inside {
  passes: Device[]
  /** The one of this browser. */
  own: string | null
}

export function WhoIsIn(): ReactNode {
  const [inside, setInside] = useState<Inside | null>(null)
  const fail = (error: Error): void => void toast.error(error.message)
  const load = (): Promise<void> => call<Inside>('GET', '/api/passes').then(setInside).catch(fail)
  const remove = (id: string): Promise<void> => call('DELETE', `/api/passes/${id}`).then(load).catch(fail)
  const rename = (id: string, name: string): Promise<void> =>
    call('PATCH', `/api/passes/${id}`, { name }).then(load).catch(fail)
  const leave = (): void => {
    call('DELETE', `/api/passes/${inside?.own}`)
      .then(() => window.location.assign('/enter'))
      .catch(fail)
  }
  return (
    <>
      <button
        type="button"
        onClick={() => void load()}
        aria-label={words.inside}
        title={words.inside}
        className="grid w-14 place-items-center hover:bg-on-bar/15 max-md:w-9"
      >
        <DoorOpen size={20} />
      </button>
      <Sheet
        open={inside !== null}
        onOpenChange={(open) => !open && setInside(null)}
        title={words.inside}
        hint={words.insideHint}
        calm
      >
        <ul className="grid grid-cols-1 border-t border-rule">
          {inside?.passes.map((device) => (
            <DeviceRow
              key={`${device.id} ${device.name}`}
              device={device}
              isOwn={device.id === inside.own}
              onRename={(name) => void rename(device.id, name)}
              onRemove={() => void remove(device.id)}
            />
          ))}
        </ul>
        <Button weight="main" className="mt-6" onClick={leave}>
          {words.leave}
        </Button>
      </Sheet>
    </>
  )
}

interface RowProps {
  device: Device
  isOwn: boolean
  onRename: (name: string) => void
  onRemove: () => void
}

function DeviceRow({ device, isOwn, onRename, onRemove }: RowProps): ReactNode {
  const [name, setName] = useState(device.name)
  const keep = (): void => {
    if (name.trim() && name.trim() !== device.name) onRename(name.trim())
    else setName(device.name)
  }
  return (
    <li className="flex items-center gap-3 border-b border-rule py-2">
      <div className="min-w-0 flex-1">
        <input
          aria-label={words.deviceName}
          className="min-h-9 w-full border-b-2 border-transparent bg-transparent text-lg font-bold hover:border-rule focus:border-ink"
          value={name}
          maxLength={60}
          onChange={(event) => setName(event.target.value)}
          onBlur={keep}
          onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
        />
        <p className="truncate text-sm text-quiet">
          {isOwn ? words.thisBrowser : words.lastSeen(new Date(device.seenAt))} ·{' '}
          {device.kind === 'owner' ? words.everything : words.floorOf(device.workoutTitle ?? '')}
        </p>
      </div>
      {!isOwn && <Button onClick={onRemove}>{words.remove}</Button>}
    </li>
  )
}
