import {
  type Profile,
  profile as profileSchema,
  USUAL_MACRO_LANGUAGE,
  USUAL_SETTING,
} from '@dogleg/core/control'
import type { Machine } from '@dogleg/core/machine'
import { writeLoad } from '@dogleg/core/pickup'
import { zodResolver } from '@hookform/resolvers/zod'
import { type FieldError, useForm, useWatch } from 'react-hook-form'
import { useLocation } from 'react-router'
import type { z } from 'zod'
import { useRows } from '../log/rows.ts'
import { Listing } from '../program/listing.tsx'
import { CompensationSection } from '../reference/compensation-section.tsx'
import { DrivenSection } from '../reference/driven-section.tsx'
import { EditorEnd } from '../reference/editor-end.tsx'
import { AreaField, CheckField, Field, Section, SelectField, Wrong } from '../reference/form-fields.tsx'
import { MacrosSection } from '../reference/macros-section.tsx'
import { OwnCodesSection, useAskedCode } from '../reference/own-codes-section.tsx'
import { ProbingSection, USUAL_PROBING } from '../reference/probing-section.tsx'
import { ReadingSection } from '../reference/reading-section.tsx'
import { RowsPage } from '../reference/rows-page.tsx'
import { SettingSection } from '../reference/setting-section.tsx'
import { useSave } from '../reference/use-save.ts'
import { WaysSection } from '../reference/ways-section.tsx'
import { Findings } from '../ui/verdict.tsx'

/** The profiles: how each kind of control wants things written, with what it comes to beside it. */
export const ProfilesPage = () => (
  <RowsPage
    noun="profiles"
    aside={
      <p className="mt-4 text-sm text-ink-soft">
        Every value is a default. Check it against the manual of the control in hand, and note where the
        setting lives.
      </p>
    }
    editor={(profile) => <ProfileEditor key={`${profile.id}-${profile.version}`} profile={profile} />}
  />
)

function Preview({ profile, machine }: { profile: Profile; machine: Machine }) {
  const written = writeLoad(
    {
      offset: profile.offsets.standard[0] ?? 'G54',
      unit: machine.unit,
      axes: {
        X: { value: machine.axes.X.least / 2, about: 'sample' },
        Y: { value: (machine.axes.Y?.least ?? 0) / 3, about: 'sample' },
        Z: { value: machine.axes.Z.least * 0.75, about: 'sample' },
      },
      about: ['Sample values.'],
    },
    profile,
    machine,
  )
  return written.ok ? <Listing text={written.text} /> : <Findings findings={written.findings} />
}

const asNumber = { valueAsNumber: true }

/** A code that Prove did not know, where the page was opened to say what it is. */
function askedIn(state: unknown): string | undefined {
  if (typeof state !== 'object' || state === null || !('own' in state)) return undefined
  return typeof state.own === 'string' ? state.own : undefined
}

function ProfileEditor({ profile }: { profile: Profile }) {
  const asked = askedIn(useLocation().state)
  const { data: machines = [] } = useRows('machines')
  const mills = machines.filter(({ kind }) => kind === 'mill')
  /** The machine of the preview; none, no preview. */
  const mill = mills.find(({ profileId }) => profileId === profile.id) ?? mills[0]
  const { save, copy, onTheirs } = useSave('profiles')
  const form = useForm<z.input<typeof profileSchema>, unknown, Profile>({
    defaultValues: profile,
    resolver: zodResolver(profileSchema),
    mode: 'onChange',
  })
  const { register, handleSubmit, formState, control, setValue } = form
  useAskedCode(asked, form)
  const { errors } = formState
  const draft = useWatch({ control }) as Profile
  const read = profileSchema.safeParse(draft)
  /** To be called only where the section is there: a field that is registered brings its section into being. */
  const notes = (
    section: { note?: FieldError } | undefined,
    name:
      | `${'numbers' | 'comments' | 'blocks' | 'program' | 'offsets' | 'clearUp'}.note`
      | `${'loadOffset' | 'rotation' | 'probing' | 'setting' | 'macros' | 'reading'}.note`,
  ) => (
    <Field
      label="Where this is set on the control, what its manual says"
      {...register(name)}
      wrong={section?.note?.message}
      className="col-span-full"
    />
  )
  return (
    <div className="grid gap-6 xl:grid-cols-[1fr_28rem]">
      <form onSubmit={handleSubmit((row) => save.mutate({ row }))} noValidate>
        <Section title="Name">
          <Field
            label="By trait, not by maker"
            {...register('name')}
            wrong={errors.name?.message}
            className="col-span-2"
          />
        </Section>
        <Section title="Numbers">
          <Field
            label="Digits, inch"
            type="number"
            {...register('numbers.inchDigits', asNumber)}
            wrong={errors.numbers?.inchDigits?.message}
          />
          <Field
            label="Digits, mm"
            type="number"
            {...register('numbers.mmDigits', asNumber)}
            wrong={errors.numbers?.mmDigits?.message}
          />
          <CheckField label="0.5, not .5" {...register('numbers.leadingZero')} />
          <CheckField label="Zeros at the end" {...register('numbers.trailingZeros')} />
          {notes(errors.numbers, 'numbers.note')}
        </Section>
        <Section title="Work offsets">
          <Field
            label="Standard, in order"
            className="col-span-2"
            defaultValue={profile.offsets.standard.join(' ')}
            onChange={(event) =>
              setValue('offsets.standard', event.target.value.toUpperCase().split(/[ ,]+/).filter(Boolean), {
                shouldDirty: true,
                shouldValidate: true,
              })
            }
            wrong={
              errors.offsets?.standard?.message ?? errors.offsets?.standard?.find?.((each) => each)?.message
            }
          />
          {draft.offsets?.extended ? (
            <>
              <Field
                label="Further ones by"
                {...register('offsets.extended.code')}
                wrong={errors.offsets?.extended?.code?.message}
              />
              <Field
                label="P1 up to"
                type="number"
                {...register('offsets.extended.count', asNumber)}
                wrong={errors.offsets?.extended?.count?.message}
              />
            </>
          ) : (
            <p className="col-span-2 self-center text-ink-soft">No further offsets.</p>
          )}
          <CheckField
            label="Has further offsets"
            checked={draft.offsets?.extended !== null}
            onChange={(event) =>
              setValue('offsets.extended', event.target.checked ? { code: 'G54.1', count: 48 } : null, {
                shouldDirty: true,
                shouldValidate: true,
              })
            }
          />
          {notes(errors.offsets, 'offsets.note')}
        </Section>
        <Section title="Loading an offset from a program">
          <CheckField
            label="The control can"
            checked={draft.loadOffset !== null}
            onChange={(event) =>
              setValue(
                'loadOffset',
                event.target.checked ? { code: 'G10', standardL: 2, extendedL: 20, note: '' } : null,
                { shouldDirty: true, shouldValidate: true },
              )
            }
          />
          {draft.loadOffset && (
            <>
              <Field label="Code" {...register('loadOffset.code')} wrong={errors.loadOffset?.code?.message} />
              <Field
                label="L, standard"
                type="number"
                {...register('loadOffset.standardL', asNumber)}
                wrong={errors.loadOffset?.standardL?.message}
              />
              <Field
                label="L, further"
                type="number"
                {...register('loadOffset.extendedL', asNumber)}
                wrong={errors.loadOffset?.extendedL?.message}
              />
              {notes(errors.loadOffset, 'loadOffset.note')}
            </>
          )}
        </Section>
        <Section title="Spindle up before moving sideways">
          <SelectField label="By" {...register('clearUp.way')} className="col-span-2">
            <option value="machine-position">machine position, G53</option>
            <option value="home-return">home return, G28</option>
          </SelectField>
          {notes(errors.clearUp, 'clearUp.note')}
        </Section>
        <Section title="Turning the program about a point">
          <CheckField
            label="Has a code for it"
            checked={Boolean(draft.rotation)}
            onChange={(event) =>
              setValue('rotation', event.target.checked ? { on: 'G68', off: 'G69', note: '' } : null, {
                shouldDirty: true,
                shouldValidate: true,
              })
            }
          />
          {draft.rotation && (
            <>
              <Field label="On" {...register('rotation.on')} wrong={errors.rotation?.on?.message} />
              <Field label="Off" {...register('rotation.off')} wrong={errors.rotation?.off?.message} />
              {notes(errors.rotation, 'rotation.note')}
            </>
          )}
        </Section>
        <ProbingSection
          probing={draft.probing}
          errors={errors.probing}
          register={register}
          onHas={(has) =>
            setValue('probing', has ? USUAL_PROBING : null, { shouldDirty: true, shouldValidate: true })
          }
          note={draft.probing && notes(errors.probing, 'probing.note')}
        />
        <SettingSection
          setting={draft.setting}
          errors={errors.setting}
          register={register}
          onHas={(has) =>
            setValue('setting', has ? USUAL_SETTING : null, { shouldDirty: true, shouldValidate: true })
          }
          note={draft.setting && notes(errors.setting, 'setting.note')}
        />
        <MacrosSection
          macros={draft.macros}
          errors={errors.macros}
          register={register}
          onHas={(has) =>
            setValue('macros', has ? USUAL_MACRO_LANGUAGE : null, { shouldDirty: true, shouldValidate: true })
          }
          note={draft.macros && notes(errors.macros, 'macros.note')}
        />
        <ReadingSection
          reading={draft.reading}
          errors={errors.reading}
          register={register}
          setValue={setValue}
          note={notes(errors.reading, 'reading.note')}
        />
        {draft.reading && (
          <WaysSection
            positions={draft.reading.positions}
            errors={errors.reading?.positions}
            register={register}
            setValue={setValue}
          />
        )}
        {draft.reading && (
          <DrivenSection
            driven={draft.reading.driven}
            errors={errors.reading?.driven}
            register={register}
            setValue={setValue}
          />
        )}
        <CompensationSection errors={errors.reading?.compensation} register={register} />
        <OwnCodesSection control={control} register={register} errors={errors.ownCodes} asked={asked} />
        <Section title="Blocks and comments">
          <CheckField label="Number the blocks" {...register('blocks.numbered')} />
          <Field
            label="In steps of"
            type="number"
            {...register('blocks.step', asNumber)}
            wrong={errors.blocks?.step?.message}
          />
          <SelectField label="Comments in" {...register('comments.style')}>
            <option value="parentheses">( )</option>
            <option value="semicolon">;</option>
          </SelectField>
          <Field
            label="Longest comment"
            type="number"
            {...register('comments.longest', asNumber)}
            wrong={errors.comments?.longest?.message}
          />
          <SelectField label="Comments on" {...register('comments.amount')} className="col-span-2">
            <option value="every-block">every block</option>
            <option value="head-only">the heading only</option>
          </SelectField>
          {notes(errors.comments, 'comments.note')}
        </Section>
        <Section title="Program number">
          <Field
            label="O number"
            type="number"
            {...register('program.number', asNumber)}
            wrong={errors.program?.number?.message}
          />
          <Field
            label="Digits"
            type="number"
            {...register('program.digits', asNumber)}
            wrong={errors.program?.digits?.message}
          />
          <CheckField label="% before and after" {...register('program.percentSigns')} />
          <AreaField
            label="Done at the control before cycle start, a line each; {program} is its number"
            rows={4}
            {...register('program.before')}
            wrong={errors.program?.before?.message}
            className="col-span-full"
          />
          {notes(errors.program, 'program.note')}
        </Section>
        {!read.success && <Wrong says="Something above is not right yet; nothing is saved." />}
        <EditorEnd
          noun="profile"
          save={save}
          dirty={formState.isDirty}
          version={profile.version}
          onCopy={() => copy(profile)}
          onTheirs={onTheirs}
        />
      </form>
      <section aria-label="Preview" className="space-y-2">
        <h2 className="text-lg font-semibold">What it comes to</h2>
        {!read.success && <p>Correct the fields first.</p>}
        {read.success && mill && <Preview profile={read.data} machine={mill} />}
      </section>
    </div>
  )
}
