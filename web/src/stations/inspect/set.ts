/** How an inspector's field changes the plan: by path, settled at once. */
import { session } from '../../lib/session.svelte'

export const set = (path: string) => (value: unknown) => session.change([{ path, value }])
