/** Rows as they are, with JSON left as text for whoever wants to read it: `json` names those columns. */
export interface RawRows {
  rows: Record<string, unknown>[]
  json: readonly string[]
}

/** The rows with their JSON read. */
export function readRows<Row>({ rows, json }: RawRows): Row[] {
  for (const row of rows)
    for (const name of json) {
      const text = row[name]
      if (typeof text === 'string') row[name] = JSON.parse(text)
    }
  return rows as Row[]
}
