/** How the lever of a stand is spoken of. */
export const levers: Readonly<Record<string, { readonly name: string; readonly pull: string }>> = {
  rod_force: { name: 'rod', pull: 'Push the rod' },
  pedal_force: { name: 'pedal', pull: 'Press the pedal' },
  pedal_angle: { name: 'pedal', pull: 'Press the pedal' },
};

export const benchLever = { name: 'lever', pull: 'Pull the lever' };

/** The lever, the rod or the pedal: what is moved by hand on a stand. */
export function leverName(channel: string): string {
  return (levers[channel] ?? benchLever).name;
}
