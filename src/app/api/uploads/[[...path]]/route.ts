import { route } from '@/server/http'
import { uploadServer } from '@/server/uploads'

export const dynamic = 'force-dynamic'

const handle = route<{ path?: string[] }>((request) => uploadServer().handleWeb(request))

export { handle as DELETE, handle as GET, handle as HEAD, handle as OPTIONS, handle as PATCH, handle as POST }
