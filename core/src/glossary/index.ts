export { searchTerms, termsIn } from './find.ts'
export { TERMS, type Term } from './terms.ts'
