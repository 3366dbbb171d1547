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
  offsetOf,
  type ProgramKind,
  palletProgramRests,
  palletRests,
  type Setup,
  textOnPallet,
} from '../setup/index.ts'
import { add, checked, holdLog, inch, opened } from '../setup/testing.ts'
import { setupOf } from './testing.ts'
import { forPallet, palletsOf, palletsRunning, plan, sheetOf } from './testing-programs.ts'
import { angleOf, identifiedAs, lengthOf, readingOf, stockOf, zeroMovedOf } from './testing-zero.ts'

/** The proofs of tests are of no text that anybody opens: only the page holds one against the other. */
const HASH = 'a'.repeat(64)

type Kind = 'mill' | 'lathe'
type Body<K extends Entry['kind']> = Omit<EntryOf<K>, 'id' | 'setup' | 'at' | 'by' | 'kind' | 'shape'>

/** What a person at a machine records, entry by entry: each as it should be, or as badly as it is asked for. */
export class Records {
  readonly log: Entry[]
  protected readonly kind: Kind
  protected ofBuilt = false
  protected readonly machine: { id: string; version: number }
  constructor(kind: Kind) {
    this.kind = kind
    this.machine = { id: `${kind}-1`, version: 1 }
    this.log = [{ ...opened, machine: this.machine } as Entry]
  }

  get setup(): Setup {
    return setupOf(this.log)
  }

  protected write<K extends Entry['kind']>(kind: K, body: Body<K>): string {
    const entry = add(kind, body) as Entry
    this.log.push(entry)
    return entry.id
  }
  /** An entry of another log, as if it were made here and now. */
  protected keep({ id: _, setup: __, at: ___, by: ____, kind, ...body }: Entry) {
    this.write(kind, body as Body<typeof kind>)
  }
  protected keepAll = (entries: readonly Entry[]) => entries.map((each) => this.keep(each))
  protected get made() {
    const { profile } = this.setup
    return { profile: { id: profile.id, version: profile.version }, machine: this.machine }
  }

  happen(what: HappeningKind, tool?: number) {
    this.write('happened', { what, note: '', ...(tool === undefined ? {} : { tool }) })
  }

  protected axis(name: string, axis: LinearAxis) {
    const reading = readingOf(this.kind, axis)
    this.write('pickup', { offset: name, reading, machine: this.machine })
  }

  protected angle(offset: string, rise: number, needsSquare = false) {
    this.write('angled', { offset, ...angleOf(rise), needsSquare, machine: this.machine })
  }

  protected stock(offset: string, high: number) {
    const body = stockOf(this.setup, offset, high)
    if (body) this.write('stock', body)
  }

  /** The program that drives a stop to the bar. */
  protected bar(offset: string) {
    this.program('bar', barStopRests(this.setup, Number(offset.slice(1))), undefined, 'G0', offset)
  }

  protected moveZero(offset: string) {
    const body = this.kind === 'mill' ? zeroMovedOf(this.setup, offset) : undefined
    if (body) this.write('pickup', body)
  }

  protected identify(measured: number) {
    this.write('identified', identifiedAs(measured))
  }

  protected length(tool: number) {
    this.write('tool-length', { ...lengthOf(tool), machine: this.machine })
  }

  protected program(what: ProgramKind, rests: string[], title?: string, text = 'G0', offset = 'G54') {
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

  protected load(name: string) {
    const { setup } = this
    const rests = restsOf(offsetOf(setup, name), 'program', setup.part)
    this.write('program', { offset: name, rests, ...this.made, how: 'copied', text: 'G0' })
  }

  protected check(name: string, result: 'agrees' | 'off' = 'agrees') {
    const { setup } = this
    const rests = restsOf(offsetOf(setup, name), 'checked', setup.part)
    if (rests.length > 0) this.keep({ ...checked(rests, result), offset: name })
  }

  protected grip(collet: string) {
    this.keep(holdLog.gripped(collet, 'draw-tube'))
  }

  protected build(on = true) {
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

  protected place() {
    this.write('laid-out', this.kind === 'mill' ? housingLayout : tubeLayout)
  }

  protected prove(verdict: 'good' | 'look' | 'stop' = 'good') {
    const { setup, log } = this
    const [fact] = setup.code.coded
    if (!fact) return
    const { entry } = fact
    const text = this.toProve(fact)
    // Nothing is written of it, and none of it stands at the control: there is nothing to open.
    if (text === undefined) return
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
      text,
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
  protected text({ sheet, offset }: EntryOf<'coded'>) {
    return codeFor(this.setup, sheet, offset, demoReference).code?.text
  }

  /** The text that is opened to be proved: as Code writes it, else as it stands at the control; of these the first that is not. */
  protected toProve({ entry }: CodedFact) {
    const { code, prove } = this.setup
    const texts = [this.text(entry), code.taken.get(entry.sheet.title)?.entry.text]
    const isProved = (text: string | undefined) =>
      prove.proofs.some((proof) => proof.entry.text === text && proof.freshness.state === 'fresh')
    return texts.find((text) => text !== undefined && !isProved(text)) ?? texts[0]
  }

  protected take() {
    const { setup } = this
    const [fact] = setup.code.coded
    const text = fact && this.text(fact.entry)
    if (fact && text !== undefined)
      this.program('coded', [fact.entry.id], fact.entry.sheet.title, text, fact.entry.offset)
  }

  /** Takes a program to the control as a pallet runs it. */
  protected takePallet(title: string) {
    const { setup } = this
    this.program('coded', palletProgramRests(setup, title), title, textOnPallet(setup, title) ?? '')
  }

  protected gauging(tolerance?: string) {
    const { setup } = this
    const of = plan(tolerance)
    this.write('gauging', {
      offset: 'G54',
      plan: of,
      rests: gaugeRests(setup, offsetOf(setup, 'G54'), of),
      ...this.made,
    })
  }

  protected measure(values: readonly number[]) {
    const [revision] = this.setup.gauge.plans
    if (!revision) return
    const parts = values.map((value, index) => ({ label: String(index + 1), values: { BORE: value } }))
    this.write('gauged', { plan: 'Test', rests: [revision.entry.id], unit: 'inch', came: 'pasted', parts })
  }

  /** Two pallets; of a built program one runs what it was mended to for them, under its name. */
  protected pallets(verdict: 'look' | 'stop' = 'look') {
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

  protected start(inside: number) {
    const { pallets } = this.setup.run
    if (!pallets) return
    const loaded = pallets.entry.plan.pallets[palletsOf.inside - 1]?.params.table ?? 0
    this.write('start-checked', { inside, loaded, interlock: true, rests: [pallets.entry.id] })
  }

  protected provePallet(title: string) {
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

  protected tickAll() {
    for (const { id: item, says } of readyListOf(this.setup.machine))
      this.write('ticked', { list: 'ready', item, says })
  }

  protected home(off = 0) {
    const shown = { X: inch(0), ...(this.kind === 'mill' ? { Y: inch(off) } : {}), Z: inch(0) }
    this.write('homed', { shown, machine: this.machine })
  }

  protected look() {
    for (const { id: item, says } of this.setup.hold.checks)
      this.write('ticked', { list: 'hold', item, says })
  }

  protected takeGauging() {
    const [revision] = this.setup.gauge.plans
    if (revision) this.program('gauge', [revision.entry.id], 'Test')
  }
}
