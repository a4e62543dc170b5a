/** The words of a cue, each said as its part of the move is danced: `hips | ribs | lift`. */
export const cueWords = (cue: string): readonly string[] =>
  cue.split('|').flatMap((word) => word.trim() || [])
