import createClient, { type Middleware } from 'openapi-fetch'
import type { components, paths } from './schema'
import { heard } from './server'

export type Schemas = components['schemas']
export type Problem = Schemas['ProblemOut']

/** The server refused: what is wrong, by path, in words. `status` 0 means it could not be reached. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly problems: Problem[],
    /** The application said so, not something between it and this device. */
    readonly byApp = true,
  ) {
    super(problems.map((p) => p.message).join(' '))
  }

  /** What is wrong, each with its place: a line of a file, a path into it. */
  get placed() {
    return this.problems.map((p) => [p.path, p.message].filter(Boolean).join(': '))
  }

  /** The application falls over this one thing; its own words say which, and under what number it stands in the log. */
  get isFault() {
    return this.status === 500 && this.byApp
  }

  /** No answer, or a word of something in between: no refusal of this content, so tried again with the same. */
  get unreachable() {
    return !this.isFault && (this.status === 0 || this.status >= 500 || !this.byApp)
  }
}

function cookie(name: string) {
  return document.cookie.match(new RegExp(`(?:^|; )${name}=([^;]*)`))?.[1] ?? ''
}

const csrf: Middleware = {
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-CSRFToken', cookie('csrftoken'))
    return request
  },
}

export const api = createClient<paths>({ baseUrl: '/' })
api.use(csrf)

/** What an openapi-fetch call brought, or `Refused`. A 401 is told to everybody who listens. */
export async function bring<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  const answer = await call.catch(() => null)
  heard(answer?.response ?? null)
  if (answer === null) throw new Refused(0, [{ path: '', message: 'The server cannot be reached.' }])
  if (answer.response.ok) return answer.data as T
  throw refusal(answer.response.status, answer.error)
}

/** Send raw text (JSON or a file) where the description has no typed body. */
export async function send<T>(method: 'POST' | 'PUT', path: string, body: string | Blob, signal?: AbortSignal): Promise<T> {
  const headers = { 'X-CSRFToken': cookie('csrftoken'), 'Content-Type': 'application/json' }
  const response = await fetch(path, { method, headers, body, signal }).catch((why) => {
    if (signal?.aborted && signal.reason?.name !== 'TimeoutError') throw why
    heard(null)
    throw new Refused(0, [{ path: '', message: 'The server cannot be reached.' }])
  })
  heard(response)
  const isJson = response.headers.get('Content-Type')?.includes('json')
  const content = isJson ? await response.json() : await response.text()
  if (!response.ok) throw refusal(response.status, content)
  return content as T
}

/** `send` as POST. */
export function post<T>(path: string, body: string | Blob, signal?: AbortSignal): Promise<T> {
  return send('POST', path, body, signal)
}

function refusal(status: number, error: unknown) {
  if (status === 401) signedOut.dispatchEvent(new Event('signed-out'))
  const problems = (error as Schemas['ErrorsOut'] | undefined)?.errors
  return new Refused(status, problems ?? [{ path: '', message: `The server answered ${status}.` }], problems !== undefined)
}

/** Fires when a request found the session ended. */
export const signedOut = new EventTarget()
