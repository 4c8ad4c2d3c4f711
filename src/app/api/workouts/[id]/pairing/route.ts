import QRCode from 'qrcode'
import { Problem } from '@/core/problem'
import { addressesHere, theDoor } from '@/server/access/door'
import { idFrom, route } from '@/server/http'
import { findWorkout } from '@/server/workouts'

/** A code that pairs one device to this workout's floor, as an address and as a picture of it (SVG). */
export const POST = route<{ id: string }>(async (_request, { id }) => {
  const door = await theDoor()
  const [address] = addressesHere()
  if (!door || !address) throw new Problem({ code: 'only-here' })
  const { id: workoutId } = await findWorkout(idFrom(id))
  const url = `${address}/pair/${door.pairing.begin(workoutId, performance.now())}`
  return Response.json({ url, svg: await QRCode.toString(url, { type: 'svg', margin: 2 }) })
})
