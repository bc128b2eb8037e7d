/** What may stand in a patch; null takes away. */
export type PatchValue = null | boolean | number | string | PatchValue[] | Patch
export interface Patch {
  [name: string]: PatchValue
}

/** Drives of one sheet that differ in a few figures or parts: early and late, by their serial numbers. */
export interface Variant {
  id: string
  label: string
  /** First and last serial number; a side that is left out is open. */
  fromSerial?: string
  toSerial?: string
  /** What differs: a merge patch on the sheet (RFC 7396), rows of lists by their ids. */
  patch: Patch
}
