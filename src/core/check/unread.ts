// Lines that were typed or pasted and could not be understood: kept, and said.
import { labelledIn } from '../score/formats'
import { finding, type Check } from './finding'

export const checkUnread: Check = ({ score }) => {
  const lines = [...score.above, ...score.below].map((line) => ({ line, sectionKey: null as string | null }))
  for (const section of score.sections) {
    for (const line of [...section.above, ...labelledIn(section).flatMap((one) => one.above)])
      lines.push({ line, sectionKey: section.key })
  }
  return lines.flatMap(({ line, sectionKey }, index) =>
    line.startsWith('?')
      ? [
          finding('not understood', {
            id: `${index} ${line.slice(0, 200)}`,
            severity: 'warning',
            sectionKey,
            fact: { code: 'not-understood', line: line.slice(1).trim().slice(0, 120) },
          }),
        ]
      : [],
  )
}
