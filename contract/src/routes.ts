/** Paths of the HTTP interface; the server mounts them, the browser calls them. */
export const routes = {
  health: '/api/health',
  live: '/api/live',
  people: '/api/people',
  jobs: '/api/jobs',
  job: (id: string) => `/api/jobs/${encodeURIComponent(id)}`,
  stacks: (job: string) => `${routes.job(job)}/stacks`,
  readings: (job: string) => `${routes.job(job)}/readings`,
  supersede: (job: string, reading: number) => `${routes.job(job)}/readings/${reading}/supersede`,
  trials: (job: string) => `${routes.job(job)}/trials`,
  acceptance: (job: string) => `${routes.job(job)}/acceptance`,
  drawer: '/api/drawer',
  drawerLine: (id: string) => `/api/drawer/${encodeURIComponent(id)}`,
  gauges: '/api/gauges',
  drives: '/api/drives',
  drive: (id: string) => `/api/drives/${encodeURIComponent(id)}`,
  calc: (name: string) => `/api/calc/${encodeURIComponent(name)}`,
}

/** Who does it; a person's id. */
export const PERSON_HEADER = 'x-moray-person'
/** A fresh id for every intended write: a repeated one answers as the first did, and writes nothing. */
export const REQUEST_HEADER = 'x-moray-request'
