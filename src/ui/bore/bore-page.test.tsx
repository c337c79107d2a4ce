import { fireEvent, screen } from '@testing-library/react';
import { minibusTyped } from '../../../tests/support/minibus';
import { show } from '../../../tests/support/screens';
import { BorePage } from './bore-page';

const type = (label: string | RegExp, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });

/** The minibus of the workshop. */
const fillIn = () => minibusTyped.forEach(([label, value]) => type(label, value));

describe('a stop with the assist gone', () => {
  it('is worked out once a rule is chosen, and says that it is no approval', () => {
    show(<BorePage />);
    fillIn();
    expect(screen.getByText('Still missing: the rule.')).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Print it' })).toBeDisabled();
    type('The vehicle is under', 'light');
    expect(screen.getByRole('heading', { name: /^Holds: 106\sm, where 168\sm are allowed$/ })).toBeInTheDocument();
    expect(screen.getByText(/6\.4\d\skN at the road/)).toHaveTextContent(/500\sN on the pedal make 3.71\sMPa/);
    expect(screen.getByText(/6\.4\d\skN at the road/)).toHaveTextContent(/294\sN make that/);
    expect(screen.getByText(/and no approval/)).toHaveTextContent(/UN R13-H/);
    expect(screen.getByText(/Only the pedal force is looked at/)).toBeInTheDocument();
    type(/^Fluid displaced/, '12');
    expect(screen.getByText('Still missing: pedal travel at most.')).toBeInTheDocument();
    type(/^Pedal travel at most/, '150');
    expect(screen.getByText(/Bores of 20.2 to 31.4 mm hold, below it the pedal goes too far/)).toBeInTheDocument();
  });

  it('under a rule of the workshop’s own is nothing until all of that is typed: the light rule never steps in', () => {
    show(<BorePage />);
    fillIn();
    type('The vehicle is under', 'own');
    for (const [label, value] of [
      [/^From/, '60'],
      [/^Deceleration at least/, '2.2'],
      [/^A$|^A \*/, '0.15'],
      [/^B$|^B \*/, '0.0385'],
      [/^Pedal force at most/, '700'],
    ] as const) {
      expect(screen.getByText(/^Still missing/)).toBeInTheDocument();
      type(label, value);
    }
    expect(screen.getByText(/^Still missing/)).toBeInTheDocument();
    type(/^Where it stands/, 'Code of the Vennholm quarries, 4.2');
    expect(screen.getByRole('heading', { name: /where 148\sm are allowed/ })).toBeInTheDocument();
    expect(screen.getByText(/and no approval/)).toHaveTextContent(/Vennholm quarries, 4.2/);
  });

  it('says what is wrong beside its field, and keeps what was typed', () => {
    const first = show(<BorePage />);
    fillIn();
    type(/^Vehicle mass/, '1.600,5');
    expect(screen.getByText('200 to 60000 kg')).toBeInTheDocument();
    type(/^Vehicle mass/, 'heavy');
    expect(screen.getByText('200 to 60000 kg')).toBeInTheDocument();
    type(/^Vehicle mass/, '1700');
    first.unmount();
    show(<BorePage />);
    expect(screen.getByLabelText(/^Vehicle mass/)).toHaveValue('1700');
    type('The rear axle has', 'drum');
    expect(screen.queryByLabelText(/^Piston area, rear/)).not.toBeInTheDocument();
    expect(screen.getByLabelText(/^Drum, rear/)).toBeInTheDocument();
  });
});
