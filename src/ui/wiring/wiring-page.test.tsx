import { fireEvent, screen, within } from '@testing-library/react';
import { show } from '../../../tests/support/screens';
import { WiringPage } from './wiring-page';

const sheets = [
  { id: 'mb3', name: 'Ostvale Works MB3', current: 40, feedDropMax: 0.5, groundDropMax: 0.25, mainFuse: 40 },
];

beforeEach(() => window.localStorage.clear());

const type = (label: RegExp, value: string) => fireEvent.change(screen.getByLabelText(label), { target: { value } });

describe('the wiring planner', () => {
  it('takes its figures from the sheet, and plans once it knows how far it is', () => {
    show(<WiringPage sheets={sheets} chosen="mb3" />);
    expect(screen.getByLabelText(/Peak current/)).toHaveValue('40');
    expect(screen.getByText(/the plan is drawn here/)).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Print the plan' })).toBeDisabled();
    type(/Length, one way/, '2,2');
    expect(screen.getByRole('heading', { name: '10 mm² behind 40 A' })).toBeInTheDocument();
    expect(screen.getByText(/0.351 V are lost at the peak, 0.176 V on each side/)).toBeInTheDocument();
    expect(
      within(screen.getByRole('table', { name: 'Parts' })).getByText('Fuse with holder, close to the battery'),
    ).toBeInTheDocument();
    expect(screen.getByRole('img', { name: /through a fuse of 40 A close to it, 10 mm², 2,2 m/ })).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Print the plan' })).toBeEnabled();
  });

  it('says what is wrong beside its field, and what nothing that is sold can do', () => {
    show(<WiringPage sheets={sheets} chosen={null} />);
    type(/Peak current/, '40');
    type(/Length, one way/, 'far');
    expect(screen.getByText('0.1 to 50 m')).toBeInTheDocument();
    type(/Length, one way/, '45');
    expect(screen.getByRole('alert')).toHaveTextContent('No wire that is sold is thick enough');
  });

  it('says so where the sheet names another fuse, and keeps what was typed over a reload', () => {
    const first = show(<WiringPage sheets={[{ ...sheets[0], mainFuse: 60 }]} chosen="mb3" />);
    type(/Length, one way/, '1.5');
    expect(screen.getByText(/The sheet names 60 A: the maker’s figure wins/)).toBeInTheDocument();
    first.unmount();
    show(<WiringPage sheets={sheets} chosen={null} />);
    expect(screen.getByLabelText(/Length, one way/)).toHaveValue('1.5');
  });
});
