/** Where a path of the job's document is edited. */
export function stopOfField(field: string): 'measure' | 'shape' | 'join' | 'lay-out' {
  const [head] = field.split('/')
  if (head === 'basis') return 'measure'
  if (head === 'layout' || head === 'sets') return 'lay-out'
  return head === 'joints' || head === 'placements' ? 'join' : 'shape'
}
