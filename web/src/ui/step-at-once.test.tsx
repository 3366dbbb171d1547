import { fireEvent, render, screen } from '@testing-library/react'
import { Tabs } from 'radix-ui'
import { useState } from 'react'
import { describe, expect, test, vi } from 'vitest'
import { Choice } from './choice'
import { TabList } from './tab-list'

const OPTIONS = ['one', 'two', 'three'].map((value) => ({ value, label: value }))

function Chosen({ onChange }: { onChange: (value: string) => void }) {
  const [value, setValue] = useState<string | undefined>('one')
  return (
    <Choice
      label="Which"
      value={value}
      options={OPTIONS}
      onChange={(next) => {
        setValue(next)
        onChange(next)
      }}
    />
  )
}

function Strip() {
  return (
    <Tabs.Root defaultValue="one">
      <TabList aria-label="Parts">
        {OPTIONS.map(({ value }) => (
          <Tabs.Trigger key={value} value={value}>
            {value}
          </Tabs.Trigger>
        ))}
      </TabList>
    </Tabs.Root>
  )
}

/** Pressed and let go at once, at what has the focus. */
function press(...keys: string[]) {
  for (const key of keys) {
    fireEvent.keyDown(document.activeElement as Element, { key })
    fireEvent.keyUp(document.activeElement as Element, { key })
  }
}

const radio = (name: string) => screen.getByRole('radio', { name })
const tab = (name: string) => screen.getByRole('tab', { name })

describe('a key that is pressed and let go before the page has drawn again', () => {
  test('chooses: one press, one step, each once', () => {
    const onChange = vi.fn()
    render(<Chosen onChange={onChange} />)
    radio('one').focus()
    press('ArrowRight')
    expect(radio('two').getAttribute('aria-checked')).toBe('true')
    press('ArrowRight', 'ArrowRight')
    expect(radio('one').getAttribute('aria-checked')).toBe('true')
    press('End', 'ArrowLeft', 'Home')
    expect(onChange.mock.calls.map(([value]) => value)).toEqual([
      'two',
      'three',
      'one',
      'three',
      'two',
      'one',
    ])
    expect(document.activeElement).toBe(radio('one'))
  })

  test('shows the next tab, and no other comes up after it', async () => {
    render(<Strip />)
    tab('one').focus()
    press('ArrowRight', 'ArrowRight')
    expect(tab('three').getAttribute('aria-selected')).toBe('true')
    await new Promise((done) => setTimeout(done, 20))
    expect(tab('three').getAttribute('aria-selected')).toBe('true')
    expect(document.activeElement).toBe(tab('three'))
  })

  test('with a shift, control or other key, and in other keys, the row is left alone', () => {
    const onChange = vi.fn()
    render(<Chosen onChange={onChange} />)
    radio('one').focus()
    fireEvent.keyDown(radio('one'), { key: 'ArrowRight', ctrlKey: true })
    press('ArrowDown', 'a')
    expect(onChange).not.toHaveBeenCalled()
  })
})
