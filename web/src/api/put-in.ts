import { ApiProblem } from './problem'

/** Sends bytes as they are, telling how many of them are gone; the calls that are described do not tell that. */
function post(address: string, body: Blob, gone: (bytes: number) => void): Promise<string> {
  return new Promise((done, refused) => {
    const request = new XMLHttpRequest()
    request.open('POST', address)
    request.setRequestHeader('Accept', 'application/json')
    request.setRequestHeader('Content-Type', 'application/octet-stream')
    const token = document.cookie.split('; ').find((cookie) => cookie.startsWith('XSRF-TOKEN='))
    if (token) request.setRequestHeader('X-XSRF-TOKEN', decodeURIComponent(token.slice('XSRF-TOKEN='.length)))
    request.upload.onprogress = (event) => gone(event.loaded)
    request.onload = () => (request.status < 300 ? done(request.responseText) : refused(ApiProblem.read(request.status, request.responseText)))
    request.onerror = () => refused(ApiProblem.unreachable())
    request.send(body)
  })
}

/** Puts a paper into the tray, telling how much of it is gone. */
export async function putIn(file: File, gone: (share: number) => void): Promise<void> {
  await post(`/api/loose?name=${encodeURIComponent(file.name)}`, file, (bytes) => gone(file.size === 0 ? 1 : bytes / file.size))
}

/** Puts further bytes of a file into a parcel, from a place on; says how many are there then. */
export async function putBytes(parcel: number, id: number, at: number, part: Blob, gone: (bytes: number) => void): Promise<number> {
  return (JSON.parse(await post(`/api/parcels/${parcel}/files/${id}/bytes?at=${at}`, part, gone)) as { came: number }).came
}
