import { askedAtVersion, versionOf } from '@/server/http/asked-version';
import { handlersAt, type Handlers } from '@/server/api/routes';

export const dynamic = 'force-dynamic';
type Params = { params: Promise<{ path: string[] }> };

/** One entry for all of the interface: what answers is loaded when it is first asked for, and once. */
const at = (method: keyof Handlers) => async (request: Request, asked: Params) => {
  const found = await handlersAt((await asked.params).path);
  if (!found) return Response.json({ message: 'There is nothing at this address.', fields: {} }, { status: 404 });
  const handler = found.handlers[method];
  if (!handler)
    return Response.json({ message: 'Nothing of the kind can be asked for here.', fields: {} }, { status: 405 });
  const params = Promise.resolve({ id: found.id });
  return askedAtVersion(versionOf(request.headers), async () => (await handler(request, { params })) as Response);
};

export const GET = at('GET');
export const POST = at('POST');
export const PUT = at('PUT');
export const DELETE = at('DELETE');
