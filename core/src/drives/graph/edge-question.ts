/** The question that an edge answers, by the field that holds it. */
const QUESTIONS: Record<string, (row: string, to: string) => string> = {
  after: (row, to) => `${row}: does the ${to} have to come off first?`,
  in: (row, to) => `${row}: does it lie loose in the ${to}?`,
  on: (row, to) => `${row}: is it pressed on or into the ${to}?`,
  runsOn: (row, to) => `${row}: does it run on the ${to}?`,
  interfaces: (row, to) => `${row}: does the joint to the ${to} have to be parted to reach it?`,
  holds: (row, to) => `${row}: does it hold the ${to}?`,
  captiveUntil: (row, to) => `${row}: does it have to go in before the ${to} is closed?`,
  between: (row, to) => `${row}: does the ${to} meet here?`,
  sealedBy: (row, to) => `${row}: does the ${to} seal it?`,
  closedBy: (row, to) => `${row}: does the ${to} close it?`,
  behind: (row, to) => `${row}: does the ${to} stand behind it?`,
  ports: (row, to) => `${row}: is the ${to} a port of its test?`,
  connected: (row, to) => `${row}: is it one space with the other side, across the joint to the ${to}?`,
  carriedBy: (row, to) => `${row}: does the ${to} carry it?`,
  preloadedBy: (row, to) => `${row}: does the ${to} preload it?`,
  through: (row, to) => `${row}: is it preloaded through the ${to}?`,
  heldBy: (row, to) => `${row}: does the ${to} hold it?`,
}

/**
 * Whether one row of a sheet leads to another, as a question with yes and no.
 * @param field what leads there
 * @param row name of the row
 * @param to name of the other one
 */
export const edgeQuestion = (field: string, row: string, to: string): string =>
  (QUESTIONS[field] ?? ((a: string, b: string) => `${a}: does the ${b} belong to it?`))(row, inWords(to))

/** A name within a sentence: without the capital of a heading, unless it is an abbreviation. */
const inWords = (name: string) =>
  /^[A-ZÅÆØÄÖÜ][a-zåæøäöüß]/.test(name) ? name.charAt(0).toLowerCase() + name.slice(1) : name
