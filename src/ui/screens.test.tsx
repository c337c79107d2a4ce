import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { JobView } from '@/server/views/job-view';
import { floorCard, floorView } from '../../tests/support/floor-card';
import { answering, kind, jobView, show } from '../../tests/support/screens';
import { push, refresh } from '../../tests/support/router';
import { LookBench } from './bench/look-bench';
import { Lever } from './bench/lever';
import { StepList } from './bench/step-list';
import { Floor } from './floor/floor';
import { JobPage } from './job/job-page';
import { ReleasePage } from './release/release-page';
import { displayUnits } from '@/core/wording/display';

describe('floor', () => {
  it('counts a running hold down by the wall clock', () => {
    const endsAt = new Date(Date.now() + 9_000).toISOString();
    const openRun = {
      kind: 'recording',
      id: 'r1',
      step: 'vacuum-hold-rest',
      hold: { seconds: 17, endsAt },
      title: 'Vacuum hold, at rest',
    } as const;
    show(<Floor floor={floorView({ jobs: [floorCard({ openRun })] })} air="Air 85.4 kPa" today="Monday" />);
    expect(screen.getByRole('timer', { name: /TK-2207-118, Vacuum hold, at rest: \d+ s left/ })).toBeInTheDocument();
  });

  it('puts every unit where it stands, and says what belongs in empty places', () => {
    show(
      <Floor
        floor={floorView({ jobs: [floorCard({ failed: 'Vacuum hold, at rest' })] })}
        air="Air 85.4 kPa"
        today="Monday"
      />,
    );
    const bench = screen.getByRole('region', { name: 'On the bench' });
    expect(within(bench).getByText(/TK-2207-118/)).toBeInTheDocument();
    expect(within(bench).getByText('Fail')).toBeInTheDocument();
    expect(
      within(screen.getByRole('region', { name: 'Ready' })).getByText(/stand here until they are fetched/),
    ).toBeInTheDocument();
    expect(screen.getByRole('region', { name: 'Needs a person now' })).toHaveTextContent('Vacuum hold, at rest failed');
    expect(screen.getByRole('link', { name: /Book in a unit/ })).toHaveAttribute('href', '/book-in');
  });

  it('shows all that needs somebody, and counts it', () => {
    const jobs = ['a', 'b', 'c', 'd'].map((id) => floorCard({ blocked: false, overdue: ['Output gauge 2'] }, { id }));
    show(<Floor floor={floorView({ jobs })} air="" today="Monday" />);
    const strip = within(screen.getByRole('region', { name: 'Needs a person now' }));
    expect(strip.getByRole('heading', { name: 'Needs somebody 5' })).toBeInTheDocument();
    expect(strip.getAllByRole('link')).toHaveLength(5);
    expect(strip.getByRole('link', { name: /A calibration is overdue/ })).toHaveAttribute('href', '/instruments');
  });

  it('a job that cannot be read is a card that says so', () => {
    const broken = [{ id: 'x', number: 2619, serial: 'TK-9', why: 'Its record is damaged (sheet).' }];
    show(<Floor floor={floorView({ broken })} air="" today="Monday" />);
    expect(screen.getByRole('region', { name: 'Cannot be read' })).toHaveTextContent('Job 2619 · TK-9');
    expect(screen.getByRole('region', { name: 'Cannot be read' })).toHaveTextContent('Its record is damaged (sheet).');
    expect(screen.getByRole('heading', { name: /Waiting for the bench/ })).toBeInTheDocument();
  });

  it('says what is being judged anew, and how far that has come', async () => {
    const floor = floorView({ judging: { done: 3, of: 12 } });
    show(<Floor floor={floor} air="" today="Monday" />);
    expect(screen.getByRole('region', { name: 'Judged anew' })).toHaveTextContent('3 of 12 units are judged anew');
    const bar = await screen.findByRole('progressbar', { name: 'Judged anew so far' });
    expect(bar).toHaveAttribute('aria-valuenow', '25');
  });

  it('asks once for the time zone, and says what cannot be read and when the clock ran back', async () => {
    const clockRanBack = [{ at: '2026-11-26T09:42:00Z', seconds: 3720 }];
    show(<Floor floor={floorView({ zoneSet: false, unreadable: ['settings'], clockRanBack })} air="" today="Monday" />);
    expect(await screen.findByText(/By which time zone/)).toBeInTheDocument();
    expect(await screen.findByText(/settings cannot be read\. Nothing can be measured/)).toBeInTheDocument();
    expect(screen.getByText(/ran back by 1 h 2 min; that was seen 26 Nov, 10:42/)).toBeInTheDocument();
  });

  it('says so when nothing needs anybody', () => {
    show(<Floor floor={floorView({ jobs: [] })} air="" today="Monday" />);
    expect(screen.getByText('Nothing needs you now')).toBeInTheDocument();
  });
});

describe('job', () => {
  it('that was taken out of the book offers nothing but to be brought back', () => {
    const view = jobView({
      undoable: [{ act: 3, what: 'taken-out', of: null, person: 'Ilse Varga', at: '2026-11-26T10:00:00Z' }],
    });
    show(<JobPage view={{ ...view, job: { ...view.job, takenOutAt: '2026-11-26T10:00:00Z' } }} />);
    expect(screen.getByRole('status')).toHaveTextContent('taken out of the book');
    expect(screen.queryByRole('link', { name: /^To the bench/ })).not.toBeInTheDocument();
    expect(screen.queryByRole('button', { name: /take it out/ })).not.toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Bring back: Taken out of the book' })).toBeInTheDocument();
  });

  it('lists the plan in order and opens a failed step to its arithmetic', () => {
    show(<JobPage view={jobView({}, { 'vacuum-hold-rest': 'fail' })} />);
    const rows = within(screen.getByRole('region', { name: 'Run sheet' }))
      .getAllByRole('listitem')
      .filter((row) => row.querySelector('details') && row.parentElement?.tagName === 'OL');
    expect(rows).toHaveLength(kind.steps.length);
    const failed = rows[kind.steps.findIndex((step) => step.id === 'vacuum-hold-rest')];
    expect(failed.querySelector('details')).toHaveAttribute('open');
    expect(within(failed).getByText('5.20 ± 0.30 kPa')).toBeInTheDocument();
    expect(within(failed).getByText('at most 3.30 kPa')).toBeInTheDocument();
    expect(within(failed).getByText(/gain of the gauge: u = 0.150 kPa/)).toBeInTheDocument();
    expect(within(failed).getByText(/No volume on the sheet/)).toBeInTheDocument();
    expect(screen.getByRole('link', { name: /To the bench: look over/ })).toHaveAttribute(
      'href',
      '/jobs/j1/bench/look-over',
    );
  });

  it('strikes a run out only with a reason', async () => {
    const view = jobView({}, { 'vacuum-draw': 'pass' });
    const steps = view.steps.map((step) =>
      step.id === 'vacuum-draw'
        ? {
            ...step,
            runs: [
              {
                id: 'r1',
                startedAt: '2026-11-23T09:00:00Z',
                person: 'Noor Halabi',
                struckOut: null,
                recorded: true,
                keptBy: null,
                round: 1,
                ofThisRound: true,
                struckOutBy: null,
              },
            ],
          }
        : step,
    );
    show(<JobPage view={{ ...view, steps }} />);
    fireEvent.click(screen.getByText('strike out'));
    answering(422, { message: 'Say why in a few words', fields: {} });
    fireEvent.click(screen.getByRole('button', { name: 'Strike out', hidden: true }));
    await screen.findByText('Say why in a few words');
    const asked = answering(200, {});
    fireEvent.change(screen.getByLabelText('Why it does not count'), { target: { value: 'lever slipped' } });
    fireEvent.click(screen.getByRole('button', { name: 'Strike out', hidden: true }));
    await waitFor(() => expect(refresh).toHaveBeenCalled());
    expect(asked).toEqual([
      {
        path: '/api/runs/r1',
        method: 'POST',
        body: { action: 'strike-out', reason: 'lever slipped', person: 'Ilse Varga' },
      },
    ]);
  });

  it('moves a unit to another place', async () => {
    const asked = answering(200, {});
    show(<JobPage view={jobView()} />);
    fireEvent.change(screen.getByLabelText('Place'), { target: { value: 'waiting-parts' } });
    await waitFor(() => expect(refresh).toHaveBeenCalled());
    expect(asked[0]).toMatchObject({ path: '/api/jobs/j1/place', method: 'PUT', body: { place: 'waiting-parts' } });
  });

  it('offers the release once nothing stands in the way', () => {
    show(<JobPage view={jobView({ nextStep: null, blocking: [], verdict: 'pass' })} />);
    expect(screen.getByRole('link', { name: 'Release it' })).toHaveAttribute('href', '/jobs/j1/release');
  });
});

describe('look step', () => {
  const bench = (over: Partial<JobView> = {}) => (
    <LookBench view={jobView(over)} step="leak-look" air="" appearance={{ 'end-cap': 'dripping' }} />
  );

  it('is marked by key on the sketch: a number chooses the point, a letter says how it looks', () => {
    show(bench());
    const points = screen.getAllByRole('button', { name: /^\d, / });
    expect(points).toHaveLength(7);
    expect(points[0]).toHaveAttribute('aria-pressed', 'true');
    fireEvent.keyDown(document.body, { key: 'w', code: 'KeyW' });
    expect(screen.getAllByRole('radio', { name: /Damp/ })[0]).toBeChecked();
    expect(screen.getByRole('button', { name: '2, Fittings' })).toHaveAttribute('aria-pressed', 'true');
    fireEvent.keyDown(document.body, { key: '4', code: 'Digit4' });
    fireEvent.keyDown(document.body, { key: 'q', code: 'KeyQ' });
    expect(screen.getAllByRole('radio', { name: /Dry/ })[3]).toBeChecked();
  });

  it('asks for the cautions first', async () => {
    const asked = answering(200, {});
    show(bench({ cautions: [] }));
    expect(screen.getByRole('heading', { level: 1 })).toHaveTextContent('Read these first');
    expect(screen.getByText(/pierces skin/)).toBeInTheDocument();
    fireEvent.click(screen.getByRole('button', { name: /I have read these/ }));
    await waitFor(() => expect(refresh).toHaveBeenCalled());
    expect(asked[0].body).toMatchObject({ cautions: ['fluid-jet', 'never-loosen'], person: 'Ilse Varga' });
  });

  it('keeps what was marked when the page is loaded again, and sends it by name', async () => {
    const first = show(bench());
    expect(screen.getByText('On the stand-in: dripping')).toBeInTheDocument();
    const points = screen.getAllByRole('group');
    fireEvent.click(within(points[0]).getByLabelText(/^Dripping/));
    expect(screen.getByText('6 of 7 points still to say')).toBeInTheDocument();
    first.unmount();
    show(bench());
    expect(within(screen.getAllByRole('group')[0]).getByLabelText(/^Dripping/)).toBeChecked();
    fireEvent.click(screen.getByRole('button', { name: /The rest: dry/ }));
    expect(screen.getByText('Every point has a word')).toBeInTheDocument();
    const asked = answering(200, {});
    fireEvent.click(screen.getByRole('button', { name: /Keep these findings/ }));
    await waitFor(() => expect(push).toHaveBeenCalledWith('/jobs/j1/bench/release'));
    expect(asked[0].body).toMatchObject({ step: 'leak-look', findings: { 'end-cap': 'dripping', fittings: 'dry' } });
  });

  it('says what the server refused and keeps the marks', async () => {
    answering(422, { message: 'Say how these look: fittings.', fields: {} });
    show(bench());
    fireEvent.click(within(screen.getAllByRole('group')[0]).getByLabelText(/^Damp/));
    fireEvent.click(screen.getByRole('button', { name: /Keep these findings/ }));
    expect(await screen.findByRole('alert')).toHaveTextContent('Say how these look: fittings.');
    expect(within(screen.getAllByRole('group')[0]).getByLabelText(/^Damp/)).toBeChecked();
  });
});

describe('bench parts', () => {
  it('the step list marks where one is', () => {
    show(<StepList view={jobView({}, { 'look-over': 'recorded' })} current="vacuum-draw" />);
    expect(screen.getByRole('link', { current: 'step' })).toHaveTextContent('Vacuum draw');
    expect(screen.getByRole('link', { name: /Look over/ })).toHaveTextContent('recorded');
  });

  it('the lever answers to the keyboard and says its pressure', () => {
    const onPull = jest.fn();
    show(
      <Lever
        channel="input_pressure"
        value={1e6}
        maximum={4e6}
        units={displayUnits('bar')}
        disabled={false}
        onPull={onPull}
      />,
    );
    const lever = screen.getByRole('slider', { name: 'Lever' });
    expect(lever).toHaveAttribute('aria-valuetext', '10.0 bar gauge');
    fireEvent.keyDown(lever, { key: 'PageUp' });
    expect(onPull.mock.calls[0][0]).toBeCloseTo(1.1e6, -4);
    fireEvent.keyDown(lever, { key: 'Home' });
    expect(onPull).toHaveBeenLastCalledWith(0);
  });
});

describe('release page', () => {
  it('offers findings only while steps stand in the way', async () => {
    const asked = answering(200, { id: 'x' });
    show(<ReleasePage view={jobView()} />);
    expect(screen.queryByRole('button', { name: 'Issue the release' })).not.toBeInTheDocument();
    expect(screen.getByRole('link', { name: 'Look over' })).toHaveAttribute('href', '/jobs/j1/bench/look-over');
    fireEvent.click(screen.getByRole('button', { name: 'Issue findings only' }));
    await waitFor(() => expect(refresh).toHaveBeenCalled());
    expect(asked[0].body).toEqual({ kind: 'findings-only', person: 'Ilse Varga', units: 'kpa' });
  });

  it('once released says so, and a second paper is no longer what one comes for', () => {
    const releases = [
      { id: 'p1', kind: 'released', issuedAt: '2026-11-24T10:00:00Z', person: 'Ilse Varga', withdrawn: null },
    ] as const;
    show(<ReleasePage view={jobView({ blocking: [], releases })} />);
    expect(screen.getByRole('heading', { name: 'It is released' })).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: 'Issue the release' })).not.toBeInTheDocument();
    expect(screen.queryByRole('button', { name: /Issue/ })).not.toBeInTheDocument();
    expect(screen.getByTitle('Issued paper')).toHaveAttribute('src', '/api/releases/p1/html');
  });

  it('says why a release no longer stands, and what the inquiry ended at', () => {
    const withdrawn = { at: '2026-11-24T12:00:00Z', why: 'Boost curve: fails' };
    const releases = [
      { id: 'p1', kind: 'released', issuedAt: '2026-11-24T10:00:00Z', person: 'Ilse Varga', withdrawn },
    ] as const;
    const blocking = [
      { job: 'j1', step: 'behind-the-booster', title: 'A brake hose is swollen', verdict: null },
      { job: 'j2', step: null, title: 'The combination valve stands to one side', verdict: null },
    ] as const;
    show(<ReleasePage view={jobView({ blocking, releases })} />);
    expect(screen.getByRole('heading', { name: 'It cannot be released' })).toBeInTheDocument();
    expect(screen.getByText(/no longer stands/)).toHaveTextContent('Boost curve: fails');
    expect(screen.getByRole('link', { name: 'A brake hose is swollen' })).toHaveAttribute(
      'href',
      '/jobs/j1/bench/behind-the-booster',
    );
    expect(screen.getByRole('link', { name: /^The combination valve/ })).toHaveAttribute('href', '/jobs/j2');
  });

  it('shows what the server refused', async () => {
    answering(409, { message: 'Not releasable: Boost curve (fail).', fields: {} });
    show(<ReleasePage view={jobView({ blocking: [] })} />);
    fireEvent.click(screen.getByRole('button', { name: 'Issue the release' }));
    expect(await screen.findByRole('alert')).toHaveTextContent('Not releasable');
  });
});
