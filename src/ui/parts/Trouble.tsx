// A page that could not be shown: what happened and where to go.
'use client'
import Link from 'next/link'
import type { ReactNode } from 'react'
import { texts } from '@/core/words/en/screens'
import { Bar } from './Bar'
import { Button, PLAIN_LINK } from './Button'

export function Trouble({ heading, retry }: { heading: string; retry?: () => void }): ReactNode {
  return (
    <>
      <Bar />
      <main id="content" tabIndex={-1} className="mx-auto mt-24 flex max-w-xl flex-col items-start gap-6 px-6">
        <h1 className="text-4xl">{heading}</h1>
        <div className="flex gap-3">
          {retry && (
            <Button weight="main" onClick={retry}>
              {texts.trouble.retry}
            </Button>
          )}
          <Link href="/" className={PLAIN_LINK}>
            {texts.trouble.back}
          </Link>
        </div>
      </main>
    </>
  )
}
