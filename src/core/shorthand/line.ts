// One line of the shorthand taken apart, without knowing yet what its words mean. Lines stand for themselves: a bracket
// left open on one never swallows the next.
import type { SyntaxNode } from '@lezer/common'
import { parser } from './parser'
import * as terms from './parser.terms'

/** A stretch of the line, in characters from its start. */
export interface Piece {
  text: string
  from: number
  to: number
}

export interface MovePiece extends Piece {
  /** Reps typed in front of the name. */
  reps: number | null
  label: Piece
  settings: Piece[]
}

export interface Line {
  title: Piece | null
  unread: Piece | null
  header: { head: Piece; name: Piece | null; key: Piece | null; settings: Piece[] } | null
  /** Entries of one or more moves joined by `+`. */
  entries: MovePiece[][]
  comment: Piece | null
  /** What the grammar could not place; nothing between `from` and `to` where only something is missing. */
  faults: Piece[]
}

export function takeApart(text: string): Line {
  const line: Line = { title: null, unread: null, header: null, entries: [], comment: null, faults: [] }
  const piece = ({ from, to }: { from: number; to: number }): Piece => ({ text: text.slice(from, to), from, to })
  const tree = parser.parse(text)
  tree.iterate({
    enter: (node) => {
      if (node.type.isError) line.faults.push(piece(node))
    },
  })
  for (let node = tree.topNode.firstChild; node; node = node.nextSibling) {
    switch (node.type.id) {
      case terms.Title:
        line.title = piece(node)
        break
      case terms.Unread:
        line.unread = piece(node)
        break
      case terms.Comment:
        line.comment = piece(node)
        break
      case terms.Header:
        line.header = headerOf(node, piece)
        break
      case terms.Entries:
        line.entries = node
          .getChildren('Entry')
          .map((entry) => entry.getChildren('Move').flatMap((move) => moveOf(move, piece)))
          .filter((entry) => entry.length)
        break
    }
  }
  return line
}

type ToPiece = (range: { from: number; to: number }) => Piece

function headerOf(node: SyntaxNode, piece: ToPiece): Line['header'] {
  const atoms = atomsOf(node.getChild('Heading'))
  const [head, first] = atoms
  const last = atoms.at(-1)
  const key = node.getChild('Key')
  if (!head || !last) return null
  return {
    head: piece(head),
    name: first ? piece({ from: first.from, to: last.to }) : null,
    key: key ? piece(key) : null,
    settings: settingsOf(node, piece),
  }
}

function moveOf(node: SyntaxNode, piece: ToPiece): MovePiece[] {
  const atoms = atomsOf(node.getChild('Label'))
  const [first, second] = atoms
  const last = atoms.at(-1)
  if (!first || !last) return []
  const counts = second && first.type.id === terms.Number && /^\d{1,5}$/.test(piece(first).text)
  const options = node.getChild('Options')
  return [
    {
      ...piece(node),
      reps: counts ? Number(piece(first).text) : null,
      label: piece({ from: counts ? second.from : first.from, to: last.to }),
      settings: options ? settingsOf(options, piece) : [],
    },
  ]
}

const settingsOf = (node: SyntaxNode, piece: ToPiece): Piece[] =>
  (node.getChild('Settings')?.getChildren('Setting') ?? []).filter((setting) => setting.to > setting.from).map(piece)

function atomsOf(node: SyntaxNode | null): SyntaxNode[] {
  const atoms: SyntaxNode[] = []
  for (let child = node?.firstChild ?? null; child; child = child.nextSibling)
    if (!child.type.isError && child.to > child.from) atoms.push(child)
  return atoms
}
