import type { z } from 'zod';
import { isJson, largestBody } from './door';
import { brokenText } from './broken-text';
import { WorkCancelled } from './work-cancelled';
import { RequestRefused } from './refused';

/** Runs a use case and answers with its result as JSON; a refusal becomes its status and message. */
export async function answer(work: () => Promise<unknown>): Promise<Response> {
  try {
    return Response.json((await work()) ?? {});
  } catch (error) {
    if (error instanceof RequestRefused)
      return Response.json({ message: error.message, fields: error.fields, ...error.also }, { status: error.status });
    // Whoever asked has gone: nobody reads the answer, and nothing broke.
    if (error instanceof WorkCancelled) return new Response(null, { status: 499 });
    // What broke is for the server's log: a person at a screen has no use for a statement or a path.
    console.error(error);
    return Response.json({ message: brokenText(error), fields: {} }, { status: 500 });
  }
}

/** The request's body checked by a schema; a refusal names every field that is wrong. */
export async function bodyOf<T extends z.ZodType>(request: Request, schema: T): Promise<z.infer<T>> {
  if (!isJson(request.headers)) throw new RequestRefused(415, 'The server takes JSON here, and said to be.');
  let body: unknown;
  try {
    const text = await request.text();
    if (text.length > largestBody) throw new RequestRefused(413, 'This is more than the server takes at once.');
    body = JSON.parse(text);
  } catch (error) {
    if (error instanceof RequestRefused) throw error;
    throw new RequestRefused(400, 'The request is not JSON.');
  }
  const parsed = schema.safeParse(body);
  if (parsed.success) return parsed.data;
  const fields = Object.fromEntries(parsed.error.issues.map((issue) => [issue.path.join('.'), issue.message]));
  throw new RequestRefused(422, 'Some fields need another look.', fields);
}
