import { Button } from '@mantine/core'
import { useState } from 'react'
import { linedUpByClaps } from '../../core/take/claps'
import type { Take } from '../../core/take/take'
import type { Takes } from '../../storage/takes'

/** Claps are at the beginning: no more of a long film is listened to, in seconds. */
const HEARD = 120

/** Puts the pictures of a camera right by two claps, where the sound of the room was filmed. */
export function ClapAlign({ take, store }: { readonly take: Take; readonly store: Takes }) {
  const [said, setSaid] = useState('')
  const [isListening, setListening] = useState(false)
  const listen = async () => {
    setListening(true)
    setSaid(await linedUp(take, store))
    setListening(false)
  }
  return (
    <>
      <Button
        size="compact-xs"
        variant="default"
        loading={isListening}
        title="Clap on two counts while you film with the sound of the room"
        aria-label={`Line up by two claps, ${take.title}`}
        onClick={() => void listen()}
      >
        by two claps
      </Button>
      <span role="status">{said}</span>
    </>
  )
}

/** @returns what came of it, in a sentence */
async function linedUp(take: Take, store: Takes): Promise<string> {
  const film = await store.film(take)
  const heard = film && (await soundOf(film).catch(() => undefined))
  if (!heard) return 'It has no sound: film with the sound of the room, and clap on two counts.'
  const lined = linedUpByClaps(take, heard.samples, heard.rate)
  if (!lined) return 'No two claps are heard on counts. Clap on two counts, and film again.'
  await store.takes.change(take.id, (now) => ({ ...now, nudge: lined.nudge }))
  return `Lined up by ${lined.nudge} ms; the next takes of this camera are too.`
}

async function soundOf(
  film: Blob,
): Promise<{ readonly samples: Float32Array; readonly rate: number }> {
  const { decodeSound, factsOf, soundBegins } = await import('../../audio/decode')
  const { samplesOf } = await import('../../audio/held')
  const facts = await factsOf(film)
  const part = facts.seconds > HEARD ? { from: 0, to: HEARD } : undefined
  const signal = new AbortController().signal
  const { sound } = await decodeSound(film, facts, { part, signal, onShare: () => {} })
  const begins = await soundBegins(film)
  const [samples = new Float32Array()] = samplesOf(
    sound,
    -Math.round(begins * sound.rate),
    sound.length,
  )
  return { samples, rate: sound.rate }
}
