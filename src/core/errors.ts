/** Something an instructor can act on: what is wrong, and what to do about it. Bugs throw plain errors. */
export class UserError extends Error {
  readonly whatToDo: string

  constructor(message: string, whatToDo: string, options?: ErrorOptions) {
    super(message, options)
    this.name = 'UserError'
    this.whatToDo = whatToDo
  }
}

/** The compiler refuses a call that some case can reach. */
export function assertNever(value: never): never {
  throw new Error(`Nobody expected ${JSON.stringify(value)}`)
}
