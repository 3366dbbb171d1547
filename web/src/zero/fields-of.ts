import type { FieldProblems } from '@dogleg/core/quantity'

interface FieldsOf<Draft> {
  draft: Draft
  change: (next: Draft) => void
  problems: FieldProblems
  lit: keyof Draft | undefined
  onLit: (field: keyof Draft) => void
}

/** What every typed field of a form has: its words, what stands in it, whether its part of the picture is lit, what is wrong with it. */
export const fieldsOf =
  <Draft extends object, Field extends keyof Draft & string>({
    draft,
    change,
    problems,
    lit,
    onLit,
  }: FieldsOf<Draft>) =>
  (name: Field, label: string, hint: string) => {
    const told = problems[name]
    return {
      label,
      hint,
      value: String(draft[name]),
      onChange: (text: string) => change({ ...draft, [name]: text }),
      lit: lit === name,
      onFocus: () => onLit(name),
      ...(told && !told.empty ? { wrong: told.says } : {}),
    }
  }
