import { demoReference, housingLayout, tubeLayout } from '../demo/index.ts'
import { type LinearAxis, readyListOf } from '../machine/index.ts'
import {
  barStopRests,
  codedOffset,
  codeFor,
  codeRests,
  codeTools,
  gaugeRests,
  proofRests,
  restsOf,
} from '../prepare/index.ts'
import {
  type CodedFact,
  deriveTools,
  type Entry,
  type EntryOf,
  type HappeningKind,
  looksOf,
  offsetOf,
  type ProgramKind,
  palletRests,
  type Setup,
  textOnPallet,
} from '../setup/index.ts'
import { add, checked, cleared, holdLog, inch, opened, swept } from '../setup/testing.ts'
import type { Task } from './task.ts'
import { setupOf } from './testing.ts'
import { forPallet, palletsOf, palletsRunning, plan, sheetOf } from './testing-programs.ts'
import {
  angleOf,
  followRotary,
  identifiedAs,
  isRotaryWork,
  lengthOf,
  readingOf,
  rotaryWork,
  stockOf,
  turnedRests,
  workShiftOf,
  zeroMovedOf,
} from './testing-zero.ts'

/** The proofs of tests are of no text that anybody opens: only the page holds one against the other. */
const HASH = 'a'.repeat(64)

type Kind = 'mill' | 'lathe'
type Body<K extends Entry['kind']> = Omit<EntryOf<K>, 'id' | 'setup' | 'at' | 'by' | 'kind'>

/** A person at a machine, who records what is asked for as it should be, or anything else. */
export class Shift {
  readonly log: Entry[]
  private readonly kind: Kind
  private ofBuilt = false
  private readonly machine: { id: string; version: number }
  constructor(kind: Kind) {
    this.kind = kind
    this.machine = { id: `${kind}-1`, version: 1 }
    this.log = [{ ...opened, machine: this.machine } as Entry]
  }

  get setup(): Setup {
    return setupOf(this.log)
  }

  private write<K extends Entry['kind']>(kind: K, body: Body<K>): string {
    const entry = add(kind, body) as Entry
    this.log.push(entry)
    return entry.id
  }
  /** An entry of another log, as if it were made here and now. */
  private keep({ id: _, setup: __, at: ___, by: ____, kind, ...body }: Entry) {
    this.write(kind, body as Body<typeof kind>)
  }
  private keepAll = (entries: readonly Entry[]) => entries.map((each) => this.keep(each))
  private get made() {
    const { profile } = this.setup
    return { profile: { id: profile.id, version: profile.version }, machine: this.machine }
  }

  happen(what: HappeningKind, tool?: number) {
    this.write('happened', { what, note: '', ...(tool === undefined ? {} : { tool }) })
  }

  private axis(name: string, axis: LinearAxis) {
    const reading = readingOf(this.kind, axis)
    this.write('pickup', { offset: name, reading, machine: this.machine })
  }

  private angle(offset: string, rise: number, needsSquare = false) {
    this.write('angled', { offset, ...angleOf(rise), needsSquare, machine: this.machine })
  }

  private stock(offset: string, high: number) {
    const body = stockOf(this.setup, offset, high)
    if (body) this.write('stock', body)
  }

  /** The program that drives a stop to the bar. */
  private bar(offset: string) {
    this.program('bar', barStopRests(this.setup, Number(offset.slice(1))), undefined, 'G0', offset)
  }

  private moveZero(offset: string) {
    const body = this.kind === 'mill' ? zeroMovedOf(this.setup, offset) : undefined
    if (body) this.write('pickup', body)
  }

  private identify(measured: number) {
    this.write('identified', identifiedAs(measured))
  }

  private length(tool: number) {
    this.write('tool-length', { ...lengthOf(tool), machine: this.machine })
  }

  private program(what: ProgramKind, rests: string[], title?: string, text = 'G0', offset = 'G54') {
    this.write('program', {
      offset,
      what,
      rests,
      ...this.made,
      how: 'copied',
      text,
      ...(title ? { title } : {}),
    })
  }

  private load(name: string) {
    const { setup } = this
    const rests = restsOf(offsetOf(setup, name), 'program', setup.part)
    this.write('program', { offset: name, rests, ...this.made, how: 'copied', text: 'G0' })
  }

  private check(name: string, result: 'agrees' | 'off' = 'agrees') {
    const { setup } = this
    const rests = restsOf(offsetOf(setup, name), 'checked', setup.part)
    if (rests.length > 0) this.keep({ ...checked(rests, result), offset: name })
  }

  private grip(collet: string) {
    this.keep(holdLog.gripped(collet, 'draw-tube'))
  }

  private build(on = true) {
    const { setup } = this
    const sheet = sheetOf(this.kind, on)
    const offset = codedOffset(setup, sheet, 'G54')
    const rests = codeRests(setup, sheet, offset)
    const tools = codeTools(setup, sheet, demoReference.tools)
    this.write('coded', {
      offset,
      sheet,
      rests,
      ...this.made,
      material: { id: sheet.material, version: 1 },
      tools,
    })
  }

  private place() {
    this.write('laid-out', this.kind === 'mill' ? housingLayout : tubeLayout)
  }

  private prove(verdict: 'good' | 'look' | 'stop' = 'good') {
    const { setup, log } = this
    const [fact] = setup.code.coded
    if (!fact) return
    const { entry } = fact
    const lengths = deriveTools(log, setup.machine, setup.unit)
    const used = {
      offsets: [entry.offset],
      tools: this.kind === 'mill' ? [3, 5, 12] : [4],
    }
    this.write('proved', {
      title: entry.sheet.title,
      frame: entry.offset,
      hash: HASH,
      characters: 2,
      text: this.toProve(fact),
      verdict,
      counts: { stop: verdict === 'stop' ? 1 : 0, look: verdict === 'look' ? 2 : 0, note: 0 },
      worst:
        verdict === 'stop'
          ? [{ code: 'x', line: 3, says: 'It hits.' }]
          : verdict === 'look'
            ? [3, 5].map((line) => ({ code: 'y', line, says: 'The rotation is still on.' }))
            : [],
      seconds: 60,
      rests: proofRests(setup, lengths, used, fact),
      lengths: lengths
        .filter(({ tool }) => used.tools.includes(tool))
        .map(({ tool, length }) => ({ tool, length: length.value })),
      tools: entry.tools,
      uses: used.tools,
      ...this.made,
    })
  }

  /** What Code writes of it now; nothing where something says stop. */
  private text({ sheet, offset }: EntryOf<'coded'>) {
    return codeFor(this.setup, sheet, offset, demoReference).code?.text
  }

  /** The text that is opened to be proved: as Code writes it, else as it stands at the control; of these the first that is not. */
  private toProve({ entry }: CodedFact) {
    const { code, prove } = this.setup
    const texts = [this.text(entry), code.taken.get(entry.sheet.title)?.entry.text]
    const isProved = (text: string | undefined) =>
      prove.proofs.some((proof) => proof.entry.text === text && proof.freshness.state === 'fresh')
    return texts.find((text) => text !== undefined && !isProved(text)) ?? texts[0] ?? 'G0'
  }

  private take() {
    const { setup } = this
    const [fact] = setup.code.coded
    const text = fact && this.text(fact.entry)
    if (fact && text !== undefined) this.program('coded', [fact.entry.id], fact.entry.sheet.title, text)
  }

  private gauging(tolerance?: string) {
    const { setup } = this
    const of = plan(tolerance)
    this.write('gauging', {
      offset: 'G54',
      plan: of,
      rests: gaugeRests(setup, offsetOf(setup, 'G54'), of),
      ...this.made,
    })
  }

  private measure(values: readonly number[]) {
    const [revision] = this.setup.gauge.plans
    if (!revision) return
    const parts = values.map((value, index) => ({ label: String(index + 1), values: { BORE: value } }))
    this.write('gauged', { plan: 'Test', rests: [revision.entry.id], unit: 'inch', came: 'pasted', parts })
  }

  /** Two pallets; of a built program one runs what it was mended to for them, under its name. */
  private pallets(verdict: 'look' | 'stop' = 'look') {
    const { setup } = this
    const [fact] = this.ofBuilt ? setup.code.coded : []
    const built = fact && this.text(fact.entry)
    const plan = fact && built ? palletsRunning(fact.entry.sheet.title, forPallet(built)) : palletsOf.plan
    const rests = palletRests(
      setup,
      plan.pallets.map(({ program }) => program.text),
    )
    const worst = verdict === 'stop' ? ['They call each other.'] : []
    this.write('palleted', { plan, rests, seconds: palletsOf.seconds, verdict, worst, ...this.made })
  }

  private start(inside: number) {
    const { pallets } = this.setup.run
    if (!pallets) return
    const loaded = pallets.entry.plan.pallets[palletsOf.inside - 1]?.params.table ?? 0
    this.write('start-checked', { inside, loaded, interlock: true, rests: [pallets.entry.id] })
  }

  private provePallet(title: string) {
    const { setup, log } = this
    const text = textOnPallet(setup, title) ?? ''
    const lengths = deriveTools(log, setup.machine, setup.unit)
    this.write('proved', {
      title,
      frame: 'G54',
      hash: HASH,
      characters: text.length,
      text,
      verdict: 'good',
      counts: { stop: 0, look: 0, note: 0 },
      worst: [],
      seconds: 60,
      rests: proofRests(setup, lengths, { offsets: ['G54'], tools: [] }, undefined),
      lengths: [],
      tools: [],
      uses: [],
      ...this.made,
    })
  }

  private tickAll() {
    for (const { id: item, says } of readyListOf(this.setup.machine))
      this.write('ticked', { list: 'ready', item, says })
  }

  private home(off = 0) {
    const shown = { X: inch(0), ...(this.kind === 'mill' ? { Y: inch(off) } : {}), Z: inch(0) }
    this.write('homed', { shown, machine: this.machine })
  }

  private look() {
    for (const { id: item, says } of this.setup.hold.checks)
      this.write('ticked', { list: 'hold', item, says })
  }

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

  private takeGauging() {
    const [revision] = this.setup.gauge.plans
    if (revision) this.program('gauge', [revision.entry.id], 'Test')
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
      'run pallets': () => this.pallets(),
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
