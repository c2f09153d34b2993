/** The door on the set's network. */
import { ApiError, call, client } from './api'
import type { Me } from './types'
import { who } from './who.svelte'

/** Ask who this page is; a stranger is nothing wrong. */
export async function askWho(): Promise<void> {
  try {
    who.me = await call(client.GET('/api/me'))
  } catch (error) {
    // A server that is away is told by whatever is asked next.
    if (error instanceof ApiError && error.status === 401) who.me = 'stranger'
    else who.me ??= { who: 'owner', role: 'all', csrf: '' } satisfies Me
  }
}

export async function enter(passcode: string, name: string): Promise<void> {
  who.me = await call(client.POST('/api/door', { body: { passcode, name } }))
}

export const network = () => call(client.GET('/api/network'))
export const setNetwork = (open: boolean) => call(client.PUT('/api/network', { body: { open } }))
export const putOut = (device_id: string) => call(client.DELETE('/api/network/devices/{device_id}', { params: { path: { device_id } } }))
