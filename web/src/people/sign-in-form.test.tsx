import { fireEvent, render, screen } from '@testing-library/react'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { noteSession, sessionNow } from '../log/session.ts'
import { signingServer } from '../testing/signing.ts'
import { LockScreen } from './lock-screen.tsx'
import { noteRecent, recentPeople } from './recent.ts'
import { SignInForm } from './sign-in-form.tsx'

let server: ReturnType<typeof signingServer>
beforeEach(() => {
  server = signingServer()
  noteSession({ signs: true, tablet: { id: 't1', name: 'Mill 1', locksAfter: 15 } })
})

const press = (...names: string[]) => {
  for (const name of names) fireEvent.click(screen.getByRole('button', { name }))
}
const pin = () => screen.getByLabelText('PIN') as HTMLInputElement

describe('the form to sign in', () => {
  it('takes initials and a PIN by the keys on the screen alone, where somebody was here before', async () => {
    noteRecent('KM')
    noteRecent('RT')
    const done = vi.fn()
    render(<SignInForm onDone={done} />)
    press('KM', '1', '9', '7', '3', '3', 'Take the last digit back', 'Sign in')
    await vi.waitFor(() => expect(done).toHaveBeenCalled())
    expect(sessionNow()).toMatchObject({ person: { initials: 'KM' } })
    expect(recentPeople()).toEqual(['KM', 'RT'])
  })

  it('takes both by a keyboard, and a PIN has digits only, eight at most', async () => {
    render(<SignInForm />)
    fireEvent.change(screen.getByLabelText('Your initials'), { target: { value: ' KM ' } })
    fireEvent.change(pin(), { target: { value: '19a 7.3' } })
    expect(pin().value).toBe('1973')
    fireEvent.submit(pin())
    await vi.waitFor(() => expect(sessionNow().person?.initials).toBe('KM'))
    for (let n = 0; n < 12; n++) press('5')
    expect(pin().value).toBe('55555555')
  })

  it('says what is missing and what was wrong, and the PIN is typed anew', async () => {
    render(<SignInForm />)
    press('Sign in')
    expect(screen.getByRole('alert').textContent).toBe('Say who you are: your initials.')
    fireEvent.change(screen.getByLabelText('Your initials'), { target: { value: 'KM' } })
    press('Sign in')
    expect(screen.getByRole('alert').textContent).toBe('Type your PIN.')
    expect(server.asked).toEqual([])
    press('1', '1', '1', '1', 'Sign in')
    await vi.waitFor(() => expect(screen.getByRole('alert').textContent).toBe('Said: wrong-pin.'))
    expect(pin().value).toBe('')
    expect(pin().getAttribute('aria-invalid')).toBe('true')
  })
})

describe('the screen over everything', () => {
  it('asks for a code where the tablet is not let in, and says what waits on it', async () => {
    server.letIn = false
    noteSession({ signs: true })
    render(<LockScreen />)
    const key = screen.getByRole('button', { name: 'Let it in' }) as HTMLButtonElement
    expect(key.disabled).toBe(true)
    fireEvent.change(screen.getByLabelText('The code, six digits'), { target: { value: '123 456' } })
    fireEvent.change(screen.getByLabelText('What this tablet is called'), { target: { value: 'Mill 1' } })
    fireEvent.click(key)
    expect(await screen.findByText('Said: tablet-unknown.')).toBeTruthy()
  })

  it('cannot be put aside by Escape', () => {
    render(<LockScreen />)
    const title = screen.getByRole('heading', { name: 'Who is at this tablet?' })
    fireEvent.keyDown(title, { key: 'Escape' })
    expect(screen.getByRole('heading', { name: 'Who is at this tablet?' })).toBeTruthy()
  })
})
