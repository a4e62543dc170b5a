import { UserError } from '../../core/errors'

/** Pictures come as large and as often as that, where the camera can. */
const PICTURE = { width: { ideal: 1280 }, height: { ideal: 720 }, frameRate: { ideal: 30 } }
/** The room as it sounds. */
const ROOM = { echoCancellation: false, noiseSuppression: false, autoGainControl: false }
/** A piece of a film, in milliseconds: no more of it is lost with a tab that is closed. */
const PIECE_MS = 2000
/** What is asked for first; the other is all that some browsers have. */
const TYPES = ['video/webm;codecs=vp8,opus', 'video/webm', 'video/mp4'] as const

/** @throws UserError with what to do where there is no camera, or it may not be used */
export async function openCamera(hearsRoom: boolean): Promise<MediaStream> {
  const { mediaDevices } = navigator
  if (!mediaDevices?.getUserMedia)
    throw new UserError(
      'This browser can’t use a camera here.',
      'Open the app on this machine itself, or in another browser. The drill goes on without.',
    )
  try {
    return await mediaDevices.getUserMedia({ video: PICTURE, audio: hearsRoom && ROOM })
  } catch (error) {
    const name = error instanceof Error ? error.name : ''
    if (name === 'NotAllowedError')
      throw new UserError(
        'The camera may not be used.',
        'Allow it in the browser’s settings for this page, then film again.',
      )
    if (name === 'NotFoundError' || name === 'OverconstrainedError')
      throw new UserError('No camera was found.', 'Plug one in, then film again.')
    throw new UserError(
      'The camera can’t be opened.',
      'Close what else uses it, such as a call, then film again.',
    )
  }
}

/** What a camera calls itself. */
export const cameraName = (stream: MediaStream): string =>
  stream.getVideoTracks()[0]?.label.slice(0, 200) ?? ''

/** A film that is being made. */
interface Filming {
  readonly type: string
  /** When its first picture was taken, on the clock of the page. */
  readonly began: number
  /** Ends it, when the last piece was handed on. */
  readonly stop: () => Promise<void>
}

/**
 * Films what a camera sees.
 * @param onPiece takes on each piece, one after the other
 */
export function film(stream: MediaStream, onPiece: (piece: Blob) => Promise<void>): Filming {
  const type = TYPES.find((one) => MediaRecorder.isTypeSupported(one)) ?? ''
  const recorder = new MediaRecorder(stream, type ? { mimeType: type } : {})
  let last: Promise<void> = Promise.resolve()
  recorder.ondataavailable = ({ data }) => {
    if (data.size > 0) last = last.then(() => onPiece(data))
  }
  const ended = new Promise<void>((done) => {
    recorder.onstop = () => done()
  })
  // It takes on the picture there is at once, and says so only later.
  const began = performance.now()
  recorder.start(PIECE_MS)
  return {
    type: recorder.mimeType || type,
    began,
    async stop() {
      if (recorder.state !== 'inactive') recorder.stop()
      await ended
      await last
    },
  }
}
