import { ApiProblem } from './problem'

/** Sends a file as it is, telling how much of it is gone; the calls that are described do not tell that. */
export function putIn(file: File, gone: (share: number) => void): Promise<void> {
  return new Promise((done, refused) => {
    const request = new XMLHttpRequest()
    request.open('POST', `/api/loose?name=${encodeURIComponent(file.name)}`)
    request.setRequestHeader('Accept', 'application/json')
    request.setRequestHeader('Content-Type', 'application/octet-stream')
    const token = document.cookie.split('; ').find((cookie) => cookie.startsWith('XSRF-TOKEN='))
    if (token) request.setRequestHeader('X-XSRF-TOKEN', decodeURIComponent(token.slice('XSRF-TOKEN='.length)))
    request.upload.onprogress = (event) => gone(event.lengthComputable ? event.loaded / event.total : 0)
    request.onload = () => (request.status < 300 ? done() : refused(ApiProblem.read(request.status, request.responseText)))
    request.onerror = () => refused(ApiProblem.unreachable())
    request.send(file)
  })
}
