/** Where a garment is worn. The picture shows what covers a place; a detail is only judged by its colour. */
import type { components } from './schema.generated'

type Covers = NonNullable<components['schemas']['Garment']['covers']>

export const COVERS: [Covers, string][] = [
  ['body', 'top and legs'],
  ['top', 'top'],
  ['legs', 'legs'],
  ['detail', 'a detail'],
]

/** Whom something is put on gets a suit first, then what is worn below it, then details. */
export const nextCovers = (worn: readonly { covers?: Covers }[]): Covers =>
  worn.length === 0 ? 'body' : worn.some((one) => one.covers === 'legs') ? 'detail' : 'legs'
