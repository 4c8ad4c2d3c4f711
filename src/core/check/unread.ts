// Lines that were typed or pasted and could not be understood: kept, and said.
import { stationsOf } from '../score/formats'
import { finding, type Check } from './finding'

export const checkUnread: Check = ({ score }) => {
  const lines = [...score.above, ...score.below].map((line) => ({ line, sectionKey: null as string | null }))
  for (const section of score.sections) {
    const held = section.format === 'list' ? section.rows : stationsOf(section)
    for (const line of [...section.above, ...held.flatMap((one) => one.above)])
      lines.push({ line, sectionKey: section.key })
  }
  return lines.flatMap(({ line, sectionKey }, index) =>
    line.startsWith('?')
      ? [
          finding('not understood', {
            id: `${index} ${line.slice(0, 200)}`,
            severity: 'warning',
            sectionKey,
            what: `Not understood: "${line.slice(1).trim().slice(0, 120)}".`,
            why: 'It is kept as a line that starts with "?" in the shorthand. Write it another way, or take the line out.',
          }),
        ]
      : [],
  )
}
