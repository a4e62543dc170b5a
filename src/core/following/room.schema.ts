import { z } from 'zod'
import { DrillNews, FloorNews, PieceNews, RestNews, RunNews } from './news.schema'
import { NEWS_VERSION } from './version'

const V = z.literal(NEWS_VERSION)
/** The last moment, in milliseconds since 1970, on the server's clock. */
const At = z.number()
/** Six digits to be typed in, or the key that stands in the code on the wall. */
const Code = z.string().regex(/^(\d{6}|[\w-]{22})$/, 'is no code')
const Key = z.string().regex(/^[\w-]{22}$/)
const Ping = z.object({ t: z.literal('ping'), id: z.int().min(0) })
const Pong = z.object({ t: z.literal('pong'), id: z.int(), at: At })

/** What who follows says to the server: nothing else is listened to. */
export const FollowerSays = z.discriminatedUnion('t', [
  z.object({ t: z.literal('join'), v: V, code: Code }),
  Ping,
  z.object({ t: z.literal('hand'), up: z.boolean() }),
])
export type FollowerSays = z.infer<typeof FollowerSays>

/** Why nobody is let in: the code is wrong, the room is full, too many tries, an older page. */
const NoWhy = z.enum(['code', 'full', 'wait', 'old'])

/** What the server says to who follows. */
export const FollowerHears = z.discriminatedUnion('t', [
  z.object({
    t: z.literal('welcome'),
    v: V,
    at: At,
    /** All that holds at this moment. */
    now: z.array(FloorNews).readonly(),
  }),
  z.object({ t: z.literal('no'), why: NoWhy, seconds: z.int().optional() }),
  /** Nobody is let in any more. */
  z.object({ t: z.literal('closed') }),
  Pong,
  PieceNews,
  DrillNews,
  RunNews,
  RestNews,
])
export type FollowerHears = z.infer<typeof FollowerHears>

/** What the instructor's own app says to the server it came from. */
export const FloorSays = z.discriminatedUnion('t', [
  z.object({ t: z.literal('floor'), v: V, secret: z.string() }),
  /** Lets people follow on an address of this machine; with the code they have, after an interruption. */
  z.object({
    t: z.literal('open'),
    address: z.string(),
    code: z
      .string()
      .regex(/^\d{6}$/)
      .optional(),
    key: Key.optional(),
  }),
  z.object({ t: z.literal('close') }),
  /** Another window wants to lead; who leads answers whether it may. */
  z.object({ t: z.literal('take') }),
  z.object({ t: z.literal('let'), take: z.boolean() }),
  Ping,
  PieceNews,
  DrillNews,
  RunNews,
  RestNews,
])
export type FloorSays = z.infer<typeof FloorSays>

/** Where people join, and with what. */
export const OpenRoom = z.object({
  t: z.literal('opened'),
  address: z.string(),
  /** The page's own, as it is typed in. */
  url: z.string(),
  code: z.string(),
  key: z.string(),
})
export type OpenRoom = z.infer<typeof OpenRoom>

/** What the server says to the instructor's own app. */
export const FloorHears = z.discriminatedUnion('t', [
  /** Who leads now; the addresses of this machine people can come by. */
  z.object({ t: z.literal('leads'), addresses: z.array(z.string()).readonly() }),
  /** Another window leads. */
  z.object({ t: z.literal('busy') }),
  /** Another window wants to. */
  z.object({ t: z.literal('asked') }),
  z.object({ t: z.literal('taken') }),
  z.object({ t: z.literal('kept') }),
  OpenRoom,
  z.object({ t: z.literal('closed') }),
  z.object({ t: z.literal('cannot'), what: z.string(), toDo: z.string() }),
  z.object({ t: z.literal('room'), followers: z.int(), hands: z.int() }),
  Pong,
])
export type FloorHears = z.infer<typeof FloorHears>
