// The headless commands: each reads its files, calls the core or the engine, and writes data to standard output.
import { FOOTAGE_COMMANDS } from './footageCommands'
import { PLAN_COMMANDS } from './planCommands'

export const COMMANDS = { ...PLAN_COMMANDS, ...FOOTAGE_COMMANDS }
