// Asks for the passphrase, once for each device that comes from another machine.
'use client'
import { useState, type FormEvent, type ReactNode } from 'react'
import { accessTexts as words } from '@/core/words/en/floor'
import { call } from '../api'
import { Button } from '../parts/Button'

export function EnterView({ to }: { to: string }): ReactNode {
  const [passphrase, setPassphrase] = useState('')
  const [wrong, setWrong] = useState('')
  const [busy, setBusy] = useState(false)
  const enter = (event: FormEvent): void => {
    event.preventDefault()
    setBusy(true)
    call('POST', '/api/enter', { passphrase })
      .then(() => window.location.assign(to))
      .catch((error: Error) => {
        setWrong(error.message)
        setBusy(false)
      })
  }
  return (
    <main id="content" tabIndex={-1} className="mx-auto mt-[14vh] w-full max-w-md px-6">
      <h1 className="text-5xl">{words.heading}</h1>
      <p className="mt-2 text-lg text-quiet">{words.hint}</p>
      <form onSubmit={enter} className="mt-6 grid gap-4">
        <label className="grid gap-1">
          {words.passphrase}
          <input
            type="password"
            autoComplete="current-password"
            autoFocus
            className="min-h-12 border-2 border-ink bg-pale px-3 text-lg"
            value={passphrase}
            aria-invalid={wrong !== ''}
            aria-describedby="wrong"
            onChange={(event) => setPassphrase(event.target.value)}
          />
        </label>
        <p id="wrong" role="alert" className="min-h-6 font-bold text-signal">
          {wrong}
        </p>
        <Button type="submit" weight="main" className="min-h-14 text-xl" disabled={busy || !passphrase}>
          {words.enter}
        </Button>
      </form>
    </main>
  )
}
