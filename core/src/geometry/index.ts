export { fitLine, type LineFit, type LinePoint } from './line-fit.ts'
