import {
  type GrooveSizes,
  groovePlay,
  grooveScene,
  type Ring,
  type UV,
  wantedDepth,
} from '@dogleg/core/cycles/grooving'
import { formatLength, type LengthUnit } from '@dogleg/core/quantity'
import { Pause, Play } from 'lucide-react'
import { useMemo, useState } from 'react'
import { type Frame, frame } from '../drawing/frame.ts'
import { Words } from '../drawing/marks.tsx'
import { polygon } from '../drawing/plan.ts'
import { CycleSheet } from '../drawing/sheet.tsx'
import { useProgress } from '../drawing/use-progress.ts'
import { Button } from '../ui/button.tsx'

interface GrooveDrawingProps {
  sizes: GrooveSizes
  /** Left between the plunges. */
  rings: readonly Ring[]
  /** How it turns and feeds, each with the fields that it comes from. */
  says: readonly (readonly [words: string, ...fields: string[]])[]
  unit: LengthUnit
  lit: string | undefined
}

const WIDTH = 700
const HEIGHT = 244
const PLAY_MS = 9_000

const PART_SAYS: Record<string, string> = {
  plunge: 'plunge',
  peck: 'back to break the chip',
  aside: 'sideways to the next',
  finish: 'finishing pass',
  out: 'out',
}

/** Bar, groove and insert in section, to scale; plays the cycle move by move. */
export function GrooveDrawing({ sizes, rings, says, unit, lit }: GrooveDrawingProps) {
  const [playing, setPlaying] = useState(false)
  const [held, setHeld] = useState(1)
  const run = useProgress(playing, PLAY_MS)
  if (playing && run >= 1) {
    setPlaying(false)
    setHeld(1)
  }
  const share = playing ? run : held
  const play = useMemo(() => groovePlay(sizes), [sizes])
  const scene = useMemo(() => grooveScene(sizes, play, share), [sizes, play, share])
  const { section, insert, level, where } = sizes
  const { low, high, depth } = section
  const margin = Math.max((high - low) * 0.45, insert.width)
  const along: Frame = frame(low - margin, high + margin, {
    upright: false,
    from: 20,
    to: WIDTH - 20,
    middle: 0,
  })
  const scale = Math.min(along.scale, 118 / depth, 66 / Math.max(-level, 1e-6))
  const surfaceAt = 84
  // Along and across by one scale.
  const middle = (low + high) / 2
  const at = ({ u, v }: UV) => ({ x: WIDTH / 2 + (u - middle) * scale, y: surfaceAt + v * scale })
  // Wider than the sheet: where the drawing is low, more of it shows at both sides.
  const ends = { low: middle - WIDTH / scale, high: middle + WIDTH / scale }
  const floor = HEIGHT
  const cut = [
    { u: ends.low, v: 0 },
    ...scene.outline.map(({ u, v }) => ({ u, v: Math.max(0, v) })),
    { u: ends.high, v: 0 },
  ].map(at)
  const bar = [...cut, { x: 1.5 * WIDTH, y: floor }, { x: -WIDTH / 2, y: floor }]
  // The walls are upright: both sides of each.
  const sides = [low, high].flatMap((wall) => [wall - 1e-9, wall + 1e-9])
  const wanted = [...scene.outline.map(({ u }) => u), ...sides]
    .sort((a, b) => a - b)
    .map((u) => at({ u, v: wantedDepth(section, u) }))
  const say = (value: number) => formatLength(value, unit)
  const is = (...fields: string[]) => lit !== undefined && fields.includes(lit)
  const tip = at({ u: scene.low, v: scene.at.v })
  const width = insert.width * scale
  const round = Math.min(insert.corner * scale, width / 2)
  const shank = 70
  const programmed = at({ u: scene.at.u, v: scene.at.v })
  const wallNames = where === 'face' ? ['inner wall', 'outer wall'] : ['wall', 'wall']
  const twice = where === 'face' ? 2 : 1
  return (
    <div className="flex h-full flex-col gap-1">
      <div className="min-h-0 flex-1">
        <CycleSheet
          label={`The groove in section, ${say(high - low)} wide, ${say(depth)} deep, insert ${say(insert.width)}: move ${scene.move} of ${play.moves.length}, ${PART_SAYS[scene.part ?? 'out']}${rings.length > 0 ? `; ${rings.length} rings are left` : ''}`}
          width={WIDTH}
          height={HEIGHT}
          tallest="max-h-full"
        >
          <defs>
            <pattern
              id="bar"
              width="9"
              height="9"
              patternUnits="userSpaceOnUse"
              patternTransform="rotate(45)"
            >
              <line x1="0" y1="0" x2="0" y2="9" stroke="var(--color-scribe-dim)" strokeWidth="1" />
            </pattern>
          </defs>
          <polygon points={polygon(bar)} fill="url(#bar)" stroke="none" />
          <polyline points={polygon(cut)} fill="none" stroke="var(--color-scribe)" strokeWidth={2} />
          <polyline
            points={polygon(wanted)}
            fill="none"
            stroke={is('corner', 'edge', 'edgeSize', 'bottom') ? 'var(--color-brass)' : 'var(--color-scribe)'}
            strokeWidth={is('corner', 'edge', 'edgeSize', 'bottom') ? 3 : 1.2}
            strokeDasharray="6 4"
          />
          {share === 1 &&
            rings.map(({ from, to, height }) => {
              const [a, b] = [
                at({ u: from, v: sizes.plungeDepth - height }),
                at({ u: to, v: sizes.plungeDepth }),
              ]
              return (
                <rect
                  key={from}
                  x={Math.min(a.x, b.x)}
                  y={a.y}
                  width={Math.max(2, Math.abs(b.x - a.x))}
                  height={Math.max(2, b.y - a.y)}
                  fill="var(--color-hazard)"
                />
              )
            })}
          <path
            d={`M ${tip.x} ${tip.y - shank} V ${tip.y - round} A ${round} ${round} 0 0 0 ${tip.x + round} ${tip.y} H ${tip.x + width - round} A ${round} ${round} 0 0 0 ${tip.x + width} ${tip.y - round} V ${tip.y - shank} Z`}
            fill="var(--color-brass)"
            fillOpacity={0.35}
            stroke="var(--color-brass)"
            strokeWidth={is('insertWidth', 'tool', 'insertCorner') ? 4 : 2}
          />
          <circle
            cx={programmed.x}
            cy={programmed.y}
            r={is('programmed', 'start', 'last') ? 8 : 5}
            fill="var(--color-brass)"
          />
          <line
            x1={-WIDTH / 2}
            x2={1.5 * WIDTH}
            y1={at({ u: 0, v: level }).y}
            y2={at({ u: 0, v: level }).y}
            stroke={is('clearance') ? 'var(--color-brass)' : 'var(--color-scribe-dim)'}
            strokeWidth={is('clearance') ? 3 : 1}
            strokeDasharray="8 5"
          />
          {[low, high].map((u, index) => (
            <Words
              key={index === 0 ? 'low' : 'high'}
              at={{ x: at({ u, v: 0 }).x + (index === 0 ? -8 : 8), y: surfaceAt - 8 }}
              anchor={index === 0 ? 'end' : 'start'}
              bold={is(index === 0 ? 'far' : 'near', 'where')}
            >
              {where === 'face' ? '⌀' : 'Z'}
              {say(u * twice)}
              <tspan className="sr-only">{wallNames[index]}</tspan>
            </Words>
          ))}
          <Words
            at={{ x: WIDTH / 2 - 8, y: at({ u: 0, v: depth }).y + 24 }}
            anchor="end"
            bold={is('near', 'far')}
          >
            {say(high - low)} wide
          </Words>
          <Words
            at={{ x: WIDTH / 2 + 8, y: at({ u: 0, v: depth }).y + 24 }}
            anchor="start"
            bold={is('bottom')}
          >
            {say(depth)} deep
          </Words>
          {says.map(([words, ...fields], index) => (
            <Words key={words} at={{ x: WIDTH - 12, y: 20 }} row={index} anchor="end" bold={is(...fields)}>
              {words}
            </Words>
          ))}
          <Words at={{ x: 12, y: 20 }} anchor="start" plain>
            {where === 'face' ? '← centre' : '← chuck'}
          </Words>
        </CycleSheet>
      </div>
      <div className="flex items-center gap-3">
        <Button
          onClick={() => setPlaying(!playing)}
          aria-label={playing ? 'Pause' : 'Play the cycle'}
          className="px-3"
        >
          {playing ? <Pause aria-hidden size={20} /> : <Play aria-hidden size={20} />}
        </Button>
        <input
          type="range"
          aria-label="How far the cycle has gone"
          min={0}
          max={1000}
          value={Math.round(share * 1000)}
          onChange={({ target }) => {
            setPlaying(false)
            setHeld(Number(target.value) / 1000)
          }}
          className="h-11 flex-1 accent-ink"
        />
        <span className="digits w-44 text-sm">
          {scene.move} of {play.moves.length}, {PART_SAYS[scene.part ?? 'out']}
        </span>
      </div>
    </div>
  )
}
