import type { z } from 'zod';
import { RequestRefused } from './refused';

/** Runs a use case and answers with its result as JSON; a refusal becomes its status and message. */
export async function answer(work: () => Promise<unknown>): Promise<Response> {
  try {
    return Response.json((await work()) ?? {});
  } catch (error) {
    if (error instanceof RequestRefused)
      return Response.json({ message: error.message, fields: error.fields }, { status: error.status });
    console.error(error);
    const detail = error instanceof Error ? error.message : String(error);
    return Response.json({ message: `Nothing was changed: ${detail}`, fields: {} }, { status: 500 });
  }
}

/** The request's body checked by a schema; a refusal names every field that is wrong. */
export async function bodyOf<T extends z.ZodType>(request: Request, schema: T): Promise<z.infer<T>> {
  let body: unknown;
  try {
    body = await request.json();
  } catch {
    throw new RequestRefused(400, 'The request is not JSON.');
  }
  const parsed = schema.safeParse(body);
  if (parsed.success) return parsed.data;
  const fields = Object.fromEntries(parsed.error.issues.map((issue) => [issue.path.join('.'), issue.message]));
  throw new RequestRefused(422, 'Some fields need another look.', fields);
}
