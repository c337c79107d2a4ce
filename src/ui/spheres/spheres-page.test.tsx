import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { SphereLife } from '@/server/shop/spheres';
import { answering, show } from '../../../tests/support/screens';
import { refresh } from '../../../tests/support/router';
import { SpheresPage } from './spheres-page';

const today = 20_780;
const dayLength = 86_400_000;

function sphere(serial: string, precharges: readonly number[], over: Partial<SphereLife> = {}): SphereLife {
  return {
    serial,
    purpose: 'brake',
    fluid: 'mineral',
    precharge: 6.2e6,
    fittedTo: null,
    checks: precharges.map((precharge, i) => ({
      serial,
      at: new Date((today - (precharges.length - 1 - i) * 182) * dayLength).toISOString(),
      reading: precharge,
      temperature: 293.15,
      precharge,
      standard: 20e3,
      person: 'Tomas Rehn',
    })),
    ...over,
  } as SphereLife;
}

const leaking = sphere('UG-S-0413', [6.2e6, 6.1e6, 6.0e6, 5.9e6, 5.8e6], { fittedTo: 'Ullerby Glacier' });
const fresh = sphere('UG-S-1190', [6.18e6]);
const sheets = [{ id: 'ullerby-glacier', name: 'Ullerby Glacier central system' }];

const page = (spheres: readonly SphereLife[], chosen: string | null = null) =>
  show(<SpheresPage spheres={spheres} sheets={sheets} chosen={chosen} today={today} />);

describe('spheres', () => {
  it('an empty book says what belongs in it', () => {
    page([]);
    expect(screen.getByText(/No sphere is in the book/)).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Enter a sphere' })).toBeInTheDocument();
  });

  it('lists each with its purpose and when it is looked at again', () => {
    page([leaking, fresh]);
    const list = screen.getByRole('navigation', { name: 'Spheres' });
    expect(within(list).getAllByRole('listitem')).toHaveLength(2);
    expect(within(list).getAllByText(/check by|check overdue since/)).toHaveLength(2);
  });

  it('tells the life of the one chosen: plate, place, last reading, and where it is going', () => {
    page([leaking, fresh], 'UG-S-0413');
    const life = screen.getByRole('region', { name: 'Life of UG-S-0413' });
    expect(life).toHaveTextContent(/falls to its limit about \d+ \w+ 20\d\d/);
    expect(life).toHaveTextContent('fitted to Ullerby Glacier');
    expect(life).toHaveTextContent('6.20 MPa by its plate');
    expect(within(life).getByRole('img', { name: /Precharge of UG-S-0413 over the years/ })).toBeInTheDocument();
  });

  it('says nothing of the future of one that was looked at once', () => {
    page([fresh], 'UG-S-1190');
    expect(screen.getByText(/One check says nothing of its future/)).toBeInTheDocument();
  });

  it('sends a check in the unit it was typed in, a decimal comma included, and empties the field', async () => {
    const asked = answering(200, {});
    page([fresh], 'UG-S-1190');
    fireEvent.change(screen.getByLabelText('Charging tool reads'), { target: { value: '61,5 bar' } });
    fireEvent.change(screen.getByLabelText('Shell, °C'), { target: { value: '11,5' } });
    fireEvent.click(screen.getByRole('button', { name: 'Keep it' }));
    await waitFor(() => expect(screen.getByText('Kept.')).toBeInTheDocument());
    expect(asked[0].body).toMatchObject({
      action: 'check',
      serial: 'UG-S-1190',
      reading: '61,5 bar',
      temperatureC: 11.5,
      person: 'Ilse Varga',
    });
    expect(screen.getByLabelText('Charging tool reads')).toHaveValue('');
    expect(refresh).toHaveBeenCalled();
  });

  it('means the shop’s unit where none is typed', async () => {
    const asked = answering(200, {});
    page([fresh], 'UG-S-1190');
    fireEvent.change(screen.getByLabelText('Charging tool reads'), { target: { value: '6.1' } });
    fireEvent.click(screen.getByRole('button', { name: 'Keep it' }));
    await waitFor(() => expect(asked).toHaveLength(1));
    expect(asked[0].body).toMatchObject({ reading: '6.1 MPa', temperatureC: 20 });
  });

  it('puts what is wrong beside its field and keeps what was typed', async () => {
    answering(422, { message: 'Some fields need another look.', fields: { reading: 'A pressure above zero' } });
    page([fresh], 'UG-S-1190');
    fireEvent.change(screen.getByLabelText('Charging tool reads'), { target: { value: 'about sixty' } });
    fireEvent.click(screen.getByRole('button', { name: 'Keep it' }));
    await waitFor(() => expect(screen.getByText('A pressure above zero')).toBeInTheDocument());
    expect(screen.getByLabelText('Charging tool reads')).toHaveValue('about sixty');
    expect(screen.getByLabelText('Charging tool reads')).toBeInvalid();
    expect(refresh).not.toHaveBeenCalled();
  });

  it('says why a sphere may not go where it was to be fitted', async () => {
    const why = 'This sphere is for the suspension; the sheet wants one for the brakes.';
    const asked = answering(422, { message: why, fields: { sheetId: why } });
    page([fresh], 'UG-S-1190');
    fireEvent.change(screen.getByLabelText('To'), { target: { value: 'ullerby-glacier' } });
    fireEvent.click(screen.getByRole('button', { name: 'Fit it' }));
    await waitFor(() => expect(screen.getByText(why)).toBeInTheDocument());
    expect(asked[0].body).toMatchObject({ action: 'fit', serial: 'UG-S-1190', sheetId: 'ullerby-glacier' });
  });

  it('keeps a half-filled sphere when the server does not answer', async () => {
    global.fetch = () => Promise.reject(new Error('no answer'));
    page([]);
    fireEvent.click(screen.getByRole('button', { name: 'Enter a sphere' }));
    const [serial] = screen.getAllByRole('textbox');
    fireEvent.change(serial, { target: { value: 'UG-S-2001' } });
    fireEvent.submit(serial.closest('form')!);
    await waitFor(() => expect(document.body.textContent).toMatch(/no answer|not answer|reach/i));
    expect(serial).toHaveValue('UG-S-2001');
  });
});
