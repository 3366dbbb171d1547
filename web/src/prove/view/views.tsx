import { type ToolShape, toolIn } from '@dogleg/core/machine'
import { type Body, movingParts, type Triple } from '@dogleg/core/prove'
import type { Setup } from '@dogleg/core/setup'
import { lazy, Suspense, useEffect, useMemo } from 'react'
import type { Stepper } from '../stepper.ts'
import { useStanding } from '../use-standing.ts'
import type { Drawing } from './drawing.ts'
import { StraightView } from './straight-view.tsx'
import { type Extent, PLAN, SIDE, sceneExtent, TURNING } from './view-frame.ts'

const SpaceView = lazy(async () => ({ default: (await import('./space-view.tsx')).SpaceView }))

interface ViewsProps {
  setup: Setup
  stepper: Stepper
  drawing: Drawing
  bodies: readonly Body[]
  /** Where the path feeds: what is seen where nothing is placed. */
  path: Extent | undefined
  tools: readonly ToolShape[]
  inSpace: boolean
  /** While bodies are placed: the one that is lit, and where it is dragged to. */
  placing: { lit: string | undefined; onMove: (id: string, by: Triple) => void } | undefined
}

/** The work area as it stands before the next press: plan and side, or in space. */
export function Views({ setup, stepper, drawing, bodies, path, tools, inSpace, placing }: ViewsProps) {
  const { unit, machine } = setup
  const lathe = machine.kind === 'lathe'
  const { proof, row, tip, speed, press, here } = useStanding(stepper, setup)
  useEffect(() => {
    drawing.at(stepper.get().row)
    const leave = stepper.subscribe(() => drawing.at(stepper.get().row))
    return () => void leave()
  }, [drawing, stepper])
  const motion = proof?.program.motion
  const number = motion?.states[motion.state[Math.min(row, Math.max(0, motion.count - 1))] ?? 0]?.tool ?? 0
  const parts = useMemo(() => {
    const shapes = new Map(tools.map((tool) => [tool.number, toolIn(tool, unit)]))
    const lengths = new Map(proof?.lengths.map(({ tool, length }) => [tool, length]))
    return movingParts({ machine, unit, tools: shapes, lengths }, number)
  }, [machine, unit, tools, proof, number])
  // Where something is placed, another path is no reason to look from elsewhere.
  const alone = bodies.length === 0 ? path : undefined
  const extent = useMemo(() => sceneExtent(bodies, alone), [bodies, alone])
  if (inSpace)
    return (
      <Suspense fallback={<p className="p-3">Drawing…</p>}>
        <SpaceView drawing={drawing} bodies={bodies} parts={parts} tip={tip} extent={extent} />
      </Suspense>
    )
  return (lathe ? [TURNING] : [PLAN, SIDE]).map((side) => (
    <StraightView
      key={side.name}
      side={side}
      extent={extent}
      drawing={drawing}
      bodies={bodies}
      lit={placing ? placing.lit : here.find(({ body }) => body)?.body}
      onMove={placing?.onMove}
      parts={parts}
      tip={tip}
      next={speed > 0 ? [] : (press?.path ?? [])}
      bands={speed > 0 ? [] : (press?.bands ?? [])}
      crashes={here.some(({ severity, body }) => severity === 'stop' && body !== undefined)}
      hit={here.find(({ at }) => at !== undefined)?.at}
      unit={unit}
    />
  ))
}
