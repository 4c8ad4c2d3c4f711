import { settingRoute } from '@/server/saveSetting'

/** What was checked in Watch, and noted. */
export const PUT = settingRoute('proof')
