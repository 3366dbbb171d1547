import type { SimulatedAction, SimulatedView } from '@dogleg/core/simulated'
import { useState } from 'react'
import { Group, Key } from './parts.tsx'
import type { Simulated } from './use-simulated.ts'

type Tap = Extract<SimulatedAction, { do: 'tap' }>
const STRENGTHS: readonly Tap['strength'][] = ['light', 'medium', 'firm']

/** Vise or rotary, where the machine has one. */
function OnTable({
  rotary,
  work,
}: {
  rotary: NonNullable<SimulatedView['rotary']>
  work: Simulated['work']
}) {
  return (
    <Group label="On the table">
      {(['vise', 'rotary'] as const).map((stands) => (
        <Key
          key={stands}
          pressed={rotary.onTable === (stands === 'rotary')}
          name={`Put the ${stands} on the table`}
          onPress={() => work({ do: 'table', stands })}
        >
          {stands}
        </Key>
      ))}
    </Group>
  )
}

/** Hands on the vise: the part, its bolts, the mallet; and a gauge block held against the part. */
export function ViseKeys({ view, work }: { view: SimulatedView; work: Simulated['work'] }) {
  const [strength, setStrength] = useState<Tap['strength']>('light')
  const { vise, rotary } = view
  if (!vise) return null
  const onTable = rotary && <OnTable rotary={rotary} work={work} />
  if (rotary?.onTable)
    return (
      <section aria-label="Table" className="pt-2">
        {onTable}
      </section>
    )
  return (
    <section aria-label="Vise" className="grid gap-x-6 gap-y-1.5 pt-2 sm:grid-cols-2">
      {(['left', 'right'] as const).map((which) => (
        <Group key={which} label={`${which === 'left' ? 'Left' : 'Right'} bolt`}>
          {(['out', 'snug', 'tight'] as const).map((to) => (
            <Key
              key={to}
              pressed={vise[which] === to}
              name={`${which === 'left' ? 'Left' : 'Right'} bolt ${to}`}
              onPress={() => work({ do: 'bolt', which, to })}
            >
              {to}
            </Key>
          ))}
        </Group>
      ))}
      <Group label="Mallet">
        {STRENGTHS.map((each) => (
          <Key
            key={each}
            pressed={strength === each}
            onPress={() => setStrength(each)}
            name={`Mallet ${each}`}
          >
            <span className="text-sm">{each}</span>
          </Key>
        ))}
      </Group>
      <Group label="Part">
        <Key
          pressed={view.partIn}
          onPress={() => work({ do: 'part', in: !view.partIn })}
          name={view.partIn ? 'Take the part out' : 'Put the part in'}
        >
          {view.partIn ? 'in the vise' : 'put it in'}
        </Key>
      </Group>
      {(['left', 'right'] as const).map((end) => (
        <Group key={end} label={`Tap ${end}`}>
          {(['back', 'front'] as const).map((way) => (
            <Key
              key={way}
              name={`Tap the ${end} end to the ${way}`}
              onPress={() => work({ do: 'tap', end, way, strength })}
            >
              <span className="text-sm">to the {way}</span>
            </Key>
          ))}
        </Group>
      ))}
      {view.mounted.kind === 'indicator' && view.partIn && (
        <div className="sm:col-span-2">
          <Group label="Block held against">
            {(['X-', 'X+', 'Y-', 'Y+'] as const).map((side) => (
              <Key
                key={side}
                pressed={view.held === side}
                name={`Gauge block against ${side}`}
                onPress={() => work({ do: 'hold-block', side: view.held === side ? null : side })}
              >
                {side.replace('-', '−')} side
              </Key>
            ))}
          </Group>
        </div>
      )}
      {onTable}
    </section>
  )
}
