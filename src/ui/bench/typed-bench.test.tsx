import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { kindNamed } from '@/core/families';
import { answering, jobView, jobViewOf, show } from '../../../tests/support/screens';
import { push } from '../../../tests/support/router';
import { TypedBench } from './typed-bench';

const at = {
  site: { altitudeM: 1420, airTemperatureC: 11, benchVolumeCm3: 600 },
  date: '2026-11-24T10:00:00Z',
  air: 'Air 85.4 kPa',
  policy: 'guarded',
} as const;
const bench = (step = 'vacuum-hold-rest', view = jobView()) => show(<TypedBench view={view} step={step} {...at} />);
const inputs = () => screen.getAllByRole<HTMLInputElement>('textbox');
const said = (input: HTMLElement) => document.getElementById(input.getAttribute('aria-describedby') ?? '')!;
const type = (input: HTMLElement, value: string) => fireEvent.change(input, { target: { value } });
const enter = (input: HTMLElement) => act(async () => fireEvent.keyDown(input, { key: 'Enter' }));

describe('dial readings as they are typed', () => {
  it.each([
    ['14 inHg', '47.41 kPa vacuum'],
    ['0.55bar', '55 kPa vacuum'],
    ['0,55 bar', '55 kPa vacuum'],
    ['-0.55 bar', '55 kPa vacuum, read as negative gauge'],
    ['30 kPa abs', '55.39 kPa vacuum, read as absolute'],
    ['58', '58 kPa vacuum'],
  ])('%s is understood as %s', (text, expected) => {
    bench();
    const [first] = inputs();
    type(first, text);
    expect(said(first)).toHaveTextContent(expected);
    expect(first).toHaveAttribute('aria-invalid', 'false');
  });

  it.each([
    ['fifty', '“fifty” is not a figure'],
    ['50 furlong', 'the unit “furlong” is not known'],
    ['50 N', '“N” does not measure this'],
    ['500 kPa', 'Hardly: look again.'],
  ])('%s is questioned at once: %s', (text, expected) => {
    bench();
    const [first] = inputs();
    type(first, text);
    expect(said(first)).toHaveTextContent(expected);
    expect(first).toHaveAttribute('aria-invalid', 'true');
  });

  it('a figure keeps the unit it was typed in, whatever is shown afterwards', () => {
    bench();
    const [first] = inputs();
    type(first, '0.57');
    expect(said(first)).toHaveTextContent('0.57 kPa vacuum');
    window.localStorage.setItem('hard-pedal-units', 'bar');
    act(() => void window.dispatchEvent(new Event('storage')));
    expect(said(inputs()[0])).toHaveTextContent('5.7 mbar vacuum');
    window.localStorage.removeItem('hard-pedal-units');
  });

  it('what is hardly so is kept only once somebody says that it is', async () => {
    const asked = answering(200, { id: 'r1' });
    bench();
    const fields = inputs();
    for (const [i, text] of ['95 kPa', '60', '94 kPa'].entries()) type(fields[i], text);
    await enter(fields[0]);
    fireEvent.click(screen.getByRole('button', { name: /Keep these readings/ }));
    expect(await screen.findByRole('alert')).toHaveTextContent('answer the question beside it');
    expect(asked).toEqual([]);
    for (const button of screen.getAllByRole('button', { name: 'it is so' })) fireEvent.click(button);
    expect(said(fields[0])).toHaveTextContent('looked at again');
    fireEvent.click(screen.getByRole('button', { name: /Keep these readings/ }));
    await waitFor(() => expect(asked).toHaveLength(1));
    expect(asked[0].body).toMatchObject({ confirmed: ['start', 'end'] });
  });

  it('a comma before three figures is asked about beside its field', () => {
    bench();
    const [first] = inputs();
    type(first, '58,000 Pa');
    fireEvent.click(screen.getByRole('button', { name: 'it is 58000 Pa' }));
    expect(first).toHaveValue('58000 Pa');
    expect(said(first)).toHaveTextContent('58 kPa vacuum');
    expect(screen.queryByRole('button', { name: /it is/ })).not.toBeInTheDocument();
  });

  it('Enter moves on from field to field, and from the last one keeps them', async () => {
    const asked = answering(200, { id: 'r1' });
    bench();
    const fields = inputs();
    const texts = ['60 kPa', '60', '59.5 kPa'];
    fields[0].focus();
    for (const [i, field] of fields.entries()) {
      expect(document.activeElement).toBe(field);
      type(field, texts[i] ?? '');
      await enter(field);
    }
    await waitFor(() => expect(push).toHaveBeenCalledTimes(1));
    expect(asked[0]).toMatchObject({
      path: '/api/jobs/j1/readings',
      body: { step: 'vacuum-hold-rest', person: 'Ilse Varga', standIn: false },
    });
    expect(asked[0].body.readings).toEqual({ start: 60_000, seconds: 60, end: 59_500 });
  });

  it('are judged with what there is so far, each with its uncertainty', () => {
    bench();
    expect(screen.getByText(/appear here as you type/)).toBeInTheDocument();
    const [start, seconds, end] = inputs();
    type(start, '60');
    type(seconds, '15');
    type(end, '40');
    expect(screen.getByRole('heading', { name: /So far/ })).toHaveTextContent('Fail');
    type(end, '59.9');
    expect(screen.getByRole('heading', { name: /So far/ })).not.toHaveTextContent('Fail');
  });

  it('are there again after a reload, and gone once they are kept', async () => {
    const { unmount } = bench();
    type(inputs()[0], '60 kPa');
    unmount();
    answering(200, { id: 'r1' });
    const again = bench();
    expect(inputs()[0]).toHaveValue('60 kPa');
    type(inputs()[1], '60');
    type(inputs()[2], '59.5 kPa');
    await act(async () => fireEvent.click(screen.getByRole('button', { name: /Keep these readings/ })));
    await waitFor(() => expect(push).toHaveBeenCalled());
    again.unmount();
    bench();
    expect(inputs()[0]).toHaveValue('');
  });

  it('one that cannot be read is not sent, and takes the focus', async () => {
    const asked = answering(200, {});
    bench();
    type(inputs()[0], '60');
    type(inputs()[2], 'about 59');
    await act(async () => fireEvent.click(screen.getByRole('button', { name: /Keep these readings/ })));
    expect(screen.getByRole('alert')).toHaveTextContent('cannot be read: “about 59” is not a figure');
    expect(document.activeElement).toBe(inputs()[2]);
    expect(asked).toEqual([]);
  });

  it('what the server still misses takes the focus, and nothing typed is lost', async () => {
    bench();
    type(inputs()[0], '60');
    const missing = inputs()[2].id.replace('reading-', '');
    answering(422, { message: 'Still to read: vacuum at the end.', fields: { [missing]: 'not read yet' } });
    await act(async () => fireEvent.click(screen.getByRole('button', { name: /Keep these readings/ })));
    expect(await screen.findByRole('alert')).toHaveTextContent('Still to read');
    expect(document.activeElement).toBe(inputs()[2]);
    expect(inputs()[0]).toHaveValue('60');
  });

  it('a damaged draft is an empty one', () => {
    window.localStorage.setItem('hard-pedal-readings-j1-vacuum-hold-rest', '{"broken');
    bench();
    expect(inputs()[0]).toHaveValue('');
  });

  it('survive a browser whose store is full', () => {
    const full = jest.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    bench();
    type(inputs()[0], '60 kPa');
    expect(inputs()[0]).toHaveValue('60 kPa');
    expect(screen.getByText(/a reload would lose it/)).toBeInTheDocument();
    full.mockRestore();
    type(inputs()[0], '61 kPa');
    expect(screen.queryByText(/a reload would lose it/)).not.toBeInTheDocument();
  });
});

describe('a gauge of the stand-in', () => {
  const inline = kindNamed('vacuum-inline');
  const typedStep = inline.steps.find((step) => step.kind === 'typed')!;
  const plan = inline.plans.find((each) => each.steps.includes(typedStep.id))!;

  it('fills the fields in, and the readings count as the stand-in’s from then on', async () => {
    bench(typedStep.id, jobViewOf(inline, plan.id));
    const ids = inputs().map((input) => input.id.replace('reading-', ''));
    const readings = Object.fromEntries(ids.map((id) => [id, 0.0031]));
    const asked = answering(200, readings);
    await act(async () => fireEvent.click(screen.getByRole('button', { name: /Read the stand-in/ })));
    expect(asked[0].path).toBe(`/api/jobs/j1/readings?step=${typedStep.id}`);
    for (const input of inputs()) expect(input.value).toMatch(/^\d/);
    await act(async () => fireEvent.click(screen.getByRole('button', { name: /Keep these readings/ })));
    await waitFor(() => expect(push).toHaveBeenCalled());
    expect(asked[1].body).toMatchObject({ step: typedStep.id, standIn: true });
  });
});

describe('a step that is read in rows, or by foot', () => {
  const inline = (step: string, plan: 'bench' | 'vehicle') =>
    show(<TypedBench view={jobViewOf(kindNamed('vacuum-inline'), plan)} step={step} {...at} />);

  it('shows how a figure follows from what was typed', () => {
    inline('release', 'bench');
    type(screen.getByLabelText(/Output before the push/), '0.02');
    type(screen.getByLabelText(/Output once it stands/), '0.05');
    expect(screen.getByRole('complementary')).toHaveTextContent('0.05 MPa − 0.02 MPa');
  });

  it('has a row more than was filled, and keeps a place for what stands further down', () => {
    inline('assist-curve', 'bench');
    expect(screen.getAllByLabelText(/Force, row/)).toHaveLength(4);
    for (let row = 1; row <= 4; row++) type(screen.getByLabelText(`Force, row ${row}`), String(row * 50));
    expect(screen.getAllByLabelText(/Force, row/)).toHaveLength(5);
    type(screen.getByLabelText('Force, row 5'), '300');
    type(screen.getByLabelText('Force, row 4'), '');
    expect(screen.getByLabelText('Force, row 5')).toHaveValue('300');
  });

  it('has the same fields on a worksheet for paper, and lines enough', () => {
    const { container } = inline('reserve', 'vehicle');
    const onPaper = () => container.querySelector('section[aria-hidden=true]');
    expect(onPaper()).toBeNull();
    const print = jest.spyOn(window, 'print').mockImplementation(() => undefined);
    fireEvent.click(screen.getByRole('button', { name: 'Print a worksheet' }));
    expect(print).toHaveBeenCalledTimes(1);
    const sheet = onPaper()!;
    expect(sheet).toHaveTextContent('helped, half helped, hard');
    expect(sheet.querySelectorAll('tbody tr')).toHaveLength(16);
    fireEvent(window, new Event('afterprint'));
    expect(onPaper()).toBeNull();
    print.mockRestore();
  });

  it('a stroke that is tapped counts at once', () => {
    inline('reserve', 'vehicle');
    const tap = (row: number, felt: string) =>
      fireEvent.click(within(screen.getByRole('radiogroup', { name: `Stroke, row ${row}` })).getByLabelText(felt));
    tap(1, 'helped');
    tap(2, 'helped');
    expect(screen.getByRole('complementary')).toHaveTextContent('there may be more in reserve');
    tap(3, 'hard');
    expect(screen.getByRole('complementary')).toHaveTextContent('2 strokes');
  });
});
