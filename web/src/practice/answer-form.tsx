import type { LengthUnit } from '@dogleg/core/quantity'
import { answerProblems, type Task } from '@dogleg/core/simulated'
import { useState } from 'react'
import { Button } from '../ui/button.tsx'
import { LengthEntryField, nextFieldOnEnter, TextEntry } from '../ui/entry-field.tsx'
import { PickOne } from '../ui/pick-one.tsx'

interface AnswerFormProps {
  task: Task
  unit: LengthUnit
  answers: Readonly<Record<string, string>>
  onAnswer: (name: string, text: string) => void
  onSubmit: () => void
  busy: boolean
}

/** The answer to an exercise, field by field, and the key that has it judged. */
export function AnswerForm({ task, unit, answers, onAnswer, onSubmit, busy }: AnswerFormProps) {
  const [tried, setTried] = useState(false)
  const problems = answerProblems(task, unit, answers)
  const missing = Object.values(problems).filter(({ empty }) => empty).length
  return (
    <form
      aria-label="Answer"
      className="space-y-1"
      onKeyDown={nextFieldOnEnter}
      onSubmit={(event) => {
        event.preventDefault()
        setTried(true)
        if (Object.keys(problems).length === 0) onSubmit()
      }}
    >
      {task.fields.map(({ name, label, reads, hint, options }) => {
        const problem = problems[name]
        const wrong = problem && (tried || !problem.empty) ? problem.says : undefined
        const common = {
          label,
          value: answers[name] ?? '',
          onChange: (text: string) => onAnswer(name, text),
          hint,
          wrong,
          narrow: true,
        }
        if (reads === 'length') return <LengthEntryField key={name} {...common} unit={unit} />
        if (reads === 'number') return <TextEntry key={name} {...common} maxLength={8} />
        return (
          <PickOne
            key={name}
            label={label}
            value={answers[name] ?? ''}
            onChange={(value) => onAnswer(name, value)}
            options={[['', 'choose'], ...(options ?? [])]}
            hint={wrong}
          />
        )
      })}
      <Button type="submit" look="primary" data-record className="min-h-12 w-full text-lg" disabled={busy}>
        {task.fields.length === 0 ? 'Done: how far off is it?' : 'How far off am I?'}
      </Button>
      {tried && missing > 0 && (
        <p role="status" className="text-sm font-semibold">
          {missing} {missing === 1 ? 'answer is' : 'answers are'} still missing.
        </p>
      )}
    </form>
  )
}
