import { restControls } from '@/core/physics/bench-controls';
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { JobView } from '@/server/views/job-view';
import type { RunStatus } from '@/server/recording/run-recorder';
import { wire, type WireWord } from '@/server/recording/wire-frame';
import { makeTrace, type Trace } from '@/core/traces/trace';
import { answering, FakeStream, evaluation, jobView, show } from '../../../tests/support/screens';
import { push } from '../../../tests/support/router';
import { MeasuredBench } from './measured-bench';

const status = (over: Partial<RunStatus> = {}): RunStatus => ({
  standsStill: false,
  pace: 1,
  lost: { gaps: 0, seconds: 0 },
  latest: 0,
  phase: 1,
  phases: 5,
  elapsed: 3,
  done: false,
  lever: 4e5,
  byItself: false,
  speed: 1,
  controls: { ...restControls, lever: 4e5, source: 1 },
  duty: null,
  cut: null,
  storageProblem: null,
  ...over,
});

const samples = (count: number, from = 0): Trace => {
  const time = Float64Array.from({ length: count }, (_, i) => (from + i + 1) / 200);
  return makeTrace(time, {
    input_pressure: time.map((t) => t * 1e5),
    output_pressure: time.map((t) => t * 1e5 + 1e3),
    supply_vacuum: time.map(() => 58_600),
    control_vacuum: time.map(() => 58_200),
    stop_switch: time.map(() => 0),
  });
};

async function frame(over: Partial<WireWord>, given = samples(400)): Promise<void> {
  await act(async () => {
    FakeStream.latest.send(wire({ kind: 'whole', state: 'recording', status: status(), ...over }, given));
    // First the stream has taken it in, then it is drawn, as late as a slow screen may: however busy the machine is, in this order.
    await new Promise((resolve) => setTimeout(resolve, 0));
    await new Promise((resolve) => setTimeout(resolve, 300));
  });
}

const site = { altitudeM: 1420, airTemperatureC: 11 };
const bench = (view: JobView, step = 'boost-curve') =>
  show(<MeasuredBench view={view} step={step} site={site} date="2026-11-23T10:00:00Z" air="Air 85.4 kPa" />);
const open = (kind: 'recording' | 'interrupted' | 'complete', step = 'boost-curve') =>
  jobView({ openRun: kind === 'recording' ? { kind, id: 'r1', step, hold: null } : { kind, id: 'r1', step } });
const headline = () => screen.getByRole('heading', { level: 1 });

beforeEach(() => void answering(200, {}));

describe('bench before a run', () => {
  it('shows the band that waits for its line, and starts on Enter', async () => {
    bench(jobView());
    expect(headline()).toHaveTextContent('Boost curve');
    expect(screen.getByRole('img', { name: /over the band where a sound unit lies/ })).toBeInTheDocument();
    expect(within(screen.getByRole('region', { name: 'Output' })).getByRole('status')).toHaveTextContent('–');
    const asked = answering(200, { id: 'r1' });
    fireEvent.keyDown(document.body, { key: 'Enter', code: 'Enter' });
    await waitFor(() =>
      expect(asked[0]).toMatchObject({
        path: '/api/jobs/j1/runs',
        body: { step: 'boost-curve', person: 'Ilse Varga' },
      }),
    );
    await waitFor(() => expect(FakeStream.latest.address).toBe('/api/runs/r1/stream'));
  });

  it('asks for cautions that nobody has read, before anything else', () => {
    bench(jobView({ cautions: [] }));
    expect(headline()).toHaveTextContent('Read these first');
    expect(screen.queryByRole('button', { name: /Start recording/ })).not.toBeInTheDocument();
  });

  it('sends one to the step that is still open', () => {
    bench(open('complete', 'vacuum-draw'));
    expect(headline()).toHaveTextContent('Another step of this unit is still open');
    fireEvent.click(screen.getByRole('button', { name: /Go to vacuum draw/ }));
    expect(push).toHaveBeenCalledWith('/jobs/j1/bench/vacuum-draw');
  });
});

describe('bench while recording', () => {
  it('gives one instruction, live readings on their bands, and what comes next', async () => {
    bench(open('recording'));
    await frame({});
    expect(headline()).toHaveTextContent('Pull the lever slowly past 2.31 MPa');
    const input = screen.getByRole('region', { name: 'Input' });
    expect(within(input).getByRole('status')).toHaveTextContent('0.19');
    expect(within(input).getByText('peak 0.20')).toBeInTheDocument();
    expect(within(screen.getByRole('region', { name: 'Supply' })).getByRole('status')).toHaveTextContent('58.6');
    expect(screen.getByRole('contentinfo')).toHaveTextContent('2 s');
    expect(screen.getByRole('contentinfo')).toHaveTextContent('Then: hold it there');
  });

  it('appends samples, and begins anew with a whole frame after a lost connection', async () => {
    bench(open('recording'));
    await frame({});
    await frame({ kind: 'more' }, samples(200, 400));
    expect(screen.getByRole('contentinfo')).toHaveTextContent('3 s');
    await frame({}, samples(1000));
    expect(screen.getByRole('contentinfo')).toHaveTextContent('5 s');
  });

  it('lets the rig pull on Space and hands the lever back, changes the rig’s time, and stops', async () => {
    bench(open('recording'));
    await frame({});
    const asked = answering(200, {});
    fireEvent.keyDown(document.body, { key: ' ', code: 'Space' });
    await waitFor(() =>
      expect(asked.at(-1)).toMatchObject({ path: '/api/runs/r1/command', body: { kind: 'by-itself', on: true } }),
    );
    await frame({ kind: 'more', status: status({ byItself: true }) }, samples(20, 400));
    fireEvent.click(screen.getByRole('button', { name: /Take the lever/ }));
    await waitFor(() => expect(asked.at(-1)?.body).toEqual({ kind: 'by-itself', on: false }));
    fireEvent.change(screen.getByLabelText('Rig time'), { target: { value: '5' } });
    await waitFor(() => expect(asked.at(-1)?.body).toEqual({ kind: 'speed', speed: 5 }));
    fireEvent.keyDown(screen.getByRole('slider', { name: 'Lever' }), { key: 'ArrowUp' });
    await waitFor(() => expect(asked.at(-1)?.body).toMatchObject({ kind: 'lever' }));
    fireEvent.keyDown(document.body, { key: 's', code: 'KeyS' });
    await waitFor(() => expect(asked.at(-1)).toMatchObject({ path: '/api/runs/r1', body: { action: 'stop' } }));
  });

  it('says that the disk is full, and that nothing is lost', async () => {
    bench(open('recording'));
    await frame({ status: status({ storageProblem: 'database or disk is full' }) });
    expect(screen.getByRole('alert')).toHaveTextContent(/disk is full.*kept in memory/);
  });

  it('calls a hold once its outcome is certain, and not before', async () => {
    const held = (seconds: number, rate: number) => {
      const time = Float64Array.from({ length: seconds * 200 }, (_, i) => (i + 1) / 200);
      const wobble = (i: number) => 30 * Math.sin(i * 1.7) + 20 * Math.cos(i * 0.9);
      const vacuum = time.map((t, i) => 58_600 - rate * Math.max(0, t - 1) + wobble(i));
      return makeTrace(time, { supply_vacuum: vacuum, control_vacuum: vacuum });
    };
    bench(open('recording', 'vacuum-hold-rest'), 'vacuum-hold-rest');
    const shutFor = (seconds: number) => status({ phase: 1, phases: 2, elapsed: seconds });
    await frame({ status: shutFor(3) }, held(4, 5));
    expect(headline()).toHaveTextContent('Source shut: wait 17 s');
    expect(screen.queryByRole('button', { name: /Call it/ })).not.toBeInTheDocument();
    await frame({ status: shutFor(8) }, held(9, 5));
    expect(headline()).toHaveTextContent(/^At 7 s of 15 s: 0\.0\d+ ± 0\.0\d+ kPa of 3\.30$/);
    const asked = answering(200, {});
    fireEvent.keyDown(document.body, { key: 'Enter', code: 'Enter' });
    await waitFor(() => expect(asked.at(-1)).toMatchObject({ path: '/api/runs/r1', body: { action: 'stop' } }));
    await frame({ status: shutFor(9) }, held(10, 900));
    expect(screen.getByRole('button', { name: /Call it: fail/ })).toBeInTheDocument();
  });

  it('has no lever where none is pulled', async () => {
    bench(open('recording', 'vacuum-draw'), 'vacuum-draw');
    await frame({});
    expect(screen.queryByRole('slider')).not.toBeInTheDocument();
    expect(screen.queryByRole('button', { name: /Let the rig pull/ })).not.toBeInTheDocument();
  });
});

describe('keys', () => {
  it('work whatever was clicked last: a list that was chosen from gives them back', async () => {
    bench(open('recording'));
    await frame({});
    const asked = answering(200, {});
    const speed = screen.getByLabelText('Rig time');
    act(() => speed.focus());
    fireEvent.change(speed, { target: { value: '20' } });
    await waitFor(() => expect(asked[0].body).toEqual({ kind: 'speed', speed: 20 }));
    expect(speed).not.toHaveFocus();
    fireEvent.keyDown(document.activeElement ?? document.body, { key: ' ', code: 'Space' });
    await waitFor(() => expect(asked.at(-1)?.body).toEqual({ kind: 'by-itself', on: true }));
    // What was chosen stands until the recorder says so, and says that it is on its way.
    await frame({ kind: 'more', status: status({ speed: 1 }) }, samples(20, 400));
    expect(speed).toHaveValue('20');
    expect(screen.getByText('on its way')).toBeInTheDocument();
    await frame({ kind: 'more', status: status({ speed: 20, pace: 20 }) }, samples(20, 600));
    expect(speed).toHaveValue('20');
    expect(screen.queryByText('on its way')).not.toBeInTheDocument();
    // It goes back only where it was refused.
    answering(409, { message: 'This run is not being recorded now.' });
    fireEvent.change(speed, { target: { value: '5' } });
    await waitFor(() => expect(speed).toHaveValue('20'));
  });

  it('a click leaves no button that would take them', async () => {
    bench(open('recording'));
    await frame({});
    const button = screen.getByRole('button', { name: /Stop here/ });
    act(() => button.focus());
    expect(fireEvent.mouseDown(button)).toBe(false);
    expect(button).not.toHaveFocus();
  });

  it('Enter proves once more what a later step waits for, instead of going round between the two', async () => {
    const asked = answering(200, { id: 'r2' });
    const shut = { why: 'charged since', opener: 'vacuum-draw' };
    const view = jobView({}, { 'vacuum-draw': 'pass' });
    const steps = view.steps.map((step) =>
      step.id === 'vacuum-draw'
        ? {
            ...step,
            runs: [
              {
                id: 'r1',
                startedAt: '',
                person: 'Ilse Varga',
                struckOut: null,
                recorded: true,
                keptBy: null,
                struckOutBy: null,
                round: 1,
                ofThisRound: true,
              },
            ],
          }
        : step.id === 'boost-curve'
          ? { ...step, shut }
          : step,
    );
    bench({ ...view, steps }, 'vacuum-draw');
    await frame({ kind: 'whole', state: 'kept', status: null });
    expect(screen.getByRole('button', { name: /Once more for boost curve/ })).toBeInTheDocument();
    fireEvent.keyDown(document.body, { key: 'Enter', code: 'Enter' });
    await waitFor(() => expect(asked.some((each) => each.path === '/api/jobs/j1/runs')).toBe(true));
  });
});

describe('bench after a run', () => {
  const result = evaluation('boost-curve', 'undecided', {
    characteristics: [{ kind: 'absent', id: 'hysteresis', problem: { code: 'no-way-back' } }],
  });

  it('shows what was found, keeps it on Enter and goes on to the next step', async () => {
    answering(200, {}, result);
    bench(open('complete'));
    await frame({ state: 'complete', status: null });
    expect(headline()).toHaveTextContent('Keep this run, or run it again?');
    expect(await screen.findByText(/The way back is missing/)).toBeInTheDocument();
    const asked = answering(200, {});
    fireEvent.keyDown(document.body, { key: 'Enter', code: 'Enter' });
    await waitFor(() => expect(push).toHaveBeenCalledWith('/jobs/j1/bench/vacuum-hold-applied'));
    expect(asked[0]).toMatchObject({ path: '/api/runs/r1', body: { action: 'keep' } });
  });

  it('sets a finished run aside when the step is run again', async () => {
    answering(200, {}, result);
    bench(open('complete'));
    await frame({ state: 'complete', status: null });
    const asked = answering(200, { id: 'r2' });
    fireEvent.keyDown(document.body, { key: 'r', code: 'KeyR' });
    await waitFor(() => expect(asked[0]).toMatchObject({ path: '/api/jobs/j1/runs', body: { again: true } }));
    await waitFor(() => expect(FakeStream.latest.address).toBe('/api/runs/r2/stream'));
  });

  it('throws a finished run away on X, and brings it back on request', async () => {
    answering(200, {}, result);
    const undoable = [
      { act: 7, what: 'discarded', of: { id: 'boost-curve', title: 'Boost curve' }, person: 'Ilse Varga', at: '' },
    ] as const;
    bench({ ...open('complete'), undoable });
    await frame({ state: 'complete', status: null });
    const asked = answering(200, {});
    fireEvent.keyDown(document.body, { key: 'x', code: 'KeyX' });
    await waitFor(() => expect(asked[0]).toMatchObject({ path: '/api/runs/r1', body: { action: 'discard' } }));
    fireEvent.click(screen.getByRole('button', { name: /^Bring back: A run of “Boost curve”/ }));
    await waitFor(() => expect(asked.at(-1)).toMatchObject({ path: '/api/acts/7' }));
  });

  it('offers an interrupted run for resuming, judging or repeating', async () => {
    bench(open('interrupted'));
    await frame({ state: 'interrupted', status: null });
    expect(headline()).toHaveTextContent('This run was interrupted');
    expect(screen.getByRole('button', { name: /Judge what is there/ })).toBeInTheDocument();
    expect(screen.getByRole('button', { name: /Run it again/ })).toBeInTheDocument();
    const asked = answering(200, {});
    fireEvent.click(screen.getByRole('button', { name: /Resume/ }));
    await waitFor(() => expect(asked[0]).toMatchObject({ path: '/api/runs/r1', body: { action: 'resume' } }));
  });

  it('greys what is from before once nothing comes for two seconds, and heals without a trace', async () => {
    bench(open('recording'));
    await frame({});
    expect(screen.queryByRole('alert')).not.toBeInTheDocument();
    await act(() => new Promise((resolve) => setTimeout(resolve, 2_600)));
    expect(headline()).toHaveTextContent('No word from the server');
    expect(screen.getByRole('alert')).toHaveTextContent('pressure may be on');
    expect(screen.getByRole('complementary', { name: 'Readings from before' })).toBeInTheDocument();
    await frame({ kind: 'more' }, samples(20, 400));
    expect(headline()).toHaveTextContent('Pull the lever slowly');
    expect(screen.queryByRole('alert')).not.toBeInTheDocument();
    expect(screen.getByRole('complementary', { name: 'Readings' })).toBeInTheDocument();
  });

  it('makes a connection again that was lost', async () => {
    bench(open('recording'));
    await frame({});
    const first = FakeStream.latest;
    await act(async () => {
      first.end();
      await new Promise((resolve) => setTimeout(resolve, 1_300));
    });
    expect(FakeStream.latest).not.toBe(first);
    expect(FakeStream.latest.address).toBe('/api/runs/r1/stream');
  });

  it('gives up a connection that is open at this end only, and makes it anew', async () => {
    bench(open('recording'));
    await frame({});
    const first = FakeStream.latest;
    await act(() => new Promise((resolve) => setTimeout(resolve, 7_800)));
    expect(FakeStream.latest).not.toBe(first);
    expect(headline()).toHaveTextContent('No word from the server');
    await frame({ kind: 'whole' });
    expect(headline()).toHaveTextContent('Pull the lever slowly');
  });

  it.each([
    ['complete', 'Another screen has ended this run'],
    ['discarded', 'Another screen has thrown this run away'],
  ])('is told that another screen has made a run %s', async (state, told) => {
    answering(200, evaluation('boost-curve', 'pass'));
    bench(open('recording'));
    await frame({});
    await frame({ kind: 'more', state, status: null }, samples(0));
    expect(await screen.findByRole('alert')).toHaveTextContent(told);
  });
});
