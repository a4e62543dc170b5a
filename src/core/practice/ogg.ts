/** An Opus stream in Ogg: its two heads, and its packets in order. */
interface OpusStream {
  readonly heads: readonly Uint8Array[]
  readonly packets: readonly Uint8Array[]
  /** Samples of 48000 a second that are decoded before the first one that is heard. */
  readonly skip: number
}

/** Opus counts in samples of 48000 a second, whatever was recorded. */
export const OPUS_RATE = 48_000

const isOgg = (bytes: Uint8Array, at: number): boolean =>
  bytes[at] === 0x4f && bytes[at + 1] === 0x67 && bytes[at + 2] === 0x67 && bytes[at + 3] === 0x53

/** Reads an Ogg file with one Opus stream. @throws Error where it is none. */
export function readOpus(file: Uint8Array): OpusStream {
  const packets: Uint8Array[] = []
  let begun: Uint8Array[] = []
  for (let at = 0; at < file.length; ) {
    if (!isOgg(file, at)) throw new Error('this is no Ogg file')
    const laces = file[at + 26] ?? 0
    let body = at + 27 + laces
    let from = body
    for (let i = 0; i < laces; i++) {
      const length = file[at + 27 + i] ?? 0
      body += length
      // A lace of 255 goes on with the next one.
      if (length === 255) continue
      packets.push(joined([...begun, file.subarray(from, body)]))
      begun = []
      from = body
    }
    if (from < body) begun.push(file.subarray(from, body))
    at = body
  }
  const [head, tags, ...rest] = packets
  if (!head || !tags || String.fromCharCode(...head.subarray(0, 8)) !== 'OpusHead')
    throw new Error('this is no Opus stream')
  return { heads: [head, tags], packets: rest, skip: (head[10] ?? 0) | ((head[11] ?? 0) << 8) }
}

/** Samples of a packet, of 48000 a second, by its first byte (RFC 6716, 3.1). */
export function samplesOf(packet: Uint8Array): number {
  const toc = packet[0] ?? 0
  const config = toc >> 3
  const frame =
    config < 12
      ? [480, 960, 1920, 2880][config & 3]
      : config < 16
        ? [480, 960][config & 1]
        : [120, 240, 480, 960][config & 3]
  const code = toc & 3
  const frames = code === 0 ? 1 : code < 3 ? 2 : (packet[1] ?? 0) & 63
  return (frame ?? 960) * frames
}

/** Writes packets into an Ogg file, behind the heads of the stream they come from. */
export function writeOpus({ heads, packets, skip }: OpusStream): Uint8Array<ArrayBuffer> {
  const pages: Uint8Array[] = []
  const [head = new Uint8Array()] = heads
  // The tags are left out but for their name: they say who made the encoder.
  const tags = Uint8Array.from(
    [...'OpusTags'].map((sign) => sign.charCodeAt(0)).concat(Array(8).fill(0)),
  )
  pages.push(pageOf([head], { at: 0, index: 0, flags: 2 }))
  pages.push(pageOf([tags], { at: 0, index: 1, flags: 0 }))
  let at = 0
  let own: Uint8Array[] = []
  let laces = 0
  for (const [i, packet] of packets.entries()) {
    own.push(packet)
    at += samplesOf(packet)
    laces += Math.floor(packet.length / 255) + 1
    const next = packets[i + 1]
    if (next && laces + Math.floor(next.length / 255) + 1 <= 255) continue
    pages.push(
      pageOf(own, { at: next ? at : Math.max(skip, at), index: pages.length, flags: next ? 0 : 4 }),
    )
    own = []
    laces = 0
  }
  return joined(pages)
}

interface PagePlace {
  /** Samples up to its end. */
  readonly at: number
  readonly index: number
  /** 2 begins the stream, 4 ends it. */
  readonly flags: number
}

function pageOf(packets: readonly Uint8Array[], { at, index, flags }: PagePlace): Uint8Array {
  const laces = packets.flatMap(({ length }) => [
    ...Array<number>(Math.floor(length / 255)).fill(255),
    length % 255,
  ])
  const page = joined([new Uint8Array(27), Uint8Array.from(laces), ...packets])
  const view = new DataView(page.buffer)
  page.set([0x4f, 0x67, 0x67, 0x53, 0, flags])
  view.setUint32(6, at, true)
  // One stream has one number, any.
  view.setUint32(14, 1, true)
  view.setUint32(18, index, true)
  page[26] = laces.length
  view.setUint32(22, checkOf(page), true)
  return page
}

function joined(parts: readonly Uint8Array[]): Uint8Array<ArrayBuffer> {
  const all = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0))
  let at = 0
  for (const part of parts) {
    all.set(part, at)
    at += part.length
  }
  return all
}

/** The check of an Ogg page: CRC-32 with 0x04c11db7, nothing turned round (RFC 3533). */
function checkOf(bytes: Uint8Array): number {
  let crc = 0
  for (const byte of bytes) {
    crc ^= byte << 24
    for (let i = 0; i < 8; i++) crc = crc < 0 ? (crc << 1) ^ 0x04c11db7 : crc << 1
  }
  return crc >>> 0
}
