import { USUAL_WAYS, type ShopRules, type ShopWays } from '@moray/core/job/record'

/** Rows of `setting` that say how the shop works; what is not there is as usual. */
export type StoredWays = Partial<Omit<ShopWays, 'rules'> & { rules: Partial<ShopRules> }>

export const waysOf = (stored: StoredWays): ShopWays => ({
  schools: stored.schools ?? USUAL_WAYS.schools,
  rules: { ...USUAL_WAYS.rules, ...stored.rules },
  stands: stored.stands ?? USUAL_WAYS.stands,
})
