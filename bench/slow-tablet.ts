import type { CDPSession, Page } from '@playwright/test'
import { openAt } from '../e2e/dogleg.ts'
import { withPage } from './page.ts'
import { report } from './report.ts'

// A cheap tablet on a machine: a browser slowed six times, over a slow network. Times are taken in the page itself.

const SLOWED = 6
/** 0.6 MB/s both ways and 40 ms there and back, as the wireless of a shop between steel. */
const NETWORK = { offline: false, latency: 40, downloadThroughput: 600_000, uploadThroughput: 600_000 }

const SHOP_MS = 2000
const STEP_MS = 1500
const KEY_MS = 80

async function slow(devtools: CDPSession) {
  await devtools.send('Emulation.setCPUThrottlingRate', { rate: SLOWED })
  await devtools.send('Network.enable')
  await devtools.send('Network.emulateNetworkConditions', NETWORK)
}

/** Until something stands on the page, in ms since it was asked for; looked for in the page, whenever it changes. */
const untilThere = (page: Page, selector: string, press?: string) =>
  page.evaluate(
    ([wanted, pressed]) =>
      new Promise<number>((resolve) => {
        const began = pressed === undefined ? 0 : performance.now()
        const look = () => {
          if (document.querySelector(wanted ?? '') === null) return false
          watch.disconnect()
          // Painted, not only put there.
          requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - began)))
          return true
        }
        const watch = new MutationObserver(look)
        watch.observe(document.documentElement, { childList: true, subtree: true })
        if (pressed !== undefined)
          [...document.querySelectorAll<HTMLElement>('nav[aria-label="Steps of this setup"] a')]
            .find(({ textContent }) => textContent?.startsWith(pressed))
            ?.click()
        if (!look()) setTimeout(() => resolve(Number.NaN), 60_000)
      }),
    [selector, press] as const,
  )

/** The median ms that the page works for a key typed into a field, and for the same key in a field that nothing follows from. */
const keyWork = (page: Page, selector: string) =>
  page.evaluate(async (wanted) => {
    const put = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')?.set
    const settled = () =>
      new Promise((resolve) => {
        requestAnimationFrame(() => {
          const { port1, port2 } = new MessageChannel()
          port1.onmessage = resolve
          port2.postMessage(0)
        })
      })
    const work = async (field: HTMLInputElement, n: number) => {
      const began = performance.now()
      put?.call(field, `1.${100 + n}`)
      field.dispatchEvent(new InputEvent('input', { bubbles: true, data: '1', inputType: 'insertText' }))
      await settled()
      return performance.now() - began
    }
    const field = document.querySelector<HTMLInputElement>(wanted)
    if (!field) throw new Error(`no field ${wanted}`)
    const empty = document.body.appendChild(document.createElement('input'))
    const [took, alone]: [number[], number[]] = [[], []]
    for (let n = 0; n < 25; n++) {
      took.push(await work(field, n))
      alone.push(await work(empty, n))
      await new Promise((resolve) => setTimeout(resolve, 60))
    }
    empty.remove()
    const median = (times: number[]) => times.toSorted((a, b) => a - b)[12] ?? Number.NaN
    return { key: median(took), empty: median(alone), worst: Math.max(...took) }
  }, selector)

export const benchSlowTablet = () =>
  withPage(
    async (page) => {
      await slow(await page.context().newCDPSession(page))
      await page.goto('/', { waitUntil: 'commit' })
      const shop = await untilThere(page, 'main a[href^="/setups/"]')
      report({
        name: 'a slow tablet that has nothing yet: the shop on screen',
        baseline: 'what is allowed',
        measured: `${shop.toFixed(0)} ms`,
        against: `${SHOP_MS} ms`,
        ratio: shop / SHOP_MS,
        limit: 1,
      })
      await openAt(page, /first side/, 'Logbook')
      await page.getByRole('row').nth(3).waitFor()
      await page.waitForTimeout(4000)
      for (const [step, selector] of [
        ['Hold', 'svg[role=img]'],
        ['Zero', 'svg[role=img]'],
        ['Code', '[aria-label="Program text"]'],
        ['Prove', 'input[type=range]'],
      ] as const) {
        const took = await untilThere(page, `main ${selector}`, step)
        report({
          name: `and there: ${step}, opened for the first time`,
          baseline: 'what is allowed',
          measured: `${took.toFixed(0)} ms`,
          against: `${STEP_MS} ms`,
          ratio: took / STEP_MS,
          limit: 1,
        })
        await page.getByRole('link', { name: 'Logbook' }).click()
        await page.getByRole('row').nth(3).waitFor()
        await page.waitForTimeout(2000)
      }
      for (const [title, step, selector] of [
        [/second side/, 'Zero', 'form input[data-numbers]'],
        [/first side/, 'Code', '[data-field] input[data-numbers]'],
      ] as const) {
        await page.getByRole('link', { name: 'Shop', exact: true }).click()
        await openAt(page, title, step)
        await page.locator(selector).first().waitFor()
        await page.waitForTimeout(2000)
        const { key, empty, worst } = await keyWork(page, selector)
        report({
          name: `and there: a key in ${step} (the worst ${worst.toFixed(0)} ms; ${KEY_MS} ms are meant)`,
          baseline: 'a key in a field that nothing follows from',
          measured: `${key.toFixed(0)} ms`,
          against: `${empty.toFixed(0)} ms`,
          ratio: key / empty,
          limit: 3,
        })
      }
    },
    { viewport: { width: 1280, height: 800 }, serviceWorkers: 'block' },
  )
