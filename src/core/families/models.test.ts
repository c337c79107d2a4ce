import { conditionWith } from '../contract/model';
import { everyKind, families } from '.';

const everyFault = everyKind.flatMap((kind) =>
  kind.model.faults.map((fault) => [`${kind.sheet.example.name}: ${fault.id}`, kind, fault] as const),
);

describe('models', () => {
  it('the kinds of a family say that they are of it, each by a word of its own', () => {
    for (const { id, kinds } of families) {
      expect(new Set(kinds.map((kind) => kind.family))).toEqual(new Set([id]));
      expect(new Set(kinds.map((kind) => kind.value)).size).toBe(kinds.length);
    }
  });

  it('a sound condition is made anew each time, so that no fault stays in it', () => {
    for (const { model, sheet } of everyKind) {
      const unit: unknown = sheet.prepare(sheet.example.spec);
      const before = JSON.stringify(model.sound(unit));
      for (const fault of model.faults) conditionWith(model, unit, [{ id: fault.id, severity: 1 }]);
      expect(JSON.stringify(model.sound(unit))).toBe(before);
    }
  });

  it('an unknown fault is refused', () => {
    const [{ model, sheet }] = everyKind;
    const unit: unknown = sheet.prepare(sheet.example.spec);
    expect(() => conditionWith(model, unit, [{ id: 'nobody-knows', severity: 1 }])).toThrow('nobody-knows');
  });

  it.each(everyFault)('%s has an extent that moves one way with its severity', (_name, kind, fault) => {
    if (fault.extent.kind === 'there-or-not') return;
    const { of } = fault.extent;
    const unit: unknown = kind.sheet.prepare(kind.sheet.example.spec);
    const figures = Array.from({ length: 11 }, (_, at) =>
      of(conditionWith(kind.model, unit, [{ id: fault.id, severity: at / 10 }]), unit),
    );
    const steps = figures.slice(1).map((figure, at) => figure - figures[at]);
    expect(figures.every(Number.isFinite)).toBe(true);
    expect(steps.every((step) => step > 0) || steps.every((step) => step < 0)).toBe(true);
  });
});

describe('scatter', () => {
  it.each(everyKind.map((kind) => [kind.sheet.example.name, kind] as const))(
    '%s: each way changes its own parameter of the unit, by as much as it says, and nothing else',
    (_name, { model, sheet }) => {
      const unit = sheet.prepare(sheet.example.spec) as Record<string, unknown>;
      expect(model.scatter.length).toBeGreaterThan(0);
      for (const { id, standard, apply } of model.scatter) {
        const at = id.split('.');
        const read = (of: unknown) => at.reduce((value, key) => (value as Record<string, unknown>)[key], of) as number;
        const moved = apply(unit, 1);
        expect([id, read(moved) / read(unit)]).toEqual([id, expect.closeTo(1 + standard, 12)]);
        const back = apply(moved, -standard / (1 + standard) / standard);
        expect([id, read(back) / read(unit)]).toEqual([id, expect.closeTo(1, 9)]);
        const others = (of: unknown) =>
          JSON.stringify(of, (key, value: unknown) => (key === at[at.length - 1] ? undefined : value));
        expect(others(moved)).toBe(others(unit));
      }
    },
  );
});

describe('parts and symptoms', () => {
  it.each(everyKind.map((kind) => [`${kind.family} ${kind.value}`, kind] as const))(
    '%s: each fault is of a part, and a step that tells of it is done again once that part was worked on',
    (_name, kind) => {
      const stepIds = kind.steps.map(({ id }) => id);
      for (const part of kind.parts)
        for (const step of part.affects) expect([part.id, stepIds]).toEqual([part.id, expect.arrayContaining([step])]);
      for (const { id, tells } of kind.model.faults) {
        const at = kind.parts.filter((part) => part.faults.includes(id));
        expect([id, at.length > 0]).toEqual([id, true]);
        expect([id, at.some((part) => part.affects.some((step) => tells.includes(step)))]).toEqual([id, true]);
      }
    },
  );

  it.each(families.map((family) => [family.id, family] as const))(
    '%s: symptoms and parts speak of faults that the family has, each under one name',
    (_id, { kinds }) => {
      const known = kinds.flatMap((kind) => kind.model.faults.map(({ id }) => id));
      for (const { parts, symptoms } of kinds) {
        expect(symptoms.length).toBeGreaterThan(3);
        for (const all of [parts, symptoms]) expect(new Set(all.map(({ id }) => id)).size).toBe(all.length);
        for (const symptom of symptoms)
          for (const fault of Object.keys(symptom.of))
            expect([symptom.id, fault, known.includes(fault)]).toEqual([symptom.id, fault, true]);
        for (const part of parts)
          for (const fault of part.faults)
            expect([part.id, fault, known.includes(fault)]).toEqual([part.id, fault, true]);
      }
    },
  );
});
