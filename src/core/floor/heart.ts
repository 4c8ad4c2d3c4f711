// A heart-rate strap's measurement as its standard has it: Bluetooth Heart Rate Service 1.0, characteristic 0x2A37.
/** Where the simulated strap listens, on the machine of whoever looks. */
export const STRAP_PORT = 4320

const RATE_IS_LONG = 1
const CONTACT_IS_KNOWN = 4
const CONTACT = 2

/**
 * @param bytes one measurement: flags, then the rate in one byte or in two, the lower first.
 * @returns beats a minute; null where it is none, or the strap says that it touches no skin.
 */
export function heartRateIn(bytes: Uint8Array): number | null {
  const [flags, low, high] = bytes
  if (flags === undefined || low === undefined) return null
  if (flags & CONTACT_IS_KNOWN && !(flags & CONTACT)) return null
  if (!(flags & RATE_IS_LONG)) return low
  return high === undefined ? null : low + 256 * high
}

/** @returns the measurement of a strap that touches skin. @param bpm whole, 0 to 65,535. */
export const heartRateBytes = (bpm: number): Uint8Array =>
  bpm < 256
    ? Uint8Array.of(CONTACT_IS_KNOWN | CONTACT, bpm)
    : Uint8Array.of(RATE_IS_LONG | CONTACT_IS_KNOWN | CONTACT, bpm % 256, Math.floor(bpm / 256))
