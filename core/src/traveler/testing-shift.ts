import { effectiveStrikes } from '../log/index.ts'
import type { LinearAxis } from '../machine/index.ts'
import { type Entry, looksOf, textOnPallet } from '../setup/index.ts'
import { cleared, holdLog, inch, swept } from '../setup/testing.ts'
import type { Task } from './board-schema.ts'
import { palletsOf } from './testing-programs.ts'
import { Records } from './testing-records.ts'
import { followRotary, isRotaryWork, rotaryWork, turnedRests, workShiftOf } from './testing-zero.ts'

/** A person at a machine, who does what is asked for, or anything else. */
export class Shift extends Records {
  /** Anything, as a person may come to do it. */
  act(what: string) {
    const pick = /^([XYZ]) of (\S+)$/.exec(what)
    if (pick) this.axis(pick[2] ?? '', pick[1] as LinearAxis)
    else if (what.startsWith('length of T')) this.length(Number(what.slice('length of T'.length)))
    else if (isRotaryWork(what)) this.keepAll(rotaryWork(this.setup, what, 'G54'))
    else {
      const ways: Record<string, () => void> = {
        ready: () => this.tickAll(),
        home: () => this.home(),
        'home off': () => this.home(0.05),
        clear: () => this.keep(cleared()),
        'clear hits': () => this.keep({ ...cleared(), jawAt: inch(11.9) } as Entry),
        'sweep one': () => this.keep(swept('one', 0.004)),
        'sweep tight': () => this.keep(swept('tight')),
        'sweep another vise': () =>
          this.keep({ ...swept('tight'), vise: { id: 'vise-4', version: 1 } } as Entry),
        upright: () => this.keep(holdLog.upright()),
        load: () => this.load('G54'),
        check: () => this.check(this.kind === 'mill' ? 'G54' : 'T4'),
        'check off': () => this.check(this.kind === 'mill' ? 'G54' : 'T4', 'off'),
        askew: () => this.angle('G54', 0.05),
        'far askew': () => this.angle('G54', 0.5),
        straight: () => this.angle('G54', 0),
        'right part': () => this.identify(2),
        'wrong part': () => this.identify(3),
        place: () => this.place(),
        build: () => this.build(),
        'build off': () => this.build(false),
        'take turned': () => this.program('turned', turnedRests(this.setup, 'G54')),
        'take probe': () => this.program('probe', []),
        'take bar': () => this.bar('T4'),
        shift: () => this.keepAll(workShiftOf(this.setup)),
        stock: () => this.stock('G54', 1),
        'stock too low': () => this.stock('G54', 9),
        'move zero': () => this.moveZero('G54'),
        prove: () => this.prove(),
        'prove stop': () => this.prove('stop'),
        'prove look': () => this.prove('look'),
        take: () => this.take(),
        'plan gauging': () => this.gauging(),
        measure: () => this.measure([1, 1.0002, 0.9999]),
        'measure out': () => this.measure([1, 1.01]),
        'take gauging': () => this.takeGauging(),
        'plan pallets': () => this.pallets(),
        'plan pallets badly': () => this.pallets('stop'),
        'plan pallets of built': () => {
          this.ofBuilt = true
          this.pallets()
        },
        start: () => this.start(palletsOf.inside),
        'start wrong': () => this.start(palletsOf.inside + 1),
        'strike the last': () => this.strikeLast(),
        note: () => this.write('note', { text: 'T3 is dull.' }),
        'hand over': () => this.write('handed-over', { note: '', stale: [], open: [], left: [] }),
        grip: () => this.grip('16c'),
        'grip badly': () => this.keep(holdLog.gripped('16c', 'actuator')),
        ratio: () => this.keep(holdLog.lengths('draw-tube')),
        look: () => this.look(),
      }
      ways[what]?.()
    }
  }

  /** Does what is asked, as whoever asks would have it done. */
  follow({ step, part, about = '' }: Task) {
    const { hold } = this.setup
    const bolts = hold.sweeps.at(-1)?.entry.sweep.bolts
    const ways: Record<string, () => void> = {
      'ready list': () => this.tickAll(),
      'ready home': () => this.home(),
      'hold clear': () => this.keep(cleared()),
      'hold square': () =>
        hold.upright?.freshness.state === 'stale' &&
        hold.sweeps.at(-1)?.freshness.state === 'fresh' &&
        bolts === 'tight'
          ? this.keep(holdLog.upright())
          : this.keep(swept('tight')),
      'hold grip': () => this.grip('16c'),
      'hold ratio': () => this.keep(holdLog.lengths('draw-tube')),
      'hold checks': () => this.look(),
      'zero tools': () => this.length(Number(about.slice(1))),
      'zero X': () => this.axis(about, 'X'),
      'zero Y': () => this.axis(about, 'Y'),
      'zero Z': () => this.axis(about, 'Z'),
      'zero load': () => this.load(about),
      'zero check': () => this.check(about),
      'zero probe': () => this.program('probe', []),
      'zero stock': () => this.stock(about, 1),
      'zero bar': () => this.bar(about),
      'zero rotary': () => this.keepAll(followRotary(this.setup, about)),
      'zero shift': () => this.keepAll(workShiftOf(this.setup)),
      'angle part': () => this.identify(2),
      'angle lies': () => this.angle(about, 0),
      'angle turn': () => this.program('turned', turnedRests(this.setup, about)),
      'code whole': () => this.build(),
      'code take': () => this.take(),
      'prove area': () => this.place(),
      // What is to be opened has to be written first.
      'prove whole': () =>
        this.letStand()
          ? undefined
          : textOnPallet(this.setup, about) !== undefined
            ? this.provePallet(about)
            : this.setup.code.coded.length > 0
              ? this.prove()
              : this.build(),
      'run pallets': () => (about ? this.takePallet(about) : this.pallets()),
      'run start': () => this.start(palletsOf.inside),
      'run gauge': () => this.runGauge(),
      'run chart': () => this.settle(),
      'hand-over whole': () => this.write('handed-over', { note: '', stale: [], open: [], left: [] }),
    }
    const way = ways[`${step} ${part}`]
    if (!way) throw new Error(`nobody knows how to follow ${step} ${part}`)
    way()
  }

  /** Lets the first finding stand that nobody looked at, of a proof that holds. */
  private letStand(): boolean {
    const { prove } = this.setup
    for (const proof of prove.proofs) {
      const { entry, freshness } = proof
      const look = looksOf(proof, prove).find(({ stands }) => !stands)
      if (freshness.state === 'stale' || entry.verdict === 'stop' || !look) continue
      this.write('let-stand', {
        title: entry.title,
        hash: entry.hash,
        code: look.code,
        line: look.line,
        says: look.says,
      })
      return true
    }
    return false
  }

  /** Strikes out what was recorded last and still counts, but for the opening. */
  private strikeLast() {
    const strikes = effectiveStrikes(this.log)
    const last = this.log.slice(1).findLast(({ id, kind }) => kind !== 'struck' && !strikes.has(id))
    if (last) this.write('struck', { target: last.id, reason: 'slip' })
  }

  private runGauge() {
    const { plans, taken, series } = this.setup.gauge
    if (plans.some(({ freshness }) => freshness.state === 'stale')) this.gauging()
    else if ([...taken.values()].some(({ freshness }) => freshness.state === 'stale')) this.takeGauging()
    else if (!series.some(({ parts }) => parts.length > 0)) this.measure([1, 1, 1])
  }

  private settle() {
    for (const { parts } of this.setup.gauge.series)
      for (const { open, entry, part, label } of parts)
        if (open) this.write('settled', { gauged: entry.id, part, label, did: 'scrapped', note: '' })
  }
}
