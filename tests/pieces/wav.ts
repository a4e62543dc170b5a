/** Sound as a WAV file, each sample written as it is told. */
export function wav(
  samples: Float32Array,
  rate: number,
  { tag = 1, bytes = 2, channels = 1, lies = 0 }: Record<string, number> = {},
): Buffer {
  const data = samples.length * bytes * channels
  // A chunk nobody knows, of an odd length, stands before the sound.
  const at = 12 + 24 + 8 + 3 + 1
  const out = Buffer.alloc(at + 8 + data)
  out.write('RIFF', 0)
  out.writeUInt32LE(out.length - 8, 4)
  out.write('WAVEfmt ', 8)
  out.writeUInt32LE(16, 16)
  out.writeUInt16LE(tag, 20)
  out.writeUInt16LE(channels, 22)
  out.writeUInt32LE(rate, 24)
  out.writeUInt32LE(rate * bytes * channels, 28)
  out.writeUInt16LE(bytes * channels, 32)
  out.writeUInt16LE(8 * bytes, 34)
  out.write('note', 36)
  out.writeUInt32LE(3, 40)
  out.write('data', at)
  out.writeUInt32LE(data + lies, at + 4)
  for (const [i, value] of samples.entries())
    for (let channel = 0; channel < channels; channel++) {
      const to = at + 8 + (i * channels + channel) * bytes
      if (tag === 3 && bytes === 4) out.writeFloatLE(value, to)
      else if (tag === 3) out.writeDoubleLE(value, to)
      else if (bytes === 1) out.writeUInt8(Math.round(127.5 + 127 * value), to)
      else out.writeIntLE(Math.round(value * (2 ** (8 * bytes - 1) - 1)), to, bytes)
    }
  return out
}
