import { z } from 'zod'
import { Combination, SCHEMA_VERSION } from '../combination/combination'

/** The JSON Schema of a `.sway.json` file, made from the one schema the app itself reads by. */
export const combinationJsonSchema = (): object => ({
  ...z.toJSONSchema(Combination, { io: 'input', unrepresentable: 'any' }),
  title: 'Molten Sway combination',
  description: `One combination, schema version ${SCHEMA_VERSION}. Ticks are twelfths of a count.`,
})
