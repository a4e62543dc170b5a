import type { FloorPoint } from '../body/places'
import type { Simulation } from '../simulate/simulate'
import { AT_HOME, type Drawing, drawnIn, type Offsets } from './drawn'
import { type Way, type WayPoint, wayBegins, wayIn } from './way'

/** Where a pass that is drawn begins in the way. */
interface Begun {
  readonly points: number
  readonly offsets: Offsets
}

/** A dancer's way with what is drawn of it so far; what lies before a drawing is not drawn again. */
export class DrawnWay {
  readonly #simulation: Simulation
  readonly #from: FloorPoint
  readonly #drawings: Drawing[] = []
  readonly #way: WayPoint[]
  readonly #begun: Begun[] = []
  #offsets = AT_HOME

  /** @param from where she stands on count 1 */
  constructor(simulation: Simulation, from: FloorPoint) {
    this.#simulation = simulation
    this.#from = from
    this.#way = [...wayBegins(simulation, from)]
  }

  get drawings(): readonly Drawing[] {
    return this.#drawings
  }

  add(drawing: Drawing): void {
    this.#drawings.push(drawing)
    const first = this.#simulation.slices.findIndex(
      ({ pass: { at, length } }) => at + length > drawing.from,
    )
    const begun = this.#begun[first]
    if (!begun) return
    this.#way.length = begun.points
    this.#offsets = begun.offsets
    this.#begun.length = first
  }

  /** The way as far as a tick at least. */
  until(tick: number): Way {
    const { slices, house } = this.#simulation
    for (let i = this.#begun.length; i < slices.length; i++) {
      const slice = slices[i]
      if (!slice || slice.pass.at > tick) break
      this.#begun.push({ points: this.#way.length, offsets: this.#offsets })
      const drawn = drawnIn(slice, this.#drawings, this.#offsets)
      this.#offsets = drawn.end
      for (const point of wayIn(drawn.slice, { house, from: this.#from })) this.#way.push(point)
    }
    return this.#way
  }
}
