import { settingRoute } from '@/server/saveSetting'

/** What viewers hear besides the footage, in the preview and in the render. */
export const PUT = settingRoute('cues')
