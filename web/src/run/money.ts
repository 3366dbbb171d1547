/** Money of the shop, whole. */
export const money = new Intl.NumberFormat('en', { maximumFractionDigits: 0 })
