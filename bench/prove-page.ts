import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import { openAt } from '../e2e/dogleg.ts'
import { withPage } from './page.ts'
import { report } from './report.ts'

const FIRST_PICTURE_MS = 300
const STALL_MS = 50
const FRAME_MS = 1000 / 60

/** A file with a surface that stays above the part: as many moves as asked for. */
function surface(moves: number): string {
  const lines = [
    'G20 G90 G17 G40 G49 G80 G69 G94',
    'T7 M6',
    'G90 G54 G0 X0. Y0.',
    'S3000 M3',
    'G43 H7 Z1.',
    'G1 F30.',
  ]
  for (let n = 0; n < moves; n++)
    lines.push(
      `X${((n % 300) / 100).toFixed(3)} Y-${(((n * 7) % 250) / 100).toFixed(3)} Z${(1 + (n % 40) / 100).toFixed(3)}`,
    )
  const file = join(mkdtempSync(join(tmpdir(), 'dogleg-bench-')), `${moves}.nc`)
  writeFileSync(file, [...lines, 'M30', ''].join('\n'))
  return file
}

/** Takes files of this computer: a buffer would be unpacked in the page, which is none of the page's doing. */
const fileField = (page: Page) => page.getByLabel('Open a program file')

// Worked by the page itself: looking for keys from outside would be a stall of its own.

/** A million blocks are read and drawn in about ten seconds here. */
const LONGEST_WAIT_MS = 120_000

/** Stops a program while it is read; ms from the key until it has stopped. */
const openedAndStopped = (page: Page) =>
  page.evaluate(async (longest) => {
    const began = performance.now()
    const key = (name: string) =>
      [...document.querySelectorAll('button')].find(({ textContent }) => textContent === name)
    const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))
    const until = async (name: string, every: number) => {
      for (let found = key(name); ; found = key(name)) {
        if (found) return found
        if (performance.now() - began > longest)
          throw new Error(`no key '${name}': ${document.body.textContent}`)
        await wait(every)
      }
    }
    await until('Stop', 20)
    await wait(1_500)
    const stop = await until('Stop', 1)
    const start = performance.now()
    stop.click()
    await until('Prove it', 1)
    return performance.now() - start
  }, LONGEST_WAIT_MS)

/** Proves it after all, until its picture stands. */
const provedAndDrawn = (page: Page) =>
  page.evaluate(async (longest) => {
    const began = performance.now()
    const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))
    performance.clearMarks()
    ;[...document.querySelectorAll('button')].find(({ textContent }) => textContent === 'Prove it')?.click()
    while (performance.getEntriesByName('dogleg.pictured').length === 0) {
      if (performance.now() - began > longest) throw new Error(`not drawn: ${document.body.textContent}`)
      await wait(50)
    }
    await wait(500)
  }, LONGEST_WAIT_MS)

/** The longest time that the page did nothing else since the last call. */
const longestStall = (page: Page) =>
  page.evaluate(() => {
    const kept = window as unknown as { stalls?: number[] }
    const longest = Math.max(0, ...(kept.stalls ?? []))
    kept.stalls = []
    return longest
  })

/** Median ms that the page works for a step by key, or for a place that the scrubber is dragged to. */
const workOf = (page: Page, way: 'step' | 'scrub') =>
  page.evaluate(async (asked) => {
    const bar = document.querySelector<HTMLInputElement>('input[type=range]')
    if (!bar) throw new Error('there is no scrubber')
    const put = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')?.set
    const took: number[] = []
    for (let n = 0; n < 60; n++) {
      const start = performance.now()
      if (asked === 'step')
        document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', bubbles: true }))
      else {
        put?.call(bar, String(Math.round((Number(bar.max) * ((n * 7) % 60)) / 60)))
        bar.dispatchEvent(new Event('input', { bubbles: true }))
      }
      // React works it off at the end of its task.
      await new Promise((resolve) => {
        const { port1, port2 } = new MessageChannel()
        port1.onmessage = resolve
        port2.postMessage(0)
      })
      took.push(performance.now() - start)
      await new Promise((resolve) => requestAnimationFrame(resolve))
    }
    return took.toSorted((a, b) => a - b)[30] as number
  }, way)

/** How many steps the browser draws in a second, when one is asked for at every frame. */
const framesASecond = (page: Page) =>
  page.evaluate(async () => {
    const began = performance.now()
    let frames = 0
    for (; performance.now() - began < 2_000; frames++) {
      document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', bubbles: true }))
      await new Promise((resolve) => requestAnimationFrame(resolve))
    }
    return (1_000 * frames) / (performance.now() - began)
  })

/** Opening, stepping and stopping in the page: times of the main thread, against what is allowed. */
export const benchProvePage = () =>
  withPage(async (page) => {
    await page.addInitScript(() => {
      const kept = window as unknown as { stalls: number[] }
      kept.stalls = []
      new PerformanceObserver((list) => {
        for (const { duration } of list.getEntries()) kept.stalls.push(duration)
      }).observe({ type: 'longtask', buffered: true })
    })
    await page.goto('/')
    await openAt(page, /first side/, 'Prove')
    await page.getByText('The next press').waitFor()

    // The setup's own program is drawn first, or its picture would be taken for that of the file.
    await page.waitForFunction(() => performance.getEntriesByName('dogleg.pictured').length > 0)
    await page.evaluate(() => performance.clearMarks())
    await fileField(page).setInputFiles(surface(20_000))
    await page.waitForFunction(() => performance.getEntriesByName('dogleg.pictured').length > 0)
    await page.getByText(/The next press/).waitFor()
    await page.waitForTimeout(1_000)
    const picture = await page.evaluate(() => {
      const [read] = performance.getEntriesByName('dogleg.proved')
      const [drawn] = performance.getEntriesByName('dogleg.pictured')
      return (drawn?.startTime ?? Number.NaN) - (read?.startTime ?? Number.NaN)
    })
    report({
      name: 'a program of 20,000 lines: from read to its first picture',
      baseline: 'what is allowed',
      measured: `${picture.toFixed(0)} ms`,
      against: `${FIRST_PICTURE_MS} ms`,
      ratio: picture / FIRST_PICTURE_MS,
      limit: 0.92,
    })

    const step = await workOf(page, 'step')
    const scrub = await workOf(page, 'scrub')
    const drawn = await framesASecond(page)
    report({
      name: `one step through it, the work of the page (with no graphics card, ${drawn.toFixed(0)} steps a second are drawn)`,
      baseline: 'one frame at 60 a second',
      measured: `${step.toFixed(1)} ms`,
      against: `${FRAME_MS.toFixed(1)} ms`,
      ratio: step / FRAME_MS,
      limit: 1,
    })
    report({
      name: 'scrubbing through it from end to end, the work of the page for each place',
      baseline: 'one frame at 60 a second',
      measured: `${scrub.toFixed(1)} ms`,
      against: `${FRAME_MS.toFixed(1)} ms`,
      ratio: scrub / FRAME_MS,
      limit: 1,
    })

    const million = surface(1_000_000)
    const field = await fileField(page).elementHandle()
    await longestStall(page)
    await field?.setInputFiles(million)
    const stopping = await openedAndStopped(page)
    const reading = await longestStall(page)
    await provedAndDrawn(page)
    const shown = await longestStall(page)
    report({
      name: `a program of 1,000,000 blocks, opened and read: the longest stall of the page (stopped ${stopping.toFixed(0)} ms after the key)`,
      baseline: 'what is allowed',
      measured: `${reading.toFixed(0)} ms`,
      against: `${STALL_MS} ms`,
      ratio: reading / STALL_MS,
      limit: 1,
    })
    report({
      name: 'and until it is drawn and the first press is said',
      baseline: 'what is allowed',
      measured: `${shown.toFixed(0)} ms`,
      against: `${STALL_MS} ms`,
      ratio: shown / STALL_MS,
      limit: 1,
    })
  })
