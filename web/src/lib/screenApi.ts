/** The screen as a choice and as work. */
import { call, client } from './api'
import type { Plan } from './types'

export const screenAdvice = (plan: Plan) => call(client.POST('/api/screen-advice', { body: { plan } }))
