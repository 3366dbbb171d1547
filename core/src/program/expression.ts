/** What an expression can look at: the value of a variable, NaN where it was never set. */
export interface Variables {
  get: (number: number) => number
}

export interface Evaluated {
  /** NaN for a variable that was never set. */
  value: number
  /** Where reading stopped, in the source. */
  end: number
  /** What is wrong, in a sentence; the value is then 0. */
  wrong?: string
}

/** Brackets deeper than this are not followed. Controls take five or so. */
const DEEPEST = 64

const DEGREE = Math.PI / 180
/** Values nearer to each other than this are equal to a control's macro language. From memory; common practice. */
const EQUAL = 1e-12

const orZero = (value: number) => (Number.isNaN(value) ? 0 : value)
const truth = (is: boolean) => (is ? 1 : 0)

const FUNCTIONS: Record<string, (of: number) => number> = {
  SIN: (of) => Math.sin(of * DEGREE),
  COS: (of) => Math.cos(of * DEGREE),
  TAN: (of) => Math.tan(of * DEGREE),
  ASIN: (of) => Math.asin(of) / DEGREE,
  ACOS: (of) => Math.acos(of) / DEGREE,
  ATAN: (of) => Math.atan(of) / DEGREE,
  SQRT: Math.sqrt,
  ABS: Math.abs,
  ROUND: (of) => Math.sign(of) * Math.round(Math.abs(of)),
  FIX: Math.trunc,
  FUP: (of) => Math.sign(of) * Math.ceil(Math.abs(of)),
  LN: Math.log,
  EXP: Math.exp,
  BIN: (of) => of,
  BCD: (of) => of,
}

/** From the loosest to the tightest. Common practice of macro languages; RS274/NGC 3.3.2.3 has the same order. */
const LEVELS: readonly (readonly string[])[] = [
  ['AND', 'OR', 'XOR'],
  ['EQ', 'NE', 'GT', 'GE', 'LT', 'LE'],
  ['+', '-'],
  ['*', '/', 'MOD'],
  ['**'],
]

/** Two values, or none: a variable that was never set equals only another such, and is less than nothing. */
function same(a: number, b: number) {
  if (Number.isNaN(a) || Number.isNaN(b)) return Number.isNaN(a) && Number.isNaN(b)
  return Math.abs(a - b) <= EQUAL * Math.max(1, Math.abs(a), Math.abs(b))
}

function apply(by: string, left: number, right: number): number {
  const [a, b] = [orZero(left), orZero(right)]
  switch (by) {
    case '+':
      return a + b
    case '-':
      return a - b
    case '*':
      return a * b
    case '/':
      return a / b
    case 'MOD':
      return a - b * Math.floor(a / b)
    case '**':
      return a ** b
    case 'AND':
      return truth(a !== 0 && b !== 0)
    case 'OR':
      return truth(a !== 0 || b !== 0)
    case 'XOR':
      return truth((a !== 0) !== (b !== 0))
    case 'EQ':
      return truth(same(left, right))
    case 'NE':
      return truth(!same(left, right))
    case 'GT':
      return truth(a > b && !same(a, b))
    case 'GE':
      return truth(a > b || same(a, b))
    case 'LT':
      return truth(a < b && !same(a, b))
    default:
      return truth(a < b || same(a, b))
  }
}

/**
 * Evaluates a macro expression or operand that begins at `at`: `[#1 + 2] * 3` stands in brackets, `#101`, `-#[#1+2]`,
 * `12.5`, `SIN[30]` (angles in degrees), `ATAN[1]/[2]`. Never throws: what is wrong is said, and the value is 0.
 */
export function evaluate(source: string, at: number, variables: Variables): Evaluated {
  let i = at
  let depth = 0
  let wrong: string | undefined

  const fail = (says: string) => {
    wrong ??= says
    return 0
  }
  const blank = () => {
    while (i < source.length && source.charCodeAt(i) <= 32) i++
  }
  const word = () => {
    blank()
    const first = source.charCodeAt(i) | 32
    if (first < 97 || first > 122) return ''
    return /^[A-Za-z]+/.exec(source.slice(i, i + 6))?.[0].toUpperCase() ?? ''
  }
  const operator = (among: readonly string[]): string | undefined => {
    blank()
    const named = word()
    if (named) return among.includes(named) ? named : undefined
    const sign = source[i] === '*' && source[i + 1] === '*' ? '**' : source[i]
    return sign && among.includes(sign) ? sign : undefined
  }
  const checked = (value: number, says: string) => (Number.isFinite(value) ? value : fail(says))

  function bracketed(): number {
    blank()
    if (source[i] !== '[') return fail(`A bracket [ is missing at "${source.slice(i, i + 12)}".`)
    if (++depth > DEEPEST) return fail(`Brackets stand in each other more than ${DEEPEST} deep.`)
    i++
    const value = level(0)
    blank()
    if (source[i] !== ']') return fail('A bracket ] is missing.')
    i++
    depth--
    return value
  }

  function operand(): number {
    blank()
    if (wrong) return 0
    const next = source[i]
    if (next === '-' || next === '+') {
      i++
      if (++depth > DEEPEST) return fail('Too many signs in a row.')
      const value = operand()
      depth--
      return next === '-' ? -orZero(value) : value
    }
    if (next === '[') return bracketed()
    if (next === '#') {
      i++
      if (++depth > DEEPEST) return fail('Too many # in a row.')
      const number = operand()
      depth--
      if (wrong) return 0
      if (Number.isNaN(number)) return fail('The number of a variable is itself not set.')
      return variables.get(Math.round(number))
    }
    const number = /^(?:\d+\.?\d*|\.\d+)/.exec(source.slice(i, i + 40))?.[0]
    if (number) {
      i += number.length
      return Number(number)
    }
    const named = word()
    const known = FUNCTIONS[named]
    if (!known)
      return fail(
        named
          ? `${named} is not a function of the macro language.`
          : `A number is missing at "${source.slice(i, i + 12)}".`,
      )
    i += named.length
    const argument = orZero(bracketed())
    if (wrong) return 0
    if (named === 'ATAN') {
      blank()
      if (source[i] === '/') {
        const before = i
        i++
        blank()
        if (source[i] === '[') return Math.atan2(argument, orZero(bracketed())) / DEGREE
        i = before
      }
    }
    return checked(known(argument), `${named} of ${argument} has no value: the control stops with an alarm.`)
  }

  function level(tightness: number): number {
    const among = LEVELS[tightness]
    if (!among) return operand()
    let left = level(tightness + 1)
    for (let by = operator(among); by && !wrong; by = operator(among)) {
      i += by.length
      const right = level(tightness + 1)
      if ((by === '/' || by === 'MOD') && !wrong && orZero(right) === 0)
        return fail('Division by zero: the control stops with an alarm.')
      left = checked(apply(by, left, right), 'The result is too large, or has no value.')
    }
    return left
  }

  const value = operand()
  return wrong ? { value: 0, end: i, wrong } : { value, end: i }
}
