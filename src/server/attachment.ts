// Downloads: named for any file system, with the length that a browser shows progress by.

/**
 * Next takes the length off every answer of a route; under this name it gets past it, and `serve.ts` puts it back.
 */
export const LENGTH_HEADER = 'x-jivet-length'

/** Tells a browser to keep the answer as a file. */
export const asAttachment = (name: string): string => `attachment; filename*=UTF-8''${encodeURIComponent(name)}`

/** A text as a file. @param type with no charset: it is UTF-8. */
export function textAttachment(content: string, type: string, name: string): Response {
  return new Response(content, {
    headers: {
      'content-type': `${type}; charset=utf-8`,
      'content-disposition': asAttachment(name),
      [LENGTH_HEADER]: String(Buffer.byteLength(content)),
    },
  })
}
