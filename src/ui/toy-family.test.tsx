import { screen } from '@testing-library/react';
import { discCooling } from '../../tests/support/toy-family';
import { jobViewOf, show } from '../../tests/support/screens';
import { register } from '@/core/families';
import { JobPage } from './job/job-page';
import { LogBench } from './bench/log-bench';

register(discCooling);
const [kind] = discCooling.kinds;
const view = jobViewOf(kind, 'vehicle');

global.Worker = class {
  postMessage() {}
  addEventListener() {}
  removeEventListener() {}
  terminate() {}
} as unknown as typeof Worker;

describe('screens of a family that is registered with one line', () => {
  it('its job shows its step', () => {
    show(<JobPage view={view} />);
    expect(screen.getAllByText('Cooling after a stop').length).toBeGreaterThan(0);
  });

  it('its bench takes a log and offers no lever', () => {
    show(<LogBench view={view} step="cooling" site={{}} date="2026-11-23" air="" policy="guarded" />);
    expect(screen.getByRole('button', { name: 'Choose a log file' })).toBeInTheDocument();
    expect(screen.queryByRole('tab', { name: 'Live' })).toBeNull();
    expect(screen.getByRole('tab', { name: 'Log file' })).toBeInTheDocument();
  });
});
