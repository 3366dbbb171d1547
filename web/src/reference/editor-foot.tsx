import { useFormContext } from 'react-hook-form'
import { EditorEnd } from './editor-end.tsx'
import { Field, Section } from './form-fields.tsx'

type EditorFootProps = Omit<Parameters<typeof EditorEnd>[0], 'dirty'>

/** The note that a row carries, and the foot of its editor. */
export function EditorFoot(props: EditorFootProps) {
  const { register, formState } = useFormContext<{ note: string }>()
  return (
    <>
      <Section title="Note">
        <Field
          label="What the next person should know about it"
          {...register('note')}
          wrong={formState.errors.note?.message}
          className="col-span-full"
        />
      </Section>
      <EditorEnd {...props} dirty={formState.isDirty} />
    </>
  )
}
