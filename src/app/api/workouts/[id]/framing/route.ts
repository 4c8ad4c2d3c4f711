import { settingRoute } from '@/server/saveSetting'

/** What part of the picture is shown, in the preview and in the render. */
export const PUT = settingRoute('framing')
