/** The moment at which every test happens. */
export const NOW = new Date('2026-11-20T08:00:00Z')
