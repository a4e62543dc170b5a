/** Bytes as digits of sixteen, two each. */
export const hexOf = (bytes: ArrayBuffer): string =>
  [...new Uint8Array(bytes)].map((byte) => byte.toString(16).padStart(2, '0')).join('')
