import { AudioSample, AudioSampleSource, BufferTarget, Output, WavOutputFormat } from 'mediabunny'

/** One row of samples as a WAV file of 16 bits, mono. */
export async function writeWav(
  samples: Float32Array<ArrayBuffer>,
  rate: number,
): Promise<ArrayBuffer> {
  const target = new BufferTarget()
  const output = new Output({ format: new WavOutputFormat(), target })
  const source = new AudioSampleSource({ codec: 'pcm-s16' })
  output.addAudioTrack(source)
  await output.start()
  const sample = new AudioSample({
    data: samples,
    format: 'f32',
    numberOfChannels: 1,
    sampleRate: rate,
    timestamp: 0,
  })
  await source.add(sample)
  sample.close()
  source.close()
  await output.finalize()
  if (!target.buffer) throw new Error('nothing was written')
  return target.buffer
}
