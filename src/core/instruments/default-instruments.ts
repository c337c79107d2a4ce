import type { Instrument } from './instrument';

const uncalibrated = { calibratedOn: null, dueOn: null } as const;

function hydraulic(channel: string, name: string): Instrument {
  const accuracy = { resolution: 1_000, classFraction: 0.005, classOf: 'reading' } as const;
  return { channel, name, range: 16e6, ...accuracy, ...uncalibrated };
}

function vacuum(channel: string, name: string): Instrument {
  const accuracy = { resolution: 10, classFraction: 0.005, classOf: 'full-scale' } as const;
  return { channel, name, range: 100e3, ...accuracy, ...uncalibrated };
}

function force(channel: string, name: string): Instrument {
  const accuracy = { resolution: 1, classFraction: 0.005, classOf: 'reading' } as const;
  return { channel, name, range: 10e3, ...accuracy, ...uncalibrated };
}

function travel(channel: string, name: string): Instrument {
  const accuracy = { resolution: 0.05e-3, classFraction: 0.002, classOf: 'full-scale' } as const;
  return { channel, name, range: 200e-3, ...accuracy, ...uncalibrated };
}

function store(channel: string, name: string): Instrument {
  const accuracy = { resolution: 2_000, classFraction: 0.005, classOf: 'reading' } as const;
  return { channel, name, range: 25e6, ...accuracy, ...uncalibrated };
}

function electrical(channel: string, name: string, range: number, resolution: number): Instrument {
  return { channel, name, range, resolution, classFraction: 0.01, classOf: 'reading', ...uncalibrated };
}

/** A digital meter of a bench. */
function meter(channel: string, name: string, range: number, resolution: number): Instrument {
  return { channel, name, range, resolution, classFraction: 0.003, classOf: 'reading', ...uncalibrated };
}

/** Instruments of the stand-in bench, used where a site names none for a channel. SI. */
export const defaultInstruments: readonly Instrument[] = [
  hydraulic('input_pressure', 'Stand-in input transducer, 16 MPa'),
  hydraulic('output_pressure', 'Stand-in output transducer, 16 MPa'),
  vacuum('supply_vacuum', 'Stand-in supply vacuum transducer, 100 kPa'),
  vacuum('control_vacuum', 'Stand-in control vacuum transducer, 100 kPa'),
  vacuum('source_vacuum', 'Stand-in source vacuum transducer, 100 kPa'),
  force('rod_force', 'Stand-in rod load cell, 10 kN'),
  force('pedal_force', 'Stand-in pedal load cell, 10 kN'),
  travel('rod_travel', 'Stand-in rod travel gauge, 200 mm'),
  travel('pedal_travel', 'Stand-in pedal travel gauge, 200 mm'),
  travel('ride_height', 'Stand-in ride height gauge, 200 mm'),
  store('accumulator_pressure', 'Stand-in store transducer, 25 MPa'),
  store('accumulator_pressure_2', 'Stand-in store 2 transducer, 25 MPa'),
  hydraulic('front_pressure', 'Stand-in front circuit transducer, 16 MPa'),
  hydraulic('rear_pressure', 'Stand-in rear circuit transducer, 16 MPa'),
  hydraulic('parking_pressure', 'Stand-in parking port transducer, 16 MPa'),
  hydraulic('boost_pressure', 'Stand-in boost transducer, 16 MPa'),
  hydraulic('pump_pressure', 'Stand-in pump line transducer, 16 MPa'),
  hydraulic('return_pressure', 'Stand-in return line transducer, 16 MPa'),
  electrical('motor_current', 'Stand-in clamp ammeter, 200 A', 200, 0.1),
  electrical('supply_voltage', 'Stand-in voltmeter, 60 V', 60, 0.01),
  meter('battery_voltage', 'Stand-in battery voltmeter, 20 V', 20, 0.001),
  meter('ground_voltage', 'Stand-in ground millivoltmeter, 2 V', 2, 0.0001),
  meter('sensor_supply', 'Stand-in sensor supply meter, 10 V', 10, 0.001),
  meter('sensor_a', 'Stand-in track A meter, 10 V', 10, 0.001),
  meter('sensor_b', 'Stand-in track B meter, 10 V', 10, 0.001),
  meter('sleep_current', 'Stand-in meter in the feed, 2 A', 2, 0.0001),
  ...['fl', 'fr', 'rl', 'rr'].map((wheel) =>
    hydraulic(`wheel_pressure_${wheel}`, `Stand-in wheel transducer ${wheel}, 16 MPa`),
  ),
  hydraulic('master_pressure', 'Stand-in master cylinder transducer, 16 MPa'),
  hydraulic('master_pressure_2', 'Stand-in master cylinder transducer 2, 16 MPa'),
  {
    channel: 'reference_pressure',
    name: 'Stand-in test gauge, 40 MPa',
    range: 40e6,
    resolution: 1_000,
    classFraction: 0.002,
    classOf: 'reading',
    ...uncalibrated,
  },
  travel('plunger_travel', 'Stand-in plunger travel gauge, 200 mm'),
  meter('backup_voltage', 'Stand-in bank voltmeter, 60 V', 60, 0.001),
  meter('backup_current', 'Stand-in bank ammeter, 100 A', 100, 0.01),
  electrical('flow', 'Stand-in flow meter, 20 L/min', 20e-3 / 60, 0.005e-3 / 60),
  {
    channel: 'tape_height',
    name: 'Stand-in tape, 1 m',
    range: 1,
    resolution: 0.5e-3,
    classFraction: 0.001,
    classOf: 'full-scale',
    ...uncalibrated,
  },
  {
    channel: 'pedal_angle',
    name: 'Stand-in pedal protractor, 60°',
    range: 60,
    resolution: 0.05,
    classFraction: 0.005,
    classOf: 'full-scale',
    ...uncalibrated,
  },
];

/** Instruments by channel: those given, completed by the stand-in bench's own. */
export function instrumentsByChannel(given: readonly Instrument[]): ReadonlyMap<string, Instrument> {
  const standIn = defaultInstruments.map((instrument) => ({ ...instrument, ofStandIn: true }) as const);
  return new Map([...standIn, ...given].map((instrument) => [instrument.channel, instrument]));
}
