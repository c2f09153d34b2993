/** The simulated test key of the open set-up: started, followed, cancelled, kept; stale when the plan has changed. */
import { call, client } from './api'
import { session } from './session.svelte'
import type { Plan, TestKey } from './types'

const LOOK_AGAIN = 350

/** Keys that are kept of a set-up, newest first. */
export const keptKeys = async (setup_id: number) =>
  (await call(client.GET('/api/setups/{setup_id}/test-keys', { params: { path: { setup_id } } }))).keys

/** All of a plan that a key can show: everything but its name. */
const pictured = (plan: Plan | null) => JSON.stringify({ ...plan, title: '' })

class TestKeyRun {
  result = $state.raw<TestKey | null>(null)
  problem = $state('')
  setup = $state(0)
  private plan = $state.raw<Plan | null>(null)

  get running() {
    return this.result?.state === 'running'
  }
  /** Made for another state of the plan than the one that is open. */
  private changed = $derived(this.plan !== session.plan && pictured(this.plan) !== pictured(session.plan))
  get stale() {
    return this.result !== null && (this.result.stale || this.changed)
  }

  /** Show what is kept of a set-up, unless its own run is on the screen already. */
  async show(setup: number) {
    if (this.setup === setup) return
    this.setup = setup
    this.result = null
    this.problem = ''
    const plan = session.plan
    const [newest] = await keptKeys(setup).catch(() => [])
    if (this.setup !== setup || this.result || !newest) return
    this.plan = plan
    this.result = newest
  }

  async start(plan: Plan, levers: boolean) {
    this.problem = ''
    this.setup = session.id
    try {
      this.plan = plan
      this.result = await call(client.POST('/api/test-key', { body: { plan, levers, setup_id: session.id } }))
      await this.follow()
    } catch (error) {
      this.problem = (error as Error).message
      this.result = null
    }
  }

  async cancel() {
    const id = this.result?.id
    if (id) this.result = await call(client.DELETE('/api/test-key/{job_id}', { params: { path: { job_id: id } } }))
  }

  private async follow() {
    while (this.result?.state === 'running') {
      const id: string = this.result.id
      await new Promise((done) => setTimeout(done, LOOK_AGAIN))
      if (this.result?.id !== id) return
      const next = await call(client.GET('/api/test-key/{job_id}', { params: { path: { job_id: id } } }))
      if (this.result?.id === id) this.result = next
    }
    if (this.result?.state === 'failed') this.problem = this.result.problem
  }
}

export const testKey = new TestKeyRun()
