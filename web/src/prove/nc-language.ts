import { HighlightStyle, StreamLanguage, syntaxHighlighting } from '@codemirror/language'
import { tags } from '@lezer/highlight'

/** Words of an NC program, one at a time (ISO 6983-1 words, macro statements). */
const language = StreamLanguage.define({
  name: 'nc',
  token(stream) {
    if (stream.eatSpace()) return null
    if (stream.match(/^\([^)]*\)?/) || stream.match(/^;.*/)) return 'comment'
    if (stream.match(/^(?:IF|WHILE|GOTO|THEN|DO|END|AND|OR|XOR|MOD|EQ|NE|G[TE]|L[TE])(?![a-z]*\d)/i))
      return 'keyword'
    if (stream.match(/^(?:A?SIN|A?COS|A?TAN|SQRT|ABS|ROUND|FIX|FUP|LN|EXP)(?=\[)/i)) return 'keyword'
    if (stream.match(/^#\d*/)) return 'variableName'
    if (stream.match(/^[gG]\s*\d+(?:\.\d)?/)) return 'atom'
    if (stream.match(/^[mM]\s*\d+/)) return 'atom'
    if (stream.match(/^[nNoO:]\s*\d+/)) return 'meta'
    if (stream.match(/^[tThHdD]\s*\d+/)) return 'labelName'
    if (stream.match(/^[fFsS]\s*[-+\d.]+/)) return 'number'
    stream.next()
    return null
  },
})

/** Ink of different weight rather than of many colours; layout blue for what decides how it moves. */
const look = HighlightStyle.define([
  { tag: tags.comment, color: 'var(--color-ink-soft)', fontStyle: 'italic' },
  { tag: tags.atom, color: 'var(--color-layout)', fontWeight: '600' },
  { tag: tags.keyword, color: 'var(--color-layout-deep)', fontWeight: '600' },
  { tag: tags.variableName, color: 'var(--color-layout-deep)' },
  { tag: tags.meta, color: 'var(--color-ink-soft)' },
  { tag: tags.labelName, fontWeight: '600' },
  { tag: tags.number, textDecoration: 'none' },
])

export const ncLanguage = [language, syntaxHighlighting(look)]
