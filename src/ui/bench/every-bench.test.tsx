import { notReadByHand } from '@/core/dials/characteristic-entry';
import { fireEvent, screen, within } from '@testing-library/react';
import { families } from '@/core/families';
import { jobViewOf, show } from '../../../tests/support/screens';
import { JobPage } from '../job/job-page';
import { LogBench } from './log-bench';
import { LookBench } from './look-bench';
import { MeasuredBench } from './measured-bench';
import { TypedBench } from './typed-bench';
import { WorkedOutBench } from './worked-out-bench';

const everyPlan = families
  .flatMap((family) => family.kinds)
  .flatMap((kind) =>
    kind.plans.map((plan) => [`${kind.family} (${kind.curve.outputs[0]}), ${plan.id}`, kind, plan] as const),
  );

const at = { site: { altitudeM: 1420, benchVolumeCm3: 600 }, date: '2026-11-23T08:00:00Z', air: 'Air 85.4 kPa' };

// Asking by role is slow in jsdom, and there are many benches; journeys in a real browser ask by role.
const headings = (container: HTMLElement) =>
  [...container.querySelectorAll('h1, h2')].map((each) => each.textContent).join('; ');

describe.each(everyPlan)('benches of %s', (_title, kind, plan) => {
  const view = jobViewOf(kind, plan.id);
  const steps = kind.steps.filter((step) => plan.steps.includes(step.id));
  const looks = steps.filter((step) => step.kind === 'look');
  const liveSteps = steps.filter((step) => step.kind === 'measured' && step.feeds.live);
  const logOnly = steps.filter((step) => step.kind === 'measured' && !step.feeds.live);
  const workedOut = steps.filter((step) => step.kind === 'typed' && step.workedOut);
  const judged = steps.filter(
    (step): step is Exclude<typeof step, { readonly kind: 'look' }> =>
      step.kind !== 'look' && !workedOut.includes(step),
  );

  it('the run sheet lists every step', () => {
    show(<JobPage view={view} />);
    for (const step of steps) expect(screen.getAllByText(step.title).length).toBeGreaterThan(0);
  });

  it('every look step has its points on the sketch and in the list', () => {
    for (const step of looks) {
      const { container, unmount } = show(<LookBench view={view} step={step.id} air={at.air} appearance={{}} />);
      expect(headings(container)).toContain(step.title);
      if (step.kind === 'look')
        for (const point of step.feeds.look.points)
          expect(within(container).getAllByText(point.title).length).toBeGreaterThan(0);
      unmount();
    }
  });

  it('what a sheet alone says is there, and nothing is asked for', () => {
    for (const step of workedOut) {
      const { container, unmount } = show(<WorkedOutBench view={view} step={step.id} air={at.air} />);
      expect(headings(container)).toContain(`${step.title}: worked out of the sheet`);
      expect(container.querySelectorAll('main input')).toHaveLength(0);
      unmount();
    }
  });

  it('what no bench runs waits for its log', () => {
    for (const step of logOnly) {
      const { container, unmount } = show(<LogBench view={view} step={step.id} policy="guarded" {...at} />);
      expect(headings(container)).toContain(`${step.title}: bring the log of it`);
      expect(screen.getByText(/Drop the log here/)).toBeInTheDocument();
      unmount();
    }
  });

  if (liveSteps.length > 0)
    it.each(liveSteps.map((step) => [step.id, step] as const))(
      '%s waits at the live bench, its picture drawn',
      (_id, step) => {
        const { container } = show(<MeasuredBench view={view} step={step.id} {...at} />);
        expect(headings(container)).toContain(step.title);
        expect(screen.getByText(/Start recording/)).toBeInTheDocument();
        expect(container.querySelector('[role=img]')).not.toBeNull();
        expect(document.body.textContent).not.toMatch(/NaN|undefined|Infinity/);
      },
    );

  const unread = judged.filter((step) => notReadByHand(step));
  if (unread.length > 0)
    it.each(unread.map((step) => [step.id, step] as const))('%s says that nobody reads it by hand', (_id, step) => {
      const { container } = show(<TypedBench view={view} step={step.id} policy="guarded" {...at} />);
      expect(container.querySelector('main input')).toBeNull();
      expect(screen.getByRole('heading', { level: 1 })).toHaveTextContent('nobody reads this by hand');
      expect(screen.getByRole('link', { name: 'Bring a log' })).toBeInTheDocument();
    });

  const readByHand = judged.filter((step) => !notReadByHand(step));
  if (readByHand.length === 0) return;
  it.each(readByHand.map((step) => [step.id, step] as const))(
    '%s is typed at the dials, and nonsense is questioned',
    (_id, step) => {
      const { container } = show(<TypedBench view={view} step={step.id} policy="guarded" {...at} />);
      const inputs = container.querySelectorAll('main input:not([type=radio])');
      expect(inputs.length).toBeGreaterThan(0);
      fireEvent.change(inputs[0], { target: { value: 'about right' } });
      fireEvent.blur(inputs[0]);
      expect(document.body.textContent).toMatch(/about right/);
      fireEvent.change(inputs[0], { target: { value: '1' } });
      expect(document.body.textContent).not.toMatch(/NaN|undefined|Infinity/);
    },
  );
});
