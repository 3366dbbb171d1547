import type { OwnCode, Profile, profile as profileSchema } from '@dogleg/core/control'
import { Plus, Trash2 } from 'lucide-react'
import { useEffect, useRef } from 'react'
import {
  type Control,
  type FieldErrors,
  type UseFormRegister,
  type UseFormReturn,
  useFieldArray,
  useWatch,
} from 'react-hook-form'
import type { z } from 'zod'
import { operator } from '../log/operator.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { Button } from '../ui/button.tsx'
import { AreaField, CheckField, Field, SelectField, Wrong } from './form-fields.tsx'

type Draft = z.input<typeof profileSchema>

interface OwnCodesSectionProps {
  control: Control<Draft, unknown, Profile>
  register: UseFormRegister<Draft>
  errors: FieldErrors<Draft>['ownCodes']
  /** The code whose line is shown first. */
  asked: string | undefined
}

/** As the reader names it: M7, not m07. */
const asCode = (typed: string) =>
  typed
    .trim()
    .toUpperCase()
    .replace(/^([GMO])0+(?=\d)/, '$1')

const newCode = (code: string): OwnCode => ({
  code,
  on: 'both',
  says: '',
  by: operator(),
  does: 'harmless',
  seconds: 0,
})

/** The same code, said to do something else. */
function doing({ code, on, says }: OwnCode, does: OwnCode['does']): OwnCode {
  const same = { code, on, says, by: operator() }
  if (does === 'harmless') return { ...same, does, seconds: 0 }
  return does === 'call' ? { ...same, does, text: '', modal: false } : { ...same, does }
}

/** Begins a line for a code that Prove did not know, unless there is one. */
export function useAskedCode(
  asked: string | undefined,
  { getValues, setValue }: UseFormReturn<Draft, unknown, Profile>,
) {
  const signed = useSigned()
  const begun = useRef<string>(undefined)
  useEffect(() => {
    if (asked === undefined || begun.current === asked) return
    begun.current = asked
    const codes = getValues('ownCodes') ?? []
    if (codes.some(({ code }) => code === asked)) return
    signed(() => setValue('ownCodes', [...codes, newCode(asked)], { shouldDirty: true }))
  }, [asked, signed, getValues, setValue])
}

/** What the machine's own codes do, on somebody's word: those that the reader cannot know. */
export function OwnCodesSection({ control, register, errors, asked }: OwnCodesSectionProps) {
  const { fields, append, remove, update } = useFieldArray({ control, name: 'ownCodes' })
  const codes = useWatch({ control, name: 'ownCodes' }) as OwnCode[]
  const signed = useSigned()
  return (
    <fieldset className="border-t border-rule pt-2 pb-4">
      <legend className="pr-3 text-lg font-semibold">The machine’s own codes</legend>
      <p className="text-sm text-ink-soft">
        A G or M code, or a program by its O number, that Prove does not know stops the proof: it may move
        something. What is said here is taken on your word, and the proof keeps whose it was.
      </p>
      <ul className="space-y-1">
        {fields.map(({ id }, index) => {
          const own = codes[index]
          return own ? (
            <OwnCodeLine
              key={id}
              own={own}
              index={index}
              register={register}
              wrong={errors?.[index]}
              isAsked={asked !== undefined && own.code === asked}
              onDoes={(does) => update(index, doing(own, does))}
              onRemove={() => remove(index)}
            />
          ) : null
        })}
      </ul>
      <Wrong says={errors?.message ?? errors?.root?.message} />
      <Button
        className="mt-2"
        onClick={() => signed(() => append(newCode('')))}
        disabled={fields.length >= 100}
      >
        <Plus aria-hidden size={20} /> Another code
      </Button>
    </fieldset>
  )
}

function OwnCodeLine({
  own,
  index,
  register,
  wrong,
  isAsked,
  onDoes,
  onRemove,
}: {
  own: OwnCode
  index: number
  register: UseFormRegister<Draft>
  wrong: NonNullable<FieldErrors<Draft>['ownCodes']>[number]
  /** It is what the page was opened for. */
  isAsked: boolean
  onDoes: (does: OwnCode['does']) => void
  onRemove: () => void
}) {
  const at = `ownCodes.${index}` as const
  const said = wrong as
    | Partial<Record<'code' | 'seconds' | 'text' | 'says', { message?: string }>>
    | undefined
  const line = useRef<HTMLLIElement>(null)
  useEffect(() => {
    if (isAsked) line.current?.scrollIntoView?.({ block: 'center' })
  }, [isAsked])
  return (
    <li
      ref={line}
      className="grid grid-cols-2 gap-x-3 gap-y-1 border-t border-rule py-1 md:grid-cols-[5rem_6rem_1fr_4rem_3rem]"
    >
      <Field
        label="Code"
        placeholder="M51"
        {...register(`${at}.code`, { setValueAs: asCode })}
        wrong={said?.code?.message}
      />
      <SelectField label="On" {...register(`${at}.on`)}>
        <option value="both">both</option>
        <option value="mill">mills</option>
        <option value="lathe">lathes</option>
      </SelectField>
      <SelectField
        label="What it is"
        value={own.does}
        onChange={({ target }) => onDoes(target.value as OwnCode['does'])}
      >
        <option value="harmless">moves nothing</option>
        <option value="stop">a stop</option>
        <option value="call">runs a program</option>
        <option value="not-allowed">not allowed</option>
      </SelectField>
      {own.does === 'harmless' ? (
        <Field
          label="Seconds"
          type="number"
          step="any"
          {...register(`${at}.seconds`, { valueAsNumber: true })}
          wrong={said?.seconds?.message}
        />
      ) : (
        <span aria-hidden />
      )}
      <Button
        look="quiet"
        className="self-end px-2"
        aria-label={`Take ${own.code || 'it'} out`}
        onClick={onRemove}
      >
        <Trash2 aria-hidden size={20} />
      </Button>
      <Field
        label="What it does"
        className="col-span-2 md:col-span-3"
        {...register(`${at}.says`)}
        wrong={said?.says?.message}
      />
      <p className="col-span-full self-end pb-1 text-sm text-ink-soft md:col-span-2">
        {own.by ? `On the word of ${own.by}.` : 'Usual for this kind of control: check the manual.'}
      </p>
      {own.does === 'call' && own.code.startsWith('G') && (
        <div className="col-span-full">
          <CheckField label="After every move from there on, until G67" {...register(`${at}.modal`)} />
        </div>
      )}
      {own.does === 'call' && (
        <AreaField
          label="The text of the program that it runs; its line’s words are its arguments"
          rows={5}
          spellCheck={false}
          className="col-span-full"
          {...register(`${at}.text`)}
          wrong={said?.text?.message}
        />
      )}
    </li>
  )
}
