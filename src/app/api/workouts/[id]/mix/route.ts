import { settingRoute } from '@/server/saveSetting'

/** How loud footage and cues are, in the preview and in the render. */
export const PUT = settingRoute('mix')
