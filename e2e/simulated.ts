import type { BenchView } from '@dogleg/core/bench'
import type { Page } from '@playwright/test'
import type { Server } from './dogleg.ts'

/** The machine of the exercise that is under way, as the page sees it. */
export async function seeMachine(page: Page, server: Server, exercise: string): Promise<BenchView> {
  const id = await page.evaluate(
    (key) => JSON.parse(localStorage.getItem(`dogleg.draft.practice.${key}`) ?? '{}').machine,
    exercise,
  )
  return (await (await page.request.get(`${server.address}/api/simulated/${id}`)).json()).view
}
