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
  steps: (job: string) => `${routes.job(job)}/steps`,
  draft: (job: string) => `${routes.job(job)}/draft`,
  takeBack: (job: string, done: number) => `${routes.job(job)}/steps/${done}/take-back`,
  tray: (job: string) => `${routes.job(job)}/tray`,
  trayOrder: (job: string) => `${routes.job(job)}/tray/order`,
  trayPart: (job: string, id: number) => `${routes.job(job)}/tray/${id}`,
  grades: (job: string) => `${routes.job(job)}/grades`,
  findings: (job: string) => `${routes.job(job)}/findings`,
  outcome: (job: string) => `${routes.job(job)}/outcome`,
  estimates: (job: string) => `${routes.job(job)}/estimates`,
  approvals: (job: string) => `${routes.job(job)}/approvals`,
  jobSchools: (job: string) => `${routes.job(job)}/schools`,
  life: (job: string) => `${routes.job(job)}/life`,
  files: (job: string) => `${routes.job(job)}/files`,
  file: (hash: string) => `/api/files/${hash}`,
  shop: '/api/shop',
  shopSchools: '/api/shop/schools',
  shopRules: '/api/shop/rules',
  likelihoods: '/api/shop/likelihoods',
  units: '/api/units',
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
