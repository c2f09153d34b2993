/** The screen as a choice and as work. */
import { call, client } from './api'
import type { Plan, ScreenAdvice } from './types'

export const screenAdvice = (plan: Plan, wind_ms: number) =>
  call<ScreenAdvice>(client.POST('/api/screen-advice', { body: { plan, wind_ms } }))
