import { LINEAR_AXES, type Machine, type MachineKind, USUAL_RAPID_MARKS } from '@dogleg/core/machine'
import { unitSymbol } from '@dogleg/core/quantity'
import { FormProvider, useForm } from 'react-hook-form'
import { useRowsInForce } from '../log/rows.ts'
import { AboveSection } from '../reference/above-section.tsx'
import { AroundSection } from '../reference/around-section.tsx'
import {
  CostsSection,
  DynamicsSection,
  PalletsSection,
  RotarySection,
} from '../reference/dynamics-section.tsx'
import { EditorFoot } from '../reference/editor-foot.tsx'
import { CheckField, Field, Section, SelectField } from '../reference/form-fields.tsx'
import { MACHINE_NUMBERS, type MachineForm, machineResolver } from '../reference/machine-form.ts'
import { PositionsSection } from '../reference/positions-section.tsx'
import { ReadyListSection } from '../reference/ready-list-section.tsx'
import { RowsPage } from '../reference/rows-page.tsx'
import { toTyped } from '../reference/typed-form.ts'
import { UnitField } from '../reference/unit-field.tsx'
import { useSave } from '../reference/use-save.ts'

/** The machines of the shop: travels, home, what stands round the table, the walk-round, and the profile that each one speaks. */
export const MachinesPage = () => (
  <RowsPage
    noun="machines"
    editor={(machine) => <MachineEditor key={`${machine.id}-${machine.version}`} machine={machine} />}
  />
)

/** Rapids still to be typed; a lathe has none in Y. */
const noRapids = (kind: MachineKind) => ({ X: '', Y: kind === 'mill' ? '' : null, Z: '' })

const NO_PROBE = { tool: '', stylus: '', reach: '', body: '', overtravel: '' }
const PROBE_FIELDS = [
  ['tool', 'Tool number'],
  ['stylus', 'Stylus, effective diameter'],
  ['reach', 'Body down to the ball'],
  ['body', 'Body, diameter'],
  ['overtravel', 'Overtravel'],
] as const

function MachineEditor({ machine }: { machine: Machine }) {
  const { save, copy, onTheirs } = useSave('machines')
  const form = useForm<MachineForm, unknown, Machine>({
    defaultValues: toTyped(machine, MACHINE_NUMBERS),
    resolver: machineResolver,
    mode: 'onTouched',
  })
  const { register, handleSubmit, formState, watch, setValue } = form
  const { errors } = formState
  const [unit, kind, secondHome, rapids, probe, profileId, xSpeeds] = watch([
    'unit',
    'kind',
    'secondHome',
    'rapids',
    'probe',
    'profileId',
    'xSpeeds',
  ])
  const profiles = useRowsInForce('profiles', profileId)
  const symbol = unitSymbol(unit)
  const axes = LINEAR_AXES.filter((axis) => kind === 'mill' || axis !== 'Y')
  const kindField = register('kind')
  return (
    <FormProvider {...form}>
      <form className="max-w-4xl" onSubmit={handleSubmit((row) => save.mutate({ row }))} noValidate>
        <Section title="What it is">
          <Field label="Name" {...register('name')} wrong={errors.name?.message} className="col-span-2" />
          <SelectField
            label="Kind"
            {...kindField}
            onChange={(event) => {
              const mill = event.target.value === 'mill'
              setValue('axes.Y', mill ? { least: '', greatest: '0' } : null, { shouldDirty: true })
              if (rapids) setValue('rapids.Y', mill ? '' : null, { shouldDirty: true })
              if (!mill) setValue('around', null, { shouldDirty: true })
              setValue('dynamics', null, { shouldDirty: true })
              setValue('secondHome', null, { shouldDirty: true })
              if (!mill) setValue('probe', null, { shouldDirty: true })
              if (!mill) setValue('pallets', null, { shouldDirty: true })
              setValue(mill ? 'turret' : 'head', null, { shouldDirty: true })
              if (mill) setValue('xSpeeds', null, { shouldDirty: true })
              return kindField.onChange(event)
            }}
          >
            <option value="mill">mill</option>
            <option value="lathe">lathe</option>
          </SelectField>
          <UnitField<MachineForm>
            label="Position display is in"
            of="this machine"
            name="unit"
            numbers={MACHINE_NUMBERS}
          />
          <Field
            label={`Last digit of the display, ${symbol}`}
            digits
            {...register('leastStep')}
            wrong={errors.leastStep?.message}
          />
          {/* Its list may come later than the form: by its value it shows the machine's own, and not the first. */}
          <SelectField label="The control speaks" {...register('profileId')} value={profileId}>
            {profiles.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </SelectField>
          <SelectField label="Tool lengths are measured" {...register('toolLengths')} className="col-span-2">
            <option value="gauge-line">from the gauge line</option>
            <option value="master-tool">against a master tool</option>
          </SelectField>
        </Section>
        <Section title="Travels and home, in machine positions">
          {axes.map((axis) => (
            <div key={axis} className="col-span-full grid grid-cols-3 gap-x-4">
              <Field
                label={`${axis} lowest, ${symbol}`}
                digits
                {...register(`axes.${axis}.least`)}
                wrong={errors.axes?.[axis]?.least?.message}
              />
              <Field
                label={`${axis} highest, ${symbol}`}
                digits
                {...register(`axes.${axis}.greatest`)}
                wrong={errors.axes?.[axis]?.greatest?.message}
              />
              <Field
                label={`${axis} shows at home, ${symbol}`}
                digits
                {...register(`home.${axis}`)}
                wrong={errors.home?.[axis]?.message}
              />
            </div>
          ))}
          <div className="col-span-full">
            <CheckField
              label="Second home known: where G30 goes"
              checked={secondHome !== null}
              onChange={({ target }) =>
                setValue(
                  'secondHome',
                  target.checked ? { X: '', Y: kind === 'mill' ? '' : '0', Z: '' } : null,
                  { shouldDirty: true },
                )
              }
            />
          </div>
          {secondHome &&
            axes.map((axis) => (
              <Field
                key={axis}
                label={`${axis} at the second home, ${symbol}`}
                digits
                {...register(`secondHome.${axis}`)}
                wrong={errors.secondHome?.[axis]?.message}
              />
            ))}
          {kind === 'mill' && (
            <div className="col-span-full">
              <CheckField label="The table moves in X, the spindle stands" {...register('tableMoves.X')} />
              <CheckField label="The table moves in Y, the spindle stands" {...register('tableMoves.Y')} />
            </div>
          )}
        </Section>
        <Section title="Rapids at 100 %">
          <div className="col-span-full">
            <CheckField
              label="Known: the override advice says how far an axis goes in a second"
              checked={rapids !== null}
              onChange={({ target }) =>
                setValue('rapids', target.checked ? noRapids(kind) : null, { shouldDirty: true })
              }
            />
          </div>
          {rapids &&
            axes.map((axis) => (
              <Field
                key={axis}
                label={`${axis}, ${symbol}/min`}
                digits
                {...register(`rapids.${axis}`)}
                wrong={errors.rapids?.[axis]?.message}
              />
            ))}
          <Field
            label="Marks of the rapid override, %"
            digits
            defaultValue={(machine.rapidMarks ?? []).join(' ')}
            placeholder={USUAL_RAPID_MARKS.join(' ')}
            onChange={({ target }) => {
              const marks = target.value.split(/[ ,;]+/).filter(Boolean)
              setValue('rapidMarks', marks.length > 0 ? marks : null, {
                shouldDirty: true,
                shouldValidate: true,
              })
            }}
            wrong={errors.rapidMarks?.message ?? errors.rapidMarks?.find?.((each) => each)?.message}
          />
          {rapids && kind === 'lathe' && (
            <SelectField
              label="Speeds of X, here and below, are"
              {...register('xSpeeds', { setValueAs: (value) => value || null })}
              value={xSpeeds ?? ''}
              className="col-span-2"
            >
              <option value="">not known: taken as the slide’s</option>
              <option value="slide">the slide’s</option>
              <option value="diameter">of the diameter, twice the slide’s</option>
            </SelectField>
          )}
        </Section>
        <DynamicsSection kind={kind} symbol={symbol} />
        <AboveSection kind={kind} symbol={symbol} />
        {kind === 'mill' && <RotarySection />}
        {kind === 'mill' && <PalletsSection />}
        <CostsSection />
        {kind === 'mill' && (
          <Section title="Probe">
            <div className="col-span-full">
              <CheckField
                label="It has one: probe calls can be written, and the body is checked against the part"
                checked={probe !== null}
                onChange={({ target }) =>
                  setValue('probe', target.checked ? NO_PROBE : null, { shouldDirty: true })
                }
              />
            </div>
            {probe &&
              PROBE_FIELDS.map(([name, label]) => (
                <Field
                  key={name}
                  label={name === 'tool' ? label : `${label}, ${symbol}`}
                  digits
                  {...register(`probe.${name}`)}
                  wrong={errors.probe?.[name]?.message}
                />
              ))}
          </Section>
        )}
        <PositionsSection id={machine.id} kind={kind} />
        {kind === 'mill' && <AroundSection symbol={symbol} />}
        <ReadyListSection />
        <EditorFoot
          noun="machine"
          save={save}
          version={machine.version}
          onCopy={() => copy(machine)}
          onTheirs={onTheirs}
        />
      </form>
    </FormProvider>
  )
}
