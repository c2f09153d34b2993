import { expect, it } from 'vitest'
import { applyChanges, readPath, sameSet } from './changes'
import { deviationColour, reachFor } from './deviation'
import { sheetOf } from './sheet'
import type { Plan } from './types'

const plan = {
  screen: { width: 3, height: 2.6, bottom: 0, x_centre: 0 },
  subject: { x: 0, z: 2.4, height: 1.7 },
  camera: { x: 0, y: 1.5, z: 6.4 },
  room: { x_min: -3.7, x_max: 3.7, z_min: -0.3, z_max: 9.5, height: 3.6 },
  lights: [{ position: [1, 2, 3], dimmer: 1, fixture: { emitter: { shape: 'rect' } } }],
} as unknown as Plan

it('changes a copy and shares the rest', () => {
  const changed = applyChanges(plan, [
    { path: 'lights[0].dimmer', value: 0.5 },
    { path: 'subject.z', value: 3 },
  ])
  expect(readPath(changed, 'lights[0].dimmer')).toBe(0.5)
  expect(readPath(changed, 'subject.z')).toBe(3)
  expect(readPath(plan, 'lights[0].dimmer')).toBe(1)
  expect(changed.screen).toBe(plan.screen)
})

it('takes a set with people or camera elsewhere for the same, also when it comes back from the server', () => {
  const walked = applyChanges(plan, [
    { path: 'subject.z', value: 3 },
    { path: 'camera.x', value: 1 },
  ])
  expect(sameSet(plan, walked)).toBe(true)
  expect(sameSet(plan, JSON.parse(JSON.stringify(walked)) as Plan)).toBe(true)
  expect(sameSet(plan, applyChanges(plan, [{ path: 'lights[0].position', value: [1, 2, 3.1] }]))).toBe(false)
})

it('draws section and floor to one scale, inside the sheet', () => {
  const sheet = sheetOf(plan, 735, 700)
  expect(sheet.z(1) - sheet.z(0)).toBeCloseTo(sheet.scale)
  expect(sheet.y(0) - sheet.y(1)).toBeCloseTo(sheet.scale)
  expect(sheet.x(0) - sheet.x(1)).toBeCloseTo(sheet.scale)
  expect(sheet.z(-0.3)).toBeGreaterThanOrEqual(0)
  expect(sheet.x(-3.7)).toBeLessThanOrEqual(700)
})

it('colours a deviation evenly: darker below, lighter above, grey at the target', () => {
  const parts = (percent: number) =>
    deviationColour(percent, 20)
      .match(/-?[\d.]+/g)!
      .map(Number)
  const light = (percent: number) => parts(percent)[0]
  expect(parts(0).slice(1)).toEqual([0, 0])
  expect(light(-20)).toBeLessThan(light(-10))
  expect(light(-10)).toBeLessThan(light(0))
  expect(light(10)).toBeLessThan(light(20))
  expect(deviationColour(90, 20)).toEqual(deviationColour(20, 20))
  expect(reachFor([1, -3, 2])).toBe(5)
  expect(reachFor([35, -38, 34])).toBe(40)
})
