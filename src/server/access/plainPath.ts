// The path that a request asks for, in the one form that the door decides by and Next is given. Whatever could be read
// in two ways is refused.

/** Path characters of RFC 3986, and brackets, which browsers leave as they are. */
const PLAIN = /^\/[\w\-.~!$&'()*+,;=:@%/[\]]*$/
const ENCODED = /%[0-9a-f]{2}/i

/**
 * @param target a request's target, e.g. `/w/1/floor?board`.
 * @returns the decoded path without its query; null where the target is no path, or has dot segments, empty segments,
 * backslashes, control characters, encoded slashes, or is encoded twice.
 */
export function plainPath(target: string): string | null {
  const raw = target.split(/[?#]/, 1)[0] ?? ''
  if (!PLAIN.test(raw)) return null
  const segments = raw.slice(1).split('/')
  const decoded: string[] = []
  for (const [index, segment] of segments.entries()) {
    const text = decode(segment)
    if (text === null || isTwofold(text)) return null
    if (text === '' && index < segments.length - 1) return null
    decoded.push(text)
  }
  return `/${decoded.join('/')}`
}

function decode(segment: string): string | null {
  try {
    return decodeURIComponent(segment)
  } catch {
    return null
  }
}

const isTwofold = (text: string): boolean =>
  /^\.{1,2}(?:;|$)/.test(text) || /[/\\\p{Cc}]/u.test(text) || ENCODED.test(text)

/** The target that Next is given: the same path, encoded in one way, with its query. */
export function plainTarget(path: string, target: string): string {
  const query = /\?[^#]*/.exec(target)?.[0] ?? ''
  return path.split('/').map(encodeURIComponent).join('/') + query
}
