import { featureDraft, MOST_FEATURES } from '@dogleg/core/gauge'
import { act, fireEvent, render, renderHook, screen } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'
import { logOf, openSetup } from '../testing/shop.tsx'
import { FeatureList } from './feature-list.tsx'
import { usePlans } from './use-plans.ts'

const { setup } = openSetup(logOf(/first side/))
const [kept] = renderHook(() => usePlans(setup, [])).result.current.plan.features
if (!kept) throw new Error('the demo gauges something')
const many = (count: number) =>
  Array.from({ length: count }, (_, n) => ({
    id: `feature-${n}`,
    draft: featureDraft.parse({ ...kept.draft, name: `F${n}` }),
  }))

describe('the plans that are being composed on a tablet', () => {
  it('are all there after a reload, however many they are and however much stands in them', () => {
    const first = renderHook(() => usePlans(setup, []))
    const before = first.result.current.plans.length
    for (let n = 0; n < 35; n++) act(() => first.result.current.add())
    act(() =>
      first.result.current.change({ ...first.result.current.plan, features: many(MOST_FEATURES + 1) }),
    )
    first.unmount()
    const { plans, plan } = renderHook(() => usePlans(setup, [])).result.current
    expect([plans.length, plan.features.length]).toEqual([before + 35, MOST_FEATURES + 1])
    expect(new Set(plans.map(({ head }) => head.number)).size).toBe(plans.length)
  })
})

describe('what is gauged', () => {
  function show(count: number) {
    const onAdd = vi.fn()
    const nothing = () => undefined
    render(
      <FeatureList
        features={many(count)}
        chosen="feature-0"
        incomplete={new Set(['feature-1'])}
        stopped={new Set(['feature-2'])}
        order={new Map([['feature-0', 1]])}
        saves={new Map([['feature-0', '4.2']])}
        kinds={['bore', 'boss']}
        onChoose={nothing}
        onAdd={onAdd}
        onMove={nothing}
        onCopy={nothing}
        onRemove={nothing}
      />,
    )
    return onAdd
  }

  it('says of each what it lacks, what stops it, or what leaving it out saves, and takes another', () => {
    const onAdd = show(3)
    expect(screen.getAllByRole('listitem').map((each) => each.textContent)).toEqual([
      expect.stringMatching(/^1F0.*4\.2$/),
      expect.stringMatching(/F1.*not complete$/),
      expect.stringMatching(/F2.*stop$/),
    ])
    fireEvent.change(screen.getByLabelText('Another one'), { target: { value: 'boss' } })
    fireEvent.click(screen.getByRole('button', { name: 'Add' }))
    expect(onAdd.mock.calls).toEqual([['boss']])
  })

  it('holds so many features, and says so in the place of the key', () => {
    show(MOST_FEATURES)
    screen.getByText(`A plan holds ${MOST_FEATURES} features at most. Begin another one for more.`)
    expect(screen.queryByRole('button', { name: 'Add' })).toBeNull()
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Copy the feature' }).disabled).toBe(true)
  })
})
