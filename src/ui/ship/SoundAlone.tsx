// The sound alone, or one part of it, for whoever goes on elsewhere.
'use client'
import { useState, type ReactNode } from 'react'
import { shipTexts as words } from '@/core/words/en/ship'
import { ChoiceField } from '../parts/fields'
import { PLAIN_LINK } from '../parts/Button'

export function SoundAlone({ id }: { id: string }): ReactNode {
  const [stem, setStem] = useState<keyof typeof words.stems>('mix')
  const [ending, setEnding] = useState<keyof typeof words.endings>('wav')
  const query = new URLSearchParams({ of: stem, as: ending }).toString()
  return (
    <section className="border-t-2 border-rule pt-4">
      <h2 className="pb-1.5 text-2xl">{words.soundAlone}</h2>
      <p className="text-quiet">{words.soundAloneHint}</p>
      <div className="mt-3 flex flex-wrap items-end gap-4">
        <ChoiceField label={words.stem} showLabel value={stem} options={words.stems} onChange={setStem} />
        <ChoiceField label={words.ending} showLabel value={ending} options={words.endings} onChange={setEnding} />
        <a className={PLAIN_LINK} href={`/api/workouts/${id}/stem?${query}`} download>
          {words.download}
        </a>
      </div>
    </section>
  )
}
