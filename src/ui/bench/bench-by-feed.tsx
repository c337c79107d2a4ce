'use client';
import dynamic from 'next/dynamic';

// A bench carries what its own way of feeding needs, and nothing of the others.
export const LookBench = dynamic(async () => (await import('./look-bench')).LookBench);
export const LogBench = dynamic(async () => (await import('./log-bench')).LogBench);
export const TypedBench = dynamic(async () => (await import('./typed-bench')).TypedBench);
export const MeasuredBench = dynamic(async () => (await import('./measured-bench')).MeasuredBench);
export const WorkedOutBench = dynamic(async () => (await import('./worked-out-bench')).WorkedOutBench);
