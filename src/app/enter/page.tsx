import type { Metadata } from 'next'
import type { ReactNode } from 'react'
import { accessTexts } from '@/core/words/en/floor'
import { EnterView } from '@/ui/enter/EnterView'

export const metadata: Metadata = { title: accessTexts.heading }

interface Props {
  searchParams: Promise<Record<string, string | string[] | undefined>>
}

export default async function EnterPage({ searchParams }: Props): Promise<ReactNode> {
  const { to } = await searchParams
  // Nowhere but to a page of ours.
  const target = typeof to === 'string' && /^\/(?![/\\])/.test(to) ? to : '/'
  return <EnterView to={target} />
}
