/** Who writes, and when. */
export interface Who {
  id: string
  role: 'technician' | 'lead'
  at: Date
}
