const SIGNS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/'

/** Bytes as text. */
export function base64(bytes: Uint8Array): string {
  let text = ''
  for (let i = 0; i < bytes.length; i += 3) {
    const [a = 0, b = 0, c = 0] = bytes.subarray(i, i + 3)
    const four = (a << 16) | (b << 8) | c
    const signs = [18, 12, 6, 0].map((by) => SIGNS[(four >> by) & 63])
    text += signs
      .slice(0, Math.min(4, bytes.length - i + 1))
      .join('')
      .padEnd(4, '=')
  }
  return text
}

/** Bytes of such a text; what is no sign of it is left out. */
export function bytesOf(text: string): Uint8Array {
  const signs = text.replace(/=+$/, '')
  const bytes = new Uint8Array(Math.floor((signs.length * 3) / 4))
  let bits = 0
  let many = 0
  let at = 0
  for (const sign of signs) {
    const value = SIGNS.indexOf(sign)
    if (value < 0) continue
    bits = ((bits << 6) | value) & 0xffffff
    many += 6
    if (many < 8) continue
    many -= 8
    bytes[at++] = (bits >> many) & 255
  }
  return bytes
}
