/** An amount in the shop's currency; nothing but the figure where nobody has said which that is. */
export const money = (v: number, currency: string | null): string =>
  `${Math.round(v).toLocaleString('en').replaceAll(',', '\u202f')} ${currency ?? ''}`.trim()

/** The same where it may not be known. */
export const moneyOrUnknown = (v: number | undefined, currency: string | null): string =>
  v === undefined ? 'not known' : money(v, currency)
