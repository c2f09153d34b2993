/** The simulated test key of the open set-up: started, followed, cancelled; stale when the plan has changed. */
import { call, client } from './api'
import { session } from './session.svelte'
import type { Plan, TestKey } from './types'

const LOOK_AGAIN = 350

class TestKeyRun {
  result = $state.raw<TestKey | null>(null)
  plan = $state.raw<Plan | null>(null)
  problem = $state('')

  get running() {
    return this.result?.state === 'running'
  }
  /** Made for another state of the plan than the one that is open. */
  get stale() {
    return this.plan !== null && this.plan !== session.plan
  }

  async start(plan: Plan, levers: boolean) {
    this.problem = ''
    try {
      this.plan = plan
      this.result = await call<TestKey>(client.POST('/api/test-key', { body: { plan, levers } }))
      await this.follow()
    } catch (error) {
      this.problem = (error as Error).message
      this.result = null
    }
  }

  async cancel() {
    const id = this.result?.id
    if (id) this.result = await call<TestKey>(client.DELETE('/api/test-key/{job_id}', { params: { path: { job_id: id } } }))
  }

  private async follow() {
    while (this.result?.state === 'running') {
      const id: string = this.result.id
      await new Promise((done) => setTimeout(done, LOOK_AGAIN))
      if (this.result?.id !== id) return
      this.result = await call<TestKey>(client.GET('/api/test-key/{job_id}', { params: { path: { job_id: id } } }))
    }
    if (this.result?.state === 'failed') this.problem = this.result.problem
  }
}

export const testKey = new TestKeyRun()
