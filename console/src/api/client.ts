import createClient from 'openapi-fetch';
import type { FaultView, Problem } from './problem';
import type { paths } from './schema.gen';

/** The service's API, typed by its description. The console is served by the service, so the address is its own. */
export const api = createClient<paths>({ baseUrl: '/' });

/** An answer that is not the one hoped for. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    title: string,
    readonly detail: string | null,
    readonly faults: FaultView[],
  ) {
    super(title);
  }
}

/** The data of an answer, or an {@link ApiError}. */
export async function need<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  const { data, error, response } = await call;
  if (response.ok) return data as T;
  const problem = (error ?? {}) as Partial<Problem>;
  throw new ApiError(
    response.status,
    problem.title ?? `The service answered with status ${response.status}.`,
    problem.detail ?? null,
    problem.faults ?? [],
  );
}
