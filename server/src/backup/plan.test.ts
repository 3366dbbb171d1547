import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { type BackupPlan, isDue, type MadeBackup, outdated } from './plan.ts'

const DAY = 86_400_000
const plan: BackupPlan = { folder: '/backups', days: 14, months: 12 }
const night = (at: number): MadeBackup => ({ name: `n${at}`, why: 'night', at, bytes: 1 })
/** Two in the morning at the place of the computer. */
const start = new Date(2026, 0, 5, 2, 0).getTime()

describe('backups that are made by themselves', () => {
  it('are two weeks of days and a year of months after three years, and each night only one goes', () => {
    let made: MadeBackup[] = []
    for (let day = 0; day < 3 * 365; day++) {
      const now = start + day * DAY
      expect(isDue(made, plan, now + 10 * 60_000)).toBe(true)
      made = [...made, night(now)]
      expect(isDue(made, plan, now + 20 * 60_000)).toBe(false)
      const gone = outdated(made, plan, now)
      expect(gone.length).toBeLessThanOrEqual(2)
      made = made.filter((each) => !gone.includes(each))
    }
    const now = start + (3 * 365 - 1) * DAY
    const days = made.filter(({ at }) => now - at < 14 * DAY)
    expect(days).toHaveLength(14)
    const months = new Set(made.map(({ at }) => new Date(at).toISOString().slice(0, 7)))
    expect(months.size).toBeGreaterThanOrEqual(12)
    expect(made.length).toBeLessThanOrEqual(14 + 13)
    expect(Math.min(...made.map(({ at }) => at))).toBeLessThan(now - 330 * DAY)
  })

  it('never lose the newest, nor what somebody asked for, whatever is there and whatever the clock says', () => {
    const backup = fc.record({
      name: fc.uuid(),
      why: fc.constantFrom('night' as const, 'asked' as const, 'before-update' as const),
      at: fc.integer({ min: 0, max: 4e12 }),
      bytes: fc.nat(),
    })
    fc.assert(
      fc.property(
        fc.array(backup, { maxLength: 60 }),
        fc.integer({ min: 0, max: 4e12 }),
        fc.nat({ max: 30 }),
        fc.nat({ max: 24 }),
        (made, now, days, months) => {
          const gone = new Set(outdated(made, { folder: '', days, months }, now))
          expect([...gone].every(({ why }) => why !== 'asked')).toBe(true)
          for (const why of ['night', 'before-update'] as const) {
            const own = made.filter((each) => each.why === why).toSorted((a, b) => b.at - a.at)
            if (own[0]) expect(gone.has(own[0])).toBe(false)
          }
          // What is kept once is kept when it is looked at again.
          const left = made.filter((each) => !gone.has(each))
          expect(outdated(left, { folder: '', days, months }, now)).toEqual([])
        },
      ),
    )
  })

  it('are due once a night, in the morning where the computer was off, and never where none is wanted', () => {
    const at = (hour: number, day = 10) => new Date(2026, 5, day, hour, 30).getTime()
    expect(isDue([], plan, at(1))).toBe(false)
    expect(isDue([], plan, at(2))).toBe(true)
    expect(isDue([night(at(2))], plan, at(23))).toBe(false)
    expect(isDue([night(at(2))], plan, at(1, 11))).toBe(false)
    expect(isDue([night(at(2))], plan, at(7, 11))).toBe(true)
    expect(isDue([], { ...plan, days: 0 }, at(7))).toBe(false)
    // Made while the clock was a year ahead.
    expect(isDue([night(at(2) + 365 * DAY)], plan, at(7))).toBe(true)
  })
})
