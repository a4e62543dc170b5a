/** What the followers' server lets happen, in people, messages, bytes and milliseconds. */
export interface RoomLimits {
  readonly followers: number
  /** Wrong codes from one address, and from all, within a minute. */
  readonly wrong: { readonly each: number; readonly all: number; readonly ms: number }
  /** Messages of a follower: so many at once, and so many a second on end. */
  readonly messages: { readonly atOnce: number; readonly aSecond: number }
  /** Of a message of a follower, and of one of the floor. */
  readonly bytes: { readonly follower: number; readonly floor: number }
  /** What may wait for one who does not read. */
  readonly waiting: number
  /** To join in, to say a word, and for the instructor's app to come back. */
  readonly joinMs: number
  readonly silentMs: number
  readonly goneMs: number
  /** Who leads answers within so long whether another window may. */
  readonly askedMs: number
}

export const ROOM_LIMITS: RoomLimits = {
  followers: 60,
  wrong: { each: 5, all: 60, ms: 60_000 },
  messages: { atOnce: 20, aSecond: 10 },
  bytes: { follower: 512, floor: 1_000_000 },
  waiting: 256_000,
  joinMs: 5000,
  silentMs: 25_000,
  goneMs: 60_000,
  askedMs: 10_000,
}

/** Why a socket is closed, by its code. */
export const CLOSED = {
  not: 4000,
  no: 4001,
  silent: 4002,
  foreign: 4003,
  over: 4004,
  flood: 4029,
} as const
