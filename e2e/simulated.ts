import type { Profile } from '@dogleg/core/control'
import type { Machine, ToolShape } from '@dogleg/core/machine'
import { handOn, millWorld, type SimulatedAction, type SimulatedView, switchOn } from '@dogleg/core/simulated'
import type { Page } from '@playwright/test'
import { expect, type Server } from './dogleg.ts'

/** The machine of the exercise that is under way, as the page sees it. */
export async function seeMachine(page: Page, server: Server, exercise: string): Promise<SimulatedView> {
  const id = await page.evaluate(
    (key) => JSON.parse(localStorage.getItem(`dogleg.draft.practice.${key}`) ?? '{}').machine,
    exercise,
  )
  return (await (await page.request.get(`${server.address}/api/simulated/${id}`)).json()).view
}

/** Many actions at a time: no more than the server takes. */
const LOT = 150

/**
 * The good hand of core at the simulated Mill 1 of the server: the same machine from the same piece number, so that what it
 * does here comes to the same there.
 */
export async function handAt(page: Page, server: Server, piece: number) {
  const rows = async <T>(noun: string): Promise<T[]> =>
    (await (await page.request.get(`${server.address}/api/${noun}`)).json())[noun]
  const machine = (await rows<Machine>('machines')).find(({ id }) => id === 'mill-1') as Machine
  const profile = (await rows<Profile>('profiles')).find(({ id }) => id === machine.profileId) as Profile
  const tools = (await rows<ToolShape>('tools')).filter(({ machineId }) => machineId === machine.id)
  const hand = handOn(
    switchOn(millWorld(piece, { machine, profile, tools, setter: Boolean(profile.setting) })),
  )
  const done: SimulatedAction[] = []
  const work = hand.do
  hand.do = (action) => {
    done.push(action)
    return work(action)
  }
  /** Does there what was done here. */
  const doThere = async () => {
    for (let lot = done.splice(0, LOT); lot.length > 0; lot = done.splice(0, LOT)) {
      const answer = await page.request.post(`${server.address}/api/simulated/mill-1/actions`, {
        data: { actions: lot },
      })
      expect(answer.status()).toBe(200)
    }
  }
  return { hand, doThere }
}

/** Runs the program that stands at the simulated machine to its end or to a stop, without single block. */
export async function runThere(page: Page): Promise<void> {
  await page.getByRole('tab', { name: 'Program' }).click()
  await page.getByRole('slider', { name: 'Rapid, per cent' }).press('End')
  const single = page.getByLabel('Single block')
  if (await single.isChecked()) await single.click()
  await expect(single).not.toBeChecked()
  await page.getByRole('button', { name: 'Cycle start' }).click()
}
