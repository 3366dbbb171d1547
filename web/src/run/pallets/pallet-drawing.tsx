import type { PalletPlan, PalletPlay } from '@dogleg/core/pallet'
import { Words } from '../../drawing/marks.tsx'
import { CycleSheet } from '../../drawing/sheet.tsx'

const WIDTH = 480
const HEIGHT = 250
const BOX = { wide: 110, tall: 70 }

/** The machine with the pallet that is inside, and the load station with the others: which wait, which are ready. */
export function PalletDrawing({ plan, play }: { plan: PalletPlan; play: PalletPlay }) {
  const out = plan.pallets.map((_, index) => index + 1).filter((pallet) => pallet !== play.inside)
  const at = (pallet: number) => {
    if (pallet === play.inside) return { x: 120, y: 105 }
    const place = out.indexOf(pallet)
    const room = (HEIGHT - 70) / out.length
    return { x: 360, y: 60 + room * place + Math.min(45, room / 2) }
  }
  const crash = play.state === 'crash'
  return (
    <CycleSheet
      label={`Pallet ${play.inside} is on the machine; at the load station ${out.map((pallet) => `pallet ${pallet}${play.ready.includes(pallet) ? ' is ready' : ''}`).join(', ')}.`}
      width={WIDTH}
      height={HEIGHT}
    >
      <rect
        x={30}
        y={40}
        width={180}
        height={150}
        fill="none"
        stroke={crash ? 'var(--color-brass)' : 'var(--color-scribe)'}
        strokeWidth={crash ? 4 : 2}
      />
      <Words at={{ x: 120, y: 28 }} plain bold>
        machine, O{play.loaded}
      </Words>
      <line
        x1={250}
        x2={250}
        y1={30}
        y2={HEIGHT - 20}
        stroke="var(--color-scribe-dim)"
        strokeDasharray="8 5"
      />
      <Words at={{ x: 360, y: 28 }} plain bold>
        load station
      </Words>
      {plan.pallets.map(({ params }, index) => {
        const pallet = index + 1
        const { x, y } = at(pallet)
        const ready = play.ready.includes(pallet)
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: a pallet is its number
          <g key={index}>
            <rect
              x={x - BOX.wide / 2}
              y={y - BOX.tall / 2}
              width={BOX.wide}
              height={BOX.tall}
              fill="var(--color-layout-deep)"
              stroke={ready ? 'var(--color-brass)' : 'var(--color-scribe)'}
              strokeWidth={ready ? 3.5 : 2}
            />
            <text
              x={x}
              y={y + 2}
              textAnchor="middle"
              fontSize={30}
              fontWeight={600}
              fill="var(--color-scribe)"
              className="digits"
            >
              {pallet}
            </text>
            <Words at={{ x, y: y + 24 }} plain>
              {params.fixture.slice(0, 16)}
            </Words>
            {ready && (
              <Words at={{ x: x + BOX.wide / 2 + 8, y: y + 5 }} anchor="start" ink="measured" plain bold>
                ready
              </Words>
            )}
          </g>
        )
      })}
      {crash && (
        <g stroke="var(--color-brass)" strokeWidth={5}>
          <line x1={70} y1={65} x2={170} y2={145} />
          <line x1={170} y1={65} x2={70} y2={145} />
        </g>
      )}
      <Words at={{ x: 120, y: 222 }} plain ink={play.state === 'runs' ? 'part' : 'measured'} bold>
        {play.state === 'waits'
          ? `waits for pallet ${play.waitsFor}`
          : play.state === 'crash'
            ? 'crash'
            : play.state === 'alarm'
              ? 'alarm: nothing moves'
              : play.interlock
                ? 'interlock on'
                : 'interlock off'}
      </Words>
    </CycleSheet>
  )
}
