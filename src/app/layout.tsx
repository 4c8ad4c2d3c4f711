import type { Metadata } from 'next'
import { headers } from 'next/headers'
import type { ReactNode } from 'react'
import { DEVICE_HEADER, PASS_HEADER } from '@/server/access/entry'
import { Shell } from '@/ui/parts/Shell'
import { THEME_SCRIPT } from '@/ui/parts/themeScript'
import '@/ui/tokens.css'

export const metadata: Metadata = {
  title: { default: 'Jivet', template: '%s · Jivet' },
  description: 'Follow-along workout videos: score, sync, watch, ship.',
}

export default async function Layout({ children }: { children: ReactNode }): Promise<ReactNode> {
  const given = await headers()
  const nonce = given.get('x-nonce') ?? undefined
  const mayLeave = given.has(PASS_HEADER) && !given.has(DEVICE_HEADER)
  return (
    <html lang="en" suppressHydrationWarning>
      <head>
        <script nonce={nonce} dangerouslySetInnerHTML={{ __html: THEME_SCRIPT }} />
      </head>
      <body>
        <Shell mayLeave={mayLeave}>{children}</Shell>
      </body>
    </html>
  )
}
