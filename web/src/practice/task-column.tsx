import type { Exercise, Task } from '@dogleg/core/simulated'
import { Lightbulb } from 'lucide-react'
import type { ReactNode } from 'react'
import { Button } from '../ui/button.tsx'

interface TaskColumnProps {
  exercise: Exercise
  task: Task
  /** Hints that were asked for so far. */
  hints: number
  onHint: () => void
  /** It is judged: what was to be done is no longer said. */
  over: boolean
  children: ReactNode
}

/** What is to be done, what is known from the start, hints on request; and the answer below. */
export function TaskColumn({ exercise, task, hints, onHint, over, children }: TaskColumnProps) {
  return (
    <section aria-label="Task" className="space-y-2">
      <h1 className="text-xl leading-6 font-semibold">{exercise.title}</h1>
      {!over && <Asked exercise={exercise} task={task} hints={hints} onHint={onHint} />}
      {children}
    </section>
  )
}

function Asked({ exercise, task, hints, onHint }: Omit<TaskColumnProps, 'over' | 'children'>) {
  const left = exercise.hints.length - hints
  return (
    <>
      <p className="leading-5">{task.goal}</p>
      <dl className="border-y border-rule py-1 text-sm">
        {task.given.map(([name, says]) => (
          <div key={name} className="flex justify-between gap-3">
            <dt className="shrink-0 text-ink-soft">{name}</dt>
            <dd className="text-right">{says}</dd>
          </div>
        ))}
      </dl>
      {hints > 0 && (
        <ol className="list-decimal space-y-1 pl-5 text-sm leading-5" aria-label="Hints">
          {exercise.hints.slice(0, hints).map((hint) => (
            <li key={hint}>{hint}</li>
          ))}
        </ol>
      )}
      {left > 0 && (
        <Button look="quiet" onClick={onHint} className="-ml-4">
          <Lightbulb aria-hidden size={18} /> {hints === 0 ? 'A hint' : 'One more hint'}
        </Button>
      )}
    </>
  )
}
