const SOUND = /\.(?:mp3|m4a|ogg|oga|opus|flac|wav|mp4|webm|mov)$/i

/** Whether a file is heard rather than read. */
export const isSound = ({ name, type }: File): boolean =>
  /^(?:audio|video)\//.test(type) || SOUND.test(name)
