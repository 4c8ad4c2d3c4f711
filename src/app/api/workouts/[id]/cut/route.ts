import { settingRoute } from '@/server/saveSetting'

/** How the footage is cut, in the preview and in the render. */
export const PUT = settingRoute('cut')
