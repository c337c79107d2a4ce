import type { CautionId } from '../vocabulary/caution-id';

/** Cautions, shown where they apply and recorded as acknowledged by whom and when. */
export const cautions: Readonly<Record<CautionId, string>> = {
  'fluid-jet':
    'Fluid under pressure pierces skin. Look for leaks with a piece of card, never with a hand; an injection injury goes to hospital at once.',
  'never-loosen':
    'Never loosen a fitting under pressure to find out. Let the lever back and see the gauge at zero first.',
  'brake-fluid': 'Brake fluid strips paint and hurts eyes: wear eye protection, wipe and rinse at once.',
  'vacuum-exhaust': 'The vacuum pump blows out oil and fluid mist: keep the exhaust led away and the bay ventilated.',
  'stored-vacuum': 'The shell stays evacuated after the source is shut. Vent it before opening anything.',
  'running-engine':
    'Engine running: wheels chocked, lever on, gearbox out of gear, exhaust led away, hands and hair clear of the belts.',
  'vehicle-still': 'Chock the wheels before the pedal or the parking brake is worked.',
  'stored-pressure':
    'Stored pressure stays after engine and ignition are off. Make the system dead by the maker’s method, prove it on a gauge, then loosen; never loosen a fitting to find out.',
  'gas-sphere':
    'Gas spheres: only nitrogen, never oxygen or air; never heat, drill or weld. Use the charging tool’s own valve. To unscrew one, a strap or grips on the body, never on the gas port.',
  'levelling-drops':
    'A vehicle held up by hydraulics drops when the pressure goes, and straps and links fail: rigid stands, nobody under or beside a wheel while the levelling is worked by hand.',
  'motor-duty':
    'The motor has a duty limit: the count runs on the screen and the step ends by itself when it is used up. Let it cool before another try.',
  'dead-head':
    'A pump against its dead end lasts seconds and overheats its oil: five at most. Stand clear of the hose.',
  'wakes-by-itself': 'The motor starts by itself while it is supplied: hands away from belts, pads and open ports.',
  'service-mode':
    'Put it to sleep by the maker’s service function, or take the key away, before hands go to rod, pads or plug; prove it by the current.',
  'capacitor-bank':
    'A bank of capacitors stays charged long after the power is off, and gives its current at once: qualified people only; wait the maker’s time, then measure, before a hand goes near it.',
  'fluid-not-mixed': 'Mineral oil and glycol fluid destroy each other’s seals: fill only what the sheet names.',
  'moving-lever':
    'The rod pulls its lever at once and with its full force: hands clear of lever, clevis and pivot while there is vacuum.',
  'road-test':
    'A drive after brake work: static pedal check first, then walking pace, on closed ground, with somebody else at the tool. Nobody reads a screen while driving.',
  'shuttle-by-the-maker':
    'A shuttle that stands to one side is centred by the maker’s method only, after the side that lost its pressure was found: forced, it tears its seals.',
  'rigid-stands': 'Nobody under or beside a raised vehicle unless it stands on rigid stands.',
};

/** Printed on every release. */
export const standingCautions: readonly string[] = [
  'The maker’s service data and the local code come first.',
  'The verdict is about the measurements it was given. Release to service is signed by a qualified person.',
  'After fitting: static pedal check first, then walking pace on closed ground.',
  'Some fluid stays in the unit and may dribble in transit.',
];
