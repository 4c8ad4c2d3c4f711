import { settingRoute } from '@/server/saveSetting'

/** How viewers are shown what they read, in the preview and in the render. */
export const PUT = settingRoute('look')
