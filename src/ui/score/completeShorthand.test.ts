import { CompletionContext } from '@codemirror/autocomplete'
import { EditorState } from '@codemirror/state'
import { describe, expect, it } from 'vitest'
import { FORMAT_NAMES, notationOf } from '@/core/score/formats'
import { MOVES } from '@/core/score/moves'
import { readShorthand } from '@/core/shorthand/read'
import { PLAIN_HEADS } from '@/core/shorthand/terms'
import { completeShorthand } from './completeShorthand'

/** What is offered at the mark `|`, and the text that it would take the place of. */
function at(marked: string, explicit = true): { labels: string[]; taken: string } {
  const pos = marked.indexOf('|')
  const doc = marked.replace('|', '')
  const result = completeShorthand(new CompletionContext(EditorState.create({ doc }), pos, explicit), MOVES)
  return { labels: result?.options.map((one) => one.label) ?? [], taken: doc.slice(result?.from ?? pos, pos) }
}

describe('the shorthand offers', () => {
  it('heads and moves at the start of a line, and moves alone where a name has begun', () => {
    expect(at('cir|').labels).toEqual(expect.arrayContaining(['circuit', 'score', 'Jug lift']))
    expect(at('circuit Main: 3 rounds\n  Jug lift; Ke|')).toMatchObject({ taken: 'Ke' })
    expect(at('circuit Main: 3 rounds\n  Jug lift; Ke|').labels).not.toContain('circuit')
    expect(at('  Jug lift + |').labels).toContain('Keel hold')
  })
  it('moves after their reps, which stay', () => expect(at('finisher Last:\n12 Deck|').taken).toBe('Deck'))
  it('nothing in remarks, nor unasked on an empty line', () => {
    expect(at('# a remark|').labels).toEqual([])
    expect(at('? not read|').labels).toEqual([])
    expect(at('circuit Main: 3 rounds\n|', false).labels).toEqual([])
  })
  it('every setting of its own head after the colon, and in place of what was begun', () => {
    expect(at('circuit Main: 3 rounds, 40|')).toMatchObject({ taken: '40' })
    expect(at('circuit Main: 3 rounds, |').labels).toEqual(
      expect.arrayContaining(['3 rounds', '30 on', 'last rest kept']),
    )
    expect(at('score: |').labels).toEqual(expect.arrayContaining(['demos up front', 'count up', 'caution card']))
    expect(at('needs: |').labels).toContain('floor to stand 4')
    expect(at('words: |').labels).toEqual([
      'round "..." "..."',
      'set "..." "..."',
      'station "..." "..."',
      'block "..." "..."',
    ])
    expect(at('move "Punt push": |').labels).toEqual(
      expect.arrayContaining(['posture kneeling', 'impact high', 'muscles back grip']),
    )
    expect(at('dismissed "cool-down: none": |').labels).toEqual(['reason "..."'])
  })
  it('in brackets what a move of that section may carry, and no more', () => {
    expect(at('circuit Main: 3 rounds\n  Jug lift (|').labels).toEqual(
      expect.arrayContaining(['30 on', '30 off', 'sides halves', 'from 2 ...']),
    )
    expect(at('ladder Last: 3 rungs\n  Jug lift (|').labels).not.toContain('30 on')
    expect(at('list Main:\n  Jug lift (35 work); Keel hold (|').labels).toEqual(
      expect.arrayContaining(['15 rest', 'side left', 'open talk']),
    )
    expect(at('circuit Main: 3 rounds\nlist More:\n  Keel hold (35 work, |').labels).not.toContain('sides halves')
    expect(at('circuit Main: 3 rounds\n  Jug lift (45 on) |').labels).not.toContain('30 on')
  })
  it.each(FORMAT_NAMES)('for %s only what it understands', (format) => {
    const { head, moves, groupSize } = notationOf(format)
    const line =
      moves === 'none' || format === 'list' ? '' : `  ${'Squat + '.repeat(Math.max(1, groupSize?.[0] ?? 1) - 1)}Squat\n`
    for (const label of at(`${head} Main: |`).labels)
      expect(readShorthand(`${head} Main: ${label.replace('...', 'Slow water')}\n${line}`).problems, label).toEqual([])
    const inside =
      format === 'list'
        ? at('list Main:\n  Squat (|').labels.filter((label) => !label.includes('talk'))
        : line
          ? at(`${head} Main:\n  Squat (|`).labels
          : []
    for (const label of inside) {
      const carried =
        format === 'list' && !/work|rest|break/.test(label) ? `30 work, ${label}` : label.replace('...', 'Lunge')
      expect(
        readShorthand(
          `${head} Main:\n${line.trim() ? line.replace(/Squat\n/, `Squat (${carried})\n`) : `  Squat (${carried})\n`}`,
        ).problems,
        carried,
      ).toEqual([])
    }
  })
  it.each(PLAIN_HEADS)('after "%s" only what it understands', (head) => {
    const name = head === 'move' || head === 'dismissed' ? ' "Punt push"' : ''
    const { labels } = at(`${head}${name}: |`)
    expect(labels.length).toBeGreaterThan(0)
    for (const label of labels)
      expect(readShorthand(`${head}${name}: ${label.replaceAll('...', 'lap')}\n`).problems, label).toEqual([])
  })
})
