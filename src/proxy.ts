import { NextResponse, type NextRequest } from 'next/server';
import { refusalAtTheDoor } from './server/http/door';
import { refusalOfAll, refusalPage } from './server/http/refusal';

/** Every request passes here first: who may ask, and what a browser may do with the answer. */
export function proxy(request: NextRequest): NextResponse {
  const why = refusalOfAll();
  if (why !== null)
    return request.nextUrl.pathname.startsWith('/api/')
      ? NextResponse.json({ message: why, fields: {} }, { status: 503 })
      : new NextResponse(refusalPage(why), { status: 503, headers: { 'Content-Type': 'text/html; charset=utf-8' } });
  const refused = refusalAtTheDoor(request.method, request.url, request.headers);
  const response = refused
    ? NextResponse.json({ message: refused.message, fields: {} }, { status: refused.status })
    : NextResponse.next();
  response.headers.set('X-Content-Type-Options', 'nosniff');
  // The release page shows the paper in a frame of its own; nobody else may frame anything.
  response.headers.set('X-Frame-Options', 'SAMEORIGIN');
  response.headers.set('Content-Security-Policy', "frame-ancestors 'self'");
  response.headers.set('Referrer-Policy', 'same-origin');
  return response;
}
