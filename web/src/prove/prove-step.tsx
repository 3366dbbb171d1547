import { staleLayout } from '@dogleg/core/prepare'
import {
  blockOfFinding,
  blockOfLine,
  coverageOf,
  type Layout,
  layoutIn,
  layout as layoutSchema,
  type Mending,
  type ProgramFinding,
  type Triple,
} from '@dogleg/core/prove'
import { unitSymbol } from '@dogleg/core/quantity'
import type { InHand } from '@dogleg/core/traveler'
import { Tabs } from 'radix-ui'
import { startTransition, useEffect, useRef, useState } from 'react'
import { useKept } from '../log/kept.ts'
import { useOffset, useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/record.ts'
import { usePlace } from '../log/use-place.ts'
import { NextBar } from '../traveler/next-bar.tsx'
import { Button } from '../ui/button.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { StripTab } from '../ui/strip-tab.tsx'
import { TabList } from '../ui/tab-list'
import { Findings } from '../ui/verdict.tsx'
import { ApproachPanel } from './approach-panel.tsx'
import { AreaPanel } from './area-panel.tsx'
import { Difference } from './difference.tsx'
import { FindingsPanel } from './findings-panel.tsx'
import { LARGE } from './large-text.ts'
import { openProgram, sizeSaid } from './open-program.ts'
import { ProgramColumn } from './program-column.tsx'
import { ProofStatus } from './proof-status.tsx'
import { StepPanel } from './step-panel.tsx'
import { Stepper } from './stepper.ts'
import { TimePanel } from './time-panel.tsx'
import { useAskedProgram } from './use-asked-program.ts'
import { type OpenProgram, useProgram } from './use-program.ts'
import { useProof } from './use-proof.ts'
import { Drawing } from './view/drawing.ts'
import { Views } from './view/views.tsx'

const PLACES = ['step', 'findings', 'area', 'first', 'time'] as const
const NONE: readonly ProgramFinding[] = []
/** How many times as far a program is read that was stopped because it takes too much work. */
const FURTHER = 10

/** The Prove step: the program beside the work area, stepped as single block would, and all that is said of it. */
export function ProveStep() {
  const open = useOpenSetup()
  const { setup, traveler } = open
  const { unit, machine } = setup
  const lathe = machine.kind === 'lathe'
  const [offset] = useOffset(setup)
  const signed = useSigned()
  const [place, go] = usePlace('part', PLACES, 'step')

  const kept = setup.prove.proofs.findLast(({ entry }) => entry.text !== undefined)?.entry
  const { program, change, unkept } = useProgram(
    setup.id,
    kept?.text === undefined ? undefined : { title: kept.title, text: kept.text },
  )
  const recorded = setup.prove.layout?.layout
  const [layout, changeLayout] = useKept<Layout>(`${setup.id}.area`, layoutSchema, () =>
    layoutIn(recorded ?? { unit, bodies: [] }, unit),
  )
  const areaChanged =
    JSON.stringify(layout) !== JSON.stringify(layoutIn(recorded ?? { unit, bodies: [] }, unit))
  const [skipOptional, setSkipOptional] = useState(setup.prove.proofs.at(-1)?.entry.blockDelete ?? false)

  const text = program?.text ?? ''
  // Each text is read as far as is usual at first.
  const [read, setRead] = useState<{ of: typeof text; further: number }>({ of: text, further: 1 })
  const further = read.of === text ? read.further : 1
  const [drawing] = useState(() => new Drawing())
  useEffect(() => () => drawing.end(), [drawing])
  const {
    of,
    now,
    share,
    proved,
    current,
    proveAgain,
    stop,
    fact,
    against,
    recordProof,
    standing,
    letStand,
  } = useProof({
    open,
    program,
    frame: offset.name,
    layout,
    areaChanged,
    skipOptional,
    further,
    drawing,
  })
  const proof = proved?.proof
  const [stepper] = useState(() => new Stepper())
  useEffect(() => stepper.load(proof), [stepper, proof])
  useEffect(() => () => stepper.end(), [stepper])
  const [into, setInto] = useState(true)
  const [chosen, setChosen] = useState<ProgramFinding>()
  const [mending, setMending] = useState<Mending>()
  const [lit, setLit] = useState<string>()
  const [inSpace, setInSpace] = useState(false)
  const [told, setTold] = useState<string>()
  const panel = useRef<HTMLDivElement>(null)
  /** How many files have been chosen. */
  const opened = useRef(0)

  const motion = proof?.program.motion
  const { bodies } = layout

  const openText = (next: OpenProgram) => {
    setTold(undefined)
    setChosen(undefined)
    stepper.go(0)
    // In slices: a large program is much to set out at once.
    startTransition(() => change(next))
  }
  const openFiles = async (files: readonly File[]) => {
    const [file] = files
    if (!file) return
    const tooLarge = sizeSaid(files)
    if (tooLarge) {
      setTold(tooLarge)
      return
    }
    const asked = ++opened.current
    if (file.size > LARGE) setTold(`Opening ${file.name}…`)
    const found = await openProgram(files)
    // Others may have been chosen meanwhile.
    if (asked !== opened.current) return
    if (found.ok) openText(found.program)
    else setTold(found.says)
  }
  const asks = traveler.left.find(({ step, part }) => step === 'prove' && part === 'whole')?.about
  const asked = useAskedProgram(asks, program, openText, setTold)
  const toLine = (line: number) => {
    const block = motion && blockOfLine(motion, line, stepper.get().block)
    if (block !== undefined) stepper.go(block)
  }
  const choose = (finding: ProgramFinding) => {
    setChosen(finding)
    const block = motion && blockOfFinding(motion, finding)
    if (block !== undefined) stepper.go(block)
    if (finding.body) setLit(finding.body)
  }
  const moveBody = (id: string, by: Triple) =>
    changeLayout({
      ...layout,
      bodies: layout.bodies.map((body) =>
        body.id === id
          ? { ...body, at: { x: body.at.x + by[0], y: body.at.y + by[1], z: body.at.z + by[2] } }
          : body,
      ),
    })
  const recordArea = () =>
    signed(() => {
      const read = layoutSchema.safeParse(layout)
      if (!read.success) {
        setTold(`The work area is not recorded: ${read.error.issues[0]?.message}`)
        return
      }
      record(setup.id, { kind: 'laid-out', ...read.data })
    })
  const worst = current ? proof?.findings.find(({ severity }) => severity === 'stop') : undefined
  const title = program?.title ?? ''
  /** Whether a program that is asked for is the one that is open, to the letter where its text is known. */
  const isOpen = (about = title) =>
    about === title && (about !== asks || asked.text === undefined || asked.text === text)
  const inHand: InHand = {
    area: { bodies: bodies.length, recorded: !areaChanged },
    ...(text.length > 0
      ? {
          proof: {
            title,
            recorded: fact !== undefined,
            against: current ? against : undefined,
            ...(worst ? { stop: { line: worst.line, says: worst.says } } : {}),
          },
        }
      : {}),
  }
  const counts = proof && {
    stop: proof.findings.filter(({ severity }) => severity === 'stop').length,
    look: proof.findings.filter(({ severity }) => severity === 'look').length,
  }
  if (program === undefined) return <p className="py-8">Opening the program…</p>
  /** Said where something is shown of a program that is read. */
  const notRead =
    text.length === 0
      ? 'No program is open.'
      : now.state === 'failed' || now.state === 'stopped'
        ? 'The program has not been read to its end.'
        : 'Reading the program…'
  return (
    <section
      aria-label="Prove"
      className="flex flex-1 flex-col"
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        if (event.dataTransfer.files.length === 0) return
        event.preventDefault()
        void openFiles([...event.dataTransfer.files])
      }}
    >
      <div className="grid flex-1 content-start gap-x-4 gap-y-2 py-2 lg:grid-cols-[23rem_1fr]">
        <ProgramColumn
          setup={setup}
          offset={offset}
          program={program}
          told={told}
          unkept={unkept}
          findings={current && proof ? proof.findings : NONE}
          lineStarts={proved?.text === text ? proved.lineStarts : undefined}
          stepper={stepper}
          onLine={toLine}
          onFiles={openFiles}
          onOpen={openText}
          onChange={change}
          onTold={setTold}
        />
        <div className="order-1 flex min-w-0 flex-col gap-2 lg:order-2">
          <div className="flex min-h-11 flex-wrap items-center gap-x-4 gap-y-1">
            <ProofStatus
              now={now}
              share={share}
              onStop={stop}
              onProve={proveAgain}
              verdict={proof?.verdict}
              counts={counts}
              fact={fact}
              against={against}
            />
            <span className="ml-auto flex gap-2">
              <Button
                onClick={() => setInSpace(!inSpace)}
                aria-pressed={inSpace}
                disabled={text.length === 0 && bodies.length === 0}
              >
                {inSpace ? 'Plan and side' : 'In space'}
              </Button>
              <Button
                look={current && (!fact || against) ? 'primary' : 'plain'}
                onClick={recordProof}
                disabled={!current || !motion || motion.blocks === 0 || worst !== undefined}
                title={worst && 'Not recorded while something in it says stop.'}
              >
                Record the proof
              </Button>
            </span>
          </div>
          <Findings findings={staleLayout(setup)} />
          <div
            className={`grid gap-2 ${inSpace ? 'h-[clamp(14rem,calc(100dvh-34.5rem),28rem)]' : `h-56 2xl:h-96 ${lathe ? '' : 'grid-cols-2'}`}`}
          >
            <Views
              setup={setup}
              stepper={stepper}
              drawing={drawing}
              bodies={bodies}
              path={proved?.extent}
              tools={of.tools}
              inSpace={inSpace}
              placing={
                place === 'area'
                  ? {
                      lit: lit ?? bodies[0]?.id,
                      onMove: (id, by) => {
                        setLit(id)
                        moveBody(id, by)
                      },
                    }
                  : undefined
              }
            />
          </div>
          <Tabs.Root value={place} onValueChange={(to) => go(PLACES.find((each) => each === to))}>
            <TabList
              aria-label="Parts of Prove"
              // After a touch or a click the keys step on; after a key they go on moving among the tabs.
              onClick={({ detail }) => detail > 0 && panel.current?.focus()}
              className="flex flex-wrap border-b border-rule"
            >
              {(
                [
                  ['step', 'Step'],
                  ['findings', 'Findings'],
                  ['area', 'Work area'],
                  ['first', 'First run'],
                  ['time', 'Time'],
                ] as const
              ).map(([value, title]) => (
                <StripTab
                  key={value}
                  value={value}
                  title={title}
                  isNext={value === 'area' && bodies.length === 0}
                >
                  {value === 'findings' && counts ? (
                    <span className="digits">{proof.findings.length}</span>
                  ) : null}
                </StripTab>
              ))}
            </TabList>
            <Tabs.Content ref={panel} value={place} tabIndex={-1} className="py-2 outline-none">
              {place === 'step' && (
                <StepPanel setup={setup} stepper={stepper} otherwise={notRead} into={into} onInto={setInto} />
              )}
              {place === 'findings' && (
                <FindingsPanel
                  findings={proof?.findings ?? NONE}
                  chosen={chosen}
                  onChoose={choose}
                  onMend={typeof text === 'string' ? setMending : undefined}
                  onFurther={() => setRead({ of: text, further: further * FURTHER })}
                  standing={standing}
                  onLetStand={letStand}
                  profileId={setup.profile.id}
                  coverage={proof && proof.verdict !== 'stop' ? coverageOf(proof.program) : undefined}
                />
              )}
              {place === 'area' && (
                <AreaPanel
                  layout={layout}
                  offset={offset}
                  lathe={lathe}
                  lit={lit}
                  onLit={setLit}
                  onChange={changeLayout}
                  changed={areaChanged}
                  onRecord={recordArea}
                />
              )}
              {place === 'first' &&
                (proof && proved ? (
                  <ApproachPanel
                    proof={proof}
                    of={proved.of}
                    proved={fact !== undefined && against === undefined}
                  />
                ) : (
                  <p className="py-3 text-lg">{notRead}</p>
                ))}
              {place === 'time' &&
                (proof ? (
                  <TimePanel
                    proof={proof}
                    unit={unitSymbol(unit)}
                    skipOptional={skipOptional}
                    onSkipOptional={setSkipOptional}
                  />
                ) : (
                  <p className="py-3 text-lg">{notRead}</p>
                ))}
            </Tabs.Content>
          </Tabs.Root>
        </div>
      </div>
      <NextBar
        step="prove"
        inHand={inHand}
        isHere={({ part, about }) => (part === 'area' ? place === 'area' : !worst && isOpen(about))}
        way={({ step, part, about }) => {
          if (step !== 'prove' || part !== 'whole' || about === undefined) return undefined
          return isOpen(about) ? () => go('findings') : () => asked.open(about)
        }}
      />
      <Dialog
        open={asked.replacing !== undefined}
        onOpenChange={(stays) => !stays && asked.replace(false)}
        title="Another program stands here"
        says={`${asked.replacing?.standing} has not been proved as it stands here, and is kept nowhere else.`}
      >
        <div className="flex flex-wrap gap-3">
          <Button look="primary" onClick={() => asked.replace(true)}>
            Put {asked.replacing?.next.title} in its place
          </Button>
          <Button onClick={() => asked.replace(false)}>Look at it first</Button>
        </div>
      </Dialog>
      {mending && program && typeof text === 'string' && (
        <Difference
          text={text}
          mending={mending}
          onClose={() => setMending(undefined)}
          onTake={(after) => {
            setMending(undefined)
            setChosen(undefined)
            change({ title: program.title, text: after })
          }}
        />
      )}
    </section>
  )
}
