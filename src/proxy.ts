import { NextResponse, type NextRequest } from 'next/server';
import { refusalAtTheDoor } from './server/http/door';

/** Every request passes here first: who may ask, and what a browser may do with the answer. */
export function proxy(request: NextRequest): NextResponse {
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
