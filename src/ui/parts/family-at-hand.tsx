'use client';
import dynamic from 'next/dynamic';
import type { ComponentType, ReactNode } from 'react';
import type { Family } from '@/core/contract/family';
import { findFamily, register } from '@/core/families/registry';

interface GateProps {
  readonly children?: ReactNode;
}
type Gate = ComponentType<GateProps>;

const Open = ({ children }: GateProps) => children;

function taken(family: Family): Gate {
  if (!findFamily(family.id)) register(family);
  return Open;
}

/** Where each family is, by its id: a line a family. A page says in its head which of them it will fetch. */
export const gates: Readonly<Record<string, Gate>> = {
  'vacuum-remote': dynamic(async () => taken((await import('@/core/families/vacuum-remote')).vacuumRemote)),
  'vacuum-inline': dynamic(async () => taken((await import('@/core/families/vacuum-inline')).vacuumInline)),
  'vacuum-supply': dynamic(async () => taken((await import('@/core/families/vacuum-supply')).vacuumSupply)),
  'hydraulic-boost': dynamic(async () => taken((await import('@/core/families/hydraulic-boost')).hydraulicBoost)),
  'motor-pump-boost': dynamic(async () => taken((await import('@/core/families/motor-pump-boost')).motorPumpBoost)),
  'motor-boost': dynamic(async () => taken((await import('@/core/families/motor-boost')).motorBoost)),
  'brake-by-wire': dynamic(async () => taken((await import('@/core/families/brake-by-wire')).brakeByWire)),
  'blended-braking': dynamic(async () => taken((await import('@/core/families/blended-braking')).blendedBraking)),
  'stored-pressure': dynamic(async () => taken((await import('@/core/families/stored-pressure')).storedPressure)),
  'pedal-valve': dynamic(async () => taken((await import('@/core/families/pedal-valve')).pedalValve)),
  foundation: dynamic(async () => taken((await import('@/core/families/foundation')).foundation)),
};

/** All of them at once. */
const Every = dynamic(async () => {
  await import('@/core/families');
  return Open;
});

interface Props {
  /** Family that the page is about; every one where it may be about any. */
  readonly of: string | 'any';
  readonly children: ReactNode;
}

/**
 * What is about a family, once that family is here: a browser fetches only those that its pages are about. Until it has come
 * what the server drew stays on the screen. A family that nobody knows is not waited for.
 */
export function FamilyAtHand({ of, children }: Props) {
  const Gate = of === 'any' ? Every : Object.hasOwn(gates, of) ? gates[of] : Open;
  return <Gate>{children}</Gate>;
}
