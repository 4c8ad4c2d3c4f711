// Refuses pages under a foreign Host. Route handlers guard themselves, so that uploads are never buffered here.
import { NextResponse, type NextRequest } from 'next/server'
import { isOwnHost } from '@/server/http'

export function proxy(request: NextRequest): Response {
  return isOwnHost(request.headers.get('host'))
    ? NextResponse.next()
    : new Response("This address is not one of Jivet's own.", { status: 403 })
}

export const config = { matcher: ['/((?!api|_next).*)'] }
