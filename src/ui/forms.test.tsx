import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { kindNamed } from '@/core/families';
import { answering, kind, show } from '../../tests/support/screens';
import { push, refresh } from '../../tests/support/router';
import { BookInForm } from './book-in/book-in-form';
import { InstrumentsPage } from './instruments/instruments-page';
import { SettingsForm } from './settings/settings-form';
import { SheetForm } from './sheets/sheet-form';
import { ShellControls } from './shell/key-map';

const type = (label: string | RegExp, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
const press = (name: string) => act(async () => fireEvent.click(screen.getByRole('button', { name })));
const draft = (name: string) =>
  JSON.parse(window.localStorage.getItem(`hard-pedal-draft-${name}`) ?? '{}') as Record<string, string>;

describe('settings', () => {
  const settings = {
    shopName: 'Vennholm bench',
    site: { altitudeM: 1420, airTemperatureC: 11 },
    policy: 'guarded',
  } as const;

  it('questions a barometer that is reduced to the sea, and saves figures with a decimal comma', async () => {
    const asked = answering(200, {});
    show(<SettingsForm zone="Europe/Vienna" broken={false} settings={settings} />);
    expect(screen.getByText(/85.4 kPa absolute/)).toBeInTheDocument();
    fireEvent.change(screen.getByLabelText('Station barometer'), { target: { value: '101,3' } });
    expect(screen.getByRole('alert')).toHaveTextContent(/15.9 kPa above/);
    fireEvent.change(screen.getByLabelText('Station barometer'), { target: { value: '84,9' } });
    expect(screen.queryByRole('alert')).not.toBeInTheDocument();
    await act(async () => fireEvent.click(screen.getByRole('button', { name: 'Save' })));
    expect(await screen.findByRole('status')).toHaveTextContent('Saved');
    expect(asked[0]).toMatchObject({ method: 'PUT', body: { site: { altitudeM: 1420, barometerKpa: 84.9 } } });
  });

  it('say what today’s air is while it is typed, and wait where it is no figure', () => {
    show(<SettingsForm zone="Europe/Vienna" broken={false} settings={settings} />);
    type('Altitude', '0');
    expect(screen.getByText(/101.3 kPa absolute/)).toBeInTheDocument();
    type('Altitude', '');
    expect(screen.getByText(/101.3 kPa absolute/)).toBeInTheDocument();
    type('Altitude', 'high up');
    expect(screen.getByText('Type a figure.')).toBeInTheDocument();
  });

  it('read a barometer in the unit of its dial, and ask once more about one that does not fit', async () => {
    const asked = answering(200, {
      turned: [{ jobId: 'j1', serial: 'TK-1', step: 'Boost curve', from: 'undecided', to: 'pass' }],
    });
    show(<SettingsForm zone="Europe/Vienna" broken={false} settings={settings} />);
    type('Station barometer', '861 mbar');
    await press('Save');
    expect(asked[0].body).toMatchObject({ site: { barometerKpa: 86.1 }, barometerConfirmed: false });
    // A change of policy says which verdicts it turned.
    const turned = screen.getByRole('region', { name: 'Verdicts that it turned' });
    expect(turned).toHaveTextContent('One verdict is another now:TK-1, Boost curve: undecided before, pass now');
    type('Station barometer', '101.3');
    await press('It is so');
    await press('Save');
    expect(asked[1].body).toMatchObject({ barometerConfirmed: true });
  });

  it('put each refusal beside its field, keep what was typed, and save it once it is right', async () => {
    answering(422, {
      message: 'Some fields need another look.',
      fields: { 'site.altitudeM': 'Needs a figure from -500 to 9000', shopName: 'Give the workshop a name' },
    });
    show(<SettingsForm zone="Europe/Vienna" broken={false} settings={settings} />);
    type('Altitude', '90000');
    type('Workshop', ' ');
    await press('Save');
    expect(await screen.findByText('Needs a figure from -500 to 9000')).toBeInTheDocument();
    expect(screen.getByText('Give the workshop a name')).toBeInTheDocument();
    expect(screen.getByLabelText('Altitude')).toHaveValue('90000');
    expect(screen.getByLabelText('Altitude')).toHaveAttribute('aria-invalid', 'true');
    expect(draft('settings')).toMatchObject({ altitudeM: '90000' });

    const asked = answering(200, {});
    type('Altitude', '1 420'.replace(' ', ''));
    type('Workshop', 'Vennholm');
    await press('Save');
    await waitFor(() => expect(refresh).toHaveBeenCalled());
    expect(asked[0].body).toMatchObject({ shopName: 'Vennholm', site: { altitudeM: 1420 } });
    expect(window.localStorage.getItem('hard-pedal-draft-settings')).toBeNull();
  });

  it('choose between the schools where practitioners disagree', async () => {
    const asked = answering(200, {});
    show(<SettingsForm zone="Europe/Vienna" broken={false} settings={settings} />);
    expect(screen.getByLabelText('Least vacuum')).toHaveValue('both');
    type('Least vacuum', 'eighteen');
    type('The reserve is used up', 'count');
    type('Decisions', 'simple');
    await press('Save');
    expect(asked[0].body).toMatchObject({
      policy: 'simple',
      site: { schools: { leastVacuum: 'eighteen', exhaust: 'count' } },
    });
  });
});

describe('instruments', () => {
  const mounted = [
    {
      channel: 'supply_vacuum',
      name: 'Old dial',
      range: 30,
      resolution: 0.5,
      unit: 'inHg',
      classPercent: 1.6,
      classOf: 'full-scale' as const,
      dueOn: '2026-01-01',
    },
  ];

  it('flags what is overdue and says what that does', () => {
    show(<InstrumentsPage unreadable={[]} takenOff={[]} instruments={mounted} today="2026-11-24" />);
    expect(screen.getByText('1 calibration is overdue.')).toBeInTheDocument();
    expect(screen.getByText(/overdue since 2026-01-01: its class counts twice/)).toBeInTheDocument();
  });

  it('keeps what was typed and says what is wrong beside the field', async () => {
    show(<InstrumentsPage unreadable={[]} takenOff={[]} instruments={mounted} today="2026-11-24" />);
    fireEvent.click(screen.getByRole('button', { name: 'Change' }));
    const asked = answering(422, { message: 'Some fields need another look.', fields: { unit: '"N" does not fit' } });
    fireEvent.change(screen.getByLabelText('Unit'), { target: { value: 'N' } });
    fireEvent.click(screen.getByRole('button', { name: 'Keep the change' }));
    expect(await screen.findByText('"N" does not fit')).toBeInTheDocument();
    expect(screen.getByLabelText('Unit')).toHaveValue('N');
    expect(asked[0]).toMatchObject({ path: '/api/instruments', method: 'PUT', body: { range: 30, classPercent: 1.6 } });
  });

  it('mount one by what it measures, and empty the form for the next', async () => {
    show(<InstrumentsPage unreadable={[]} takenOff={[]} instruments={[]} today="2026-11-24" />);
    await press('Mount an instrument');
    const asked = answering(200, {});
    type('Measures', 'output_pressure');
    type('Name', 'Left dial');
    type('Range', '16');
    type('Unit', 'MPa');
    type('Division', '0,2');
    type('Class, %', '1,6');
    type('Due on', '2027-03-01');
    await press('Mount it');
    await waitFor(() => expect(refresh).toHaveBeenCalled());
    expect(asked[0]).toMatchObject({
      path: '/api/instruments',
      method: 'PUT',
      body: { channel: 'output_pressure', range: 16, resolution: 0.2, classPercent: 1.6, dueOn: '2027-03-01' },
    });
    expect(window.localStorage.getItem('hard-pedal-draft-instrument-new')).toBeNull();
  });

  it('a half-filled one is there again after a reload', () => {
    const { unmount } = show(<InstrumentsPage unreadable={[]} takenOff={[]} instruments={[]} today="2026-11-24" />);
    fireEvent.click(screen.getByRole('button', { name: 'Mount an instrument' }));
    type('Name', 'Left dial');
    unmount();
    show(<InstrumentsPage unreadable={[]} takenOff={[]} instruments={[]} today="2026-11-24" />);
    fireEvent.click(screen.getByRole('button', { name: 'Mount an instrument' }));
    expect(screen.getByLabelText('Name')).toHaveValue('Left dial');
  });
});

describe('unit sheet', () => {
  const air = { pressure: 85_400, temperature: 284 };
  const remote = kindNamed('vacuum-remote');
  const example = remote.sheet.example.spec as Record<string, number>;
  const labelOf = (name: string) => {
    const field = remote.sheet.fields.find((each) => each.name === name)!;
    return field.required ? `${field.label} *` : field.label;
  };
  const required = remote.sheet.fields.filter((field) => field.required);
  const last = required[required.length - 1];
  /** What somebody typed before the page was loaded again: everything that is required but the last. */
  const begun = (name = 'Off grader 2') =>
    window.localStorage.setItem(
      'hard-pedal-draft-sheet',
      JSON.stringify({
        family: 'vacuum-remote',
        name,
        ...Object.fromEntries(required.slice(0, -1).map((field) => [field.name, String(example[field.name])])),
      }),
    );

  it('names what is still to be measured, and draws the curve with the last of it', () => {
    begun();
    show(<SheetForm air={air} />);
    const side = screen.getByRole('complementary', { name: 'Expected curve' });
    expect(within(side).getByText(/as soon as these are typed/)).toHaveTextContent(last.label.toLowerCase());
    expect(within(side).queryByRole('img')).not.toBeInTheDocument();
    type(labelOf(last.name), String(example[last.name]).replace('.', ','));
    expect(within(side).getByRole('img')).toHaveAccessibleName(/Expected .*curve\. Cut-in: .*Run-out: /);
  });

  it('says at once what cannot be a figure, and takes the curve away', () => {
    begun();
    show(<SheetForm air={air} />);
    type(labelOf(last.name), 'wide');
    expect(screen.getByText('"wide" is not a number')).toBeInTheDocument();
    expect(screen.getByLabelText(labelOf(last.name))).toHaveAttribute('aria-invalid', 'true');
    expect(screen.getByText('The curve waits for the marked fields.')).toBeInTheDocument();
    type(labelOf(last.name), '-3');
    expect(screen.queryByRole('img')).not.toBeInTheDocument();
  });

  it('is not sent while a field is missing, and the first of them takes the focus', async () => {
    const asked = answering(200, { id: 's1' });
    show(<SheetForm air={air} />);
    type('Name', 'Off grader 2');
    await press('Save and book in');
    expect(await screen.findByRole('alert')).toHaveTextContent('Some fields need another look.');
    expect(asked).toEqual([]);
    expect(screen.getAllByText('Measure this one too').length).toBe(required.length);
    expect(push).not.toHaveBeenCalled();
  });

  it('goes on to booking in with the new sheet', async () => {
    const asked = answering(200, { id: 's7' });
    begun();
    show(<SheetForm air={air} />);
    type(labelOf(last.name), String(example[last.name]));
    await press('Save and book in');
    await waitFor(() => expect(push).toHaveBeenCalledWith('/book-in?sheet=s7'));
    expect(asked[0].body).toMatchObject({ family: 'vacuum-remote', name: 'Off grader 2' });
    expect(asked[0].body.spec).toMatchObject(Object.fromEntries(required.map(({ name }) => [name, example[name]])));
    expect(window.localStorage.getItem('hard-pedal-draft-sheet')).toBeNull();
  });
});

describe('book-in form', () => {
  const sheets = [{ id: 's1', family: kind.family, name: 'Tarnock R7', spec: kind.sheet.example.spec }];

  it('puts what is wrong beside its field and keeps what was typed', async () => {
    answering(422, { message: 'Some fields need another look.', fields: { serial: 'Read the serial off the plate' } });
    show(<BookInForm sheets={sheets} chosenSheet="s1" air={{ pressure: 85_400, temperature: 284 }} />);
    fireEvent.change(screen.getByLabelText('Came off'), { target: { value: 'Salt lorry 3' } });
    await act(async () => fireEvent.click(screen.getByRole('button', { name: 'Book in' })));
    expect(await screen.findByText('Read the serial off the plate')).toBeInTheDocument();
    expect(screen.getByLabelText('Serial')).toHaveAttribute('aria-invalid', 'true');
    expect(screen.getByLabelText('Came off')).toHaveValue('Salt lorry 3');
    expect(JSON.parse(window.localStorage.getItem('hard-pedal-draft-book-in') ?? '{}')).toMatchObject({
      vehicle: 'Salt lorry 3',
    });
  });

  it('asks about a promise that is past, and books it in as it is on request', async () => {
    const past = '2026-01-05T10:00';
    window.localStorage.setItem('hard-pedal-draft-book-in', JSON.stringify({ promisedAt: past }));
    answering(422, { message: 'Some fields need another look.', fields: { promisedAt: 'This is past: mend it' } });
    show(<BookInForm sheets={sheets} chosenSheet="s1" air={{ pressure: 85_400, temperature: 284 }} />);
    await act(async () => fireEvent.click(screen.getByRole('button', { name: 'Book in' })));
    expect(await screen.findByText('This is past: mend it')).toBeInTheDocument();
    const asked = answering(200, { id: 'j9' });
    await act(async () => fireEvent.click(screen.getByRole('button', { name: /It was promised for then/ })));
    expect(asked[0].body).toMatchObject({ promisedAt: past, promiseConfirmed: past });
  });

  it('puts a draft back, and drops it once the unit is booked', async () => {
    window.localStorage.setItem('hard-pedal-draft-book-in', JSON.stringify({ serial: 'TK-9', vehicle: 'Mail van' }));
    show(<BookInForm sheets={sheets} chosenSheet="s1" air={{ pressure: 85_400, temperature: 284 }} />);
    expect(screen.getByLabelText('Serial')).toHaveValue('TK-9');
    const asked = answering(200, { id: 'j9' });
    await act(async () => fireEvent.click(screen.getByRole('button', { name: 'Book in' })));
    await waitFor(() => expect(push).toHaveBeenCalledWith('/jobs/j9'));
    expect(asked[0].body).toMatchObject({ serial: 'TK-9', vehicle: 'Mail van', sheetId: 's1', person: 'Ilse Varga' });
    expect(window.localStorage.getItem('hard-pedal-draft-book-in')).toBeNull();
  });

  it('keeps everything when the server does not answer', async () => {
    global.fetch = jest.fn(() => Promise.reject(new TypeError('network')));
    show(<BookInForm sheets={sheets} chosenSheet="s1" air={{ pressure: 85_400, temperature: 284 }} />);
    fireEvent.change(screen.getByLabelText('Serial'), { target: { value: 'TK-7' } });
    await act(async () => fireEvent.click(screen.getByRole('button', { name: 'Book in' })));
    expect(await screen.findByRole('alert')).toHaveTextContent('The server does not answer');
    expect(screen.getByLabelText('Serial')).toHaveValue('TK-7');
  });
});

describe('who is at the screen', () => {
  it('is somebody in a shop that has entered nobody yet, and one of its people in any other', () => {
    const { unmount } = show(<ShellControls />, []);
    expect(screen.getByRole('combobox', { name: 'At this screen' })).toHaveDisplayValue('Technician');
    unmount();
    show(<ShellControls />);
    expect(screen.getByRole('combobox', { name: 'At this screen' })).toHaveDisplayValue('Ilse Varga');
  });
});

describe('a browser whose store is full', () => {
  const full = () =>
    jest.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
  afterEach(() => jest.restoreAllMocks());

  it('takes what is typed all the same, says that a reload would lose it, and sends it', async () => {
    const sheets = [{ id: 's1', family: 'vacuum-remote', name: 'Tarnock R7', spec: {} }];
    show(<BookInForm sheets={sheets} chosenSheet="s1" air={{ pressure: 85_400, temperature: 284 }} />);
    expect(screen.queryByText(/a reload would lose it/)).not.toBeInTheDocument();
    full();
    type('Serial', 'TK-2207-118');
    type('Came off', 'Grader 2');
    expect(screen.getByLabelText('Serial')).toHaveValue('TK-2207-118');
    expect(await screen.findByText(/a reload would lose it/)).toBeInTheDocument();
    const asked = answering(200, { id: 'j9' });
    await press('Book in');
    await waitFor(() => expect(push).toHaveBeenCalledWith('/jobs/j9'));
    expect(asked[0].body).toMatchObject({ serial: 'TK-2207-118', vehicle: 'Grader 2' });
  });
});
