/** Stands where a name was taken out on request. */
export const REMOVED = 'removed on request'
