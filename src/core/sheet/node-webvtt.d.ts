declare module 'node-webvtt' {
  export interface VttCue {
    readonly identifier: string
    readonly start: number
    readonly end: number
    readonly text: string
    readonly styles: string
  }
  interface Vtt {
    readonly valid: boolean
    readonly cues: readonly VttCue[]
    readonly meta?: Readonly<Record<string, string>>
  }
  const webvtt: {
    compile: (vtt: Vtt) => string
    parse: (text: string, options?: { meta?: boolean; strict?: boolean }) => Vtt
  }

  export { webvtt as default }
}
