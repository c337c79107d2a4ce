import { render, screen } from '@testing-library/react';
import { Reading } from '../bench/reading';
import type { StepEvaluation } from '@/core/judging/evaluate-unit';
import type { CharacteristicId } from '@/core/quantities/characteristics';
import { StepResults } from '../bench/step-results';
import { unitOf } from '@/core/quantities/measurement-unit';
import { displayUnits } from '@/core/wording/display';
import { facePaths } from '@/core/pictures/face-paths';
import { UnitFace } from './unit-face';
import { VerdictMark, type ShownVerdict } from './verdict-mark';

describe('verdict mark', () => {
  it('every verdict has a word and a shape of its own, not colour alone', () => {
    const verdicts: readonly ShownVerdict[] = ['pass', 'fail', 'undecided', 'recorded', 'not-run'];
    const shapes = verdicts.map((verdict) => {
      const { container, unmount } = render(<VerdictMark verdict={verdict} />);
      expect(container.textContent).not.toBe('');
      const shape = (container.querySelector('svg')?.innerHTML ?? '').replace(/var\(--[a-z-]+\)/g, '');
      unmount();
      return shape;
    });
    expect(new Set(shapes).size).toBe(verdicts.length);
  });
});

describe('unit face', () => {
  const size = { width: 96, height: 68 };
  const face = { input: [0, 1], low: [0, 1], high: [0, 2], measured: null };
  it('stands empty until it has been measured', () => {
    const { rerender } = render(<UnitFace face={facePaths(face, size)} />);
    expect(screen.getByRole('img')).toHaveAccessibleName(/not measured yet/);
    rerender(
      <UnitFace
        face={facePaths(
          {
            ...face,
            measured: {
              apply: [
                [0, 0],
                [1, 1],
              ],
              wayBack: [],
            },
          },
          size,
        )}
      />,
    );
    expect(screen.getByRole('img')).toHaveAccessibleName(/Measured over the band/);
  });
});

describe('reading', () => {
  it('shows figure, unit, reference and peak, and a dash before the first sample', () => {
    const props = { title: 'Output', unit: unitOf('MPa'), reference: 'gauge', band: undefined, end: 8e6 };
    const { rerender } = render(<Reading {...props} value={4.87e6} tick={{ word: 'peak', value: 7.41e6 }} />);
    expect(screen.getByRole('region', { name: 'Output' })).toHaveTextContent('4.87MPa gauge');
    expect(screen.getByText('peak 7.41')).toBeInTheDocument();
    rerender(<Reading {...props} value={undefined} tick={null} />);
    expect(screen.getByRole('status')).toHaveTextContent('–');
  });
});

describe('results of a run', () => {
  it('says what would decide an undecided check', () => {
    render(
      <StepResults
        units={displayUnits('kpa')}
        result={{
          step: 'vacuum-hold-rest',
          verdict: 'undecided',
          optional: false,
          findings: null,
          doubts: [],
          analyses: [],
          characteristics: [
            {
              kind: 'measured',
              id: 'vacuum-loss',
              estimate: { value: 3200, components: [{ source: 'fit', standard: 100, random: true }] },
            },
          ],
          checks: [
            {
              characteristic: 'vacuum-loss',
              guard: 200,
              limit: {
                characteristic: 'vacuum-loss',
                low: null,
                high: 3300,
                expected: 0,
                standard: 0,
                source: { kind: 'workshop', key: 'vacuumLoss' },
              },
              verdict: { kind: 'undecided', remedies: [{ kind: 'repeats', count: 4 }] },
            },
          ],
        }}
      />,
    );
    expect(screen.getByText(/3.20 ± 0.20 kPa/)).toBeInTheDocument();
    expect(screen.getByText(/4 repeats in all would decide/)).toBeInTheDocument();
  });

  it('says a reason that all of its figures share once, and reasons of their own with each', () => {
    const absent = (id: CharacteristicId, every: number) =>
      ({
        kind: 'absent',
        id,
        problem: { code: 'logged-too-slowly', channel: 'input_pressure', every, needed: 5 },
      }) as const;
    const result = (every: number): StepEvaluation => ({
      step: 'boost-curve',
      verdict: 'undecided',
      optional: false,
      findings: null,
      doubts: [],
      analyses: [],
      characteristics: [absent('cut-in-pressure', 1), absent('run-out-input', every)],
      checks: [],
    });
    const { rerender } = render(<StepResults units={displayUnits('kpa')} result={result(1)} />);
    expect(screen.getAllByText(/was read every 1.0 s only/)).toHaveLength(1);
    rerender(<StepResults units={displayUnits('kpa')} result={result(2)} />);
    expect(screen.getAllByText(/was read every [12].0 s only/)).toHaveLength(2);
  });
});
