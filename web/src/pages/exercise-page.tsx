import { LINEAR_AXES, type LinearAxis } from '@dogleg/core/machine'
import type { LengthUnit } from '@dogleg/core/quantity'
import { type Exercise, exerciseOf, practiceMachine } from '@dogleg/core/simulated'
import { useMemo, useState } from 'react'
import { useParams } from 'react-router'
import { Lost } from '../app/lost.tsx'
import { useSigned } from '../log/operator-gate.tsx'
import { PositionContext, type PositionSource } from '../positions/use-positions.ts'
import { AnswerForm } from '../practice/answer-form.tsx'
import { ResultPanel } from '../practice/result-panel.tsx'
import { TaskColumn } from '../practice/task-column.tsx'
import { type ExerciseState, useExercise } from '../practice/use-exercise.ts'
import { WorkOut } from '../practice/work-out.tsx'
import { Listing } from '../program/listing.tsx'
import { InnerTabs } from '../run/inner-tabs.tsx'
import { BarDrawing } from '../simulated/bar-drawing.tsx'
import { Console } from '../simulated/console.tsx'
import { ProgramRun } from '../simulated/program-run.tsx'
import { TableDrawing } from '../simulated/table-drawing.tsx'
import { useSimulated } from '../simulated/use-simulated.ts'
import { ViseKeys } from '../simulated/vise-keys.tsx'
import { Button } from '../ui/button.tsx'
import { Choice } from '../ui/choice.tsx'

/** One exercise: before, under way, and what came of it. */
export function ExercisePage() {
  const { exercise: id = '' } = useParams()
  const exercise = exerciseOf(id)
  if (!exercise) return <Lost says="There is no such exercise." />
  return <OneExercise key={id} exercise={exercise} />
}

function OneExercise({ exercise }: { exercise: Exercise }) {
  const of = useExercise(exercise)
  return (
    <div className="flex flex-1 flex-col py-2">
      {of.error && (
        <p role="alert" className="mb-2 border-2 border-ink p-2 font-semibold">
          {of.error}
        </p>
      )}
      {of.state ? (
        <UnderWay exercise={exercise} of={of} state={of.state} />
      ) : (
        <Before exercise={exercise} of={of} />
      )}
    </div>
  )
}

const WHERE = {
  mill: 'At a simulated mill.',
  lathe: 'At a simulated lathe.',
  paper: 'On paper: no machine is needed.',
}

/** What it is about; the clock starts with the key. */
function Before({ exercise, of }: { exercise: Exercise; of: ExerciseState }) {
  const [unit, setUnit] = useState<LengthUnit>('inch')
  return (
    <section className="max-w-xl space-y-4 py-4">
      <h1 className="text-2xl font-semibold">{exercise.title}</h1>
      <p className="text-lg">{exercise.learns}</p>
      <p>
        {WHERE[exercise.machine ?? 'paper']} Each piece is another one. Nothing can be harmed, and nothing is
        counted but how far off you are and the time.
      </p>
      <Choice
        label="Work in"
        value={unit}
        onChange={setUnit}
        options={[
          { value: 'inch', label: 'inch' },
          { value: 'mm', label: 'mm' },
        ]}
      />
      <Button
        look="primary"
        className="min-h-14 w-full text-lg"
        disabled={of.busy}
        onClick={() => of.begin(unit)}
      >
        Start
      </Button>
    </section>
  )
}

type Place = 'machine' | 'program' | LinearAxis

interface UnderWayProps {
  exercise: Exercise
  of: ExerciseState
  state: NonNullable<ExerciseState['state']>
}

function UnderWay({ exercise, of, state }: UnderWayProps) {
  const { unit, seed, machine: id, hints, answers, result } = state
  const task = useMemo(() => exercise.task(seed, unit), [exercise, seed, unit])
  const signed = useSigned()
  const column = (
    <TaskColumn exercise={exercise} task={task} hints={hints} onHint={of.hint} over={result !== null}>
      {result ? (
        <ResultPanel result={result} kept={state.kept} onAgain={(same) => of.begin(unit, same)} />
      ) : (
        <>
          <AnswerForm
            task={task}
            unit={unit}
            answers={answers}
            onAnswer={of.setAnswer}
            onSubmit={() => signed(() => of.submit())}
            busy={of.busy}
          />
          <Button look="quiet" className="-ml-4" onClick={of.leave}>
            Leave it
          </Button>
        </>
      )}
    </TaskColumn>
  )
  if (id === null)
    return (
      <div className="grid max-w-5xl gap-x-8 md:grid-cols-2">
        {column}
        {task.text && <Listing text={task.text} />}
      </div>
    )
  return (
    <div className="grid flex-1 content-start gap-x-5 gap-y-3 md:grid-cols-2 xl:grid-cols-[19rem_1fr_22rem]">
      {column}
      <AtTheMachine
        id={id}
        kind={exercise.machine ?? 'mill'}
        task={task}
        state={state}
        of={of}
        withVise={exercise.id === 'square-vise' || exercise.id === 'both-sides'}
      />
    </div>
  )
}

function AtTheMachine({
  id,
  kind,
  task,
  state,
  of,
  withVise,
}: {
  id: string
  kind: 'mill' | 'lathe'
  task: ReturnType<Exercise['task']>
  state: UnderWayProps['state']
  of: ExerciseState
  withVise: boolean
}) {
  const { unit, seed } = state
  const simulated = useSimulated(id)
  const [place, setPlace] = useState<Place>(task.text ? 'program' : 'machine')
  const practice = useMemo(() => practiceMachine(kind, unit), [kind, unit])
  const source = useMemo<PositionSource>(
    () => ({ id, of: 'simulated', name: 'the machine', unit, leastStep: practice.leastStep }),
    [id, unit, practice],
  )
  const view = simulated.machine?.view
  if (!view)
    return simulated.off ? (
      <div className="space-y-3 py-4">
        <p className="text-lg">
          This machine is switched off: the server was started again, or many others were switched on. What
          you answered is still here.
        </p>
        <Button look="primary" onClick={() => of.begin(unit, seed)}>
          Switch it on with the same piece
        </Button>
      </div>
    ) : (
      <p className="py-4 text-lg">{simulated.error ?? 'Switching it on…'}</p>
    )
  const axes = LINEAR_AXES.filter((axis) => task.form?.methods[axis])
  const method = place === 'machine' || place === 'program' ? undefined : task.form?.methods[place]
  const places: (readonly [Place, string])[] = [
    ...(task.text ? ([['program', 'Program']] as const) : []),
    ['machine', kind === 'mill' ? 'On the table' : 'The bar'],
    ...axes.map((axis) => [axis, `Work out ${axis}`] as const),
  ]
  return (
    <PositionContext.Provider value={source}>
      <div className="order-3 min-w-0 md:col-span-2 xl:order-none xl:col-span-1">
        {simulated.error && (
          <p role="alert" className="font-semibold">
            {simulated.error}
          </p>
        )}
        <InnerTabs label="Parts of the exercise" value={place} places={places} onChange={setPlace}>
          {place === 'machine' && (
            <div className="pt-2">
              {kind === 'mill' ? <TableDrawing view={view} low={withVise} /> : <BarDrawing view={view} />}
              {withVise && <ViseKeys view={view} work={simulated.work} />}
            </div>
          )}
          {place === 'program' && <ProgramRun view={view} work={simulated.work} text={task.text ?? ''} />}
          {task.form && method && place !== 'machine' && place !== 'program' && (
            <WorkOut
              key={`${id}-${place}`}
              form={task.form}
              method={method}
              name={task.fields.find(({ name }) => name === place)?.label ?? place}
              axis={place}
              unit={unit}
              machine={practice}
              piece={id}
              onAnswer={(text) => of.setAnswer(place, text)}
            />
          )}
        </InnerTabs>
      </div>
      <Console view={view} work={simulated.work} />
    </PositionContext.Provider>
  )
}
