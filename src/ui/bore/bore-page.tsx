'use client';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useColorScheme } from '@mui/material/styles';
import { useMemo, useSyncExternalStore, type ReactNode } from 'react';
import { boreWindowOption, boreWindowText } from '@/charts/bore-window-chart';
import { chartTokens } from '@/charts/chart-colours';
import type { FailedAssistStop } from '@/core/calculators/failed-assist-stop';
import { inSentence } from '@/core/wording/in-sentence';
import { Chart } from '../charts/chart';
import { AskedFigures } from '../parts/asked-figures';
import { Choice } from '../parts/choice';
import { keepText, keptText, onStoreChange, textsByName } from '../shell/browser-store';
import { PageHead } from '../shell/frame';
import {
  boreOf,
  emptyBore,
  pedalFields,
  proportioningFields,
  rearFields,
  ruleFields,
  vehicleFields,
  type BoreOutcome,
  type BoreTexts,
} from './bore-form';
import calculator from '../parts/calculator.module.css';
import styles from './bore.module.css';

const key = 'hard-pedal-draft-bore';

function useTexts() {
  const kept = useSyncExternalStore(
    onStoreChange,
    () => keptText(key),
    () => null,
  );
  const texts: BoreTexts = { ...emptyBore, ...textsByName(kept) };
  return { texts, change: (field: string, text: string) => keepText(key, JSON.stringify({ ...texts, [field]: text })) };
}

function Group({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <fieldset className={styles.group}>
      <legend>{title}</legend>
      {children}
    </fieldset>
  );
}

/** Works out how a vehicle stops with the assist gone, and which master cylinder bores allow it. */
export function BorePage() {
  const { texts, change } = useTexts();
  const outcome = useMemo(() => boreOf(texts), [texts]);
  const drums = texts.rear === 'drum';
  return (
    <>
      <PageHead
        title="Bore"
        actions={
          <Button
            className={calculator.print}
            variant="outlined"
            disabled={outcome.kind !== 'stop'}
            onClick={() => window.print()}
          >
            Print it
          </Button>
        }
      >
        <p>A stop with the assist gone, and the master cylinders that allow it</p>
      </PageHead>
      <div className={calculator.layout}>
        <form className={calculator.form} aria-label="Vehicle and pedal" onSubmit={(event) => event.preventDefault()}>
          <Group title="Rule">
            <div className={calculator.sheet}>
              <label htmlFor="bore-rule">The vehicle is under</label>
              <Choice id="bore-rule" value={texts.category} onChange={(text) => change('category', text)}>
                <option value="">choose a rule</option>
                <option value="light">the rule for light vehicles</option>
                <option value="own">another: its figures are typed</option>
              </Choice>
            </div>
            {texts.category === 'own' && (
              <>
                <AskedFigures fields={ruleFields} texts={texts} onChange={change} />
                <TextField
                  label="Where it stands"
                  value={texts.source}
                  required
                  helperText="Code and clause, for the paper"
                  onChange={({ target }) => change('source', target.value)}
                />
              </>
            )}
          </Group>
          <Group title="Vehicle">
            <AskedFigures fields={vehicleFields} texts={texts} onChange={change} />
            <div className={calculator.sheet}>
              <label htmlFor="bore-rear">The rear axle has</label>
              <Choice id="bore-rear" value={texts.rear} onChange={(text) => change('rear', text)}>
                <option value="disc">discs</option>
                <option value="drum">drums</option>
              </Choice>
            </div>
            {drums ? (
              <AskedFigures fields={rearFields.drum} texts={texts} onChange={change} />
            ) : (
              <AskedFigures fields={rearFields.disc} texts={texts} onChange={change} />
            )}
            <AskedFigures fields={proportioningFields} texts={texts} onChange={change} />
          </Group>
          <Group title="Pedal and master cylinder">
            <AskedFigures fields={pedalFields} texts={texts} onChange={change} />
          </Group>
        </form>
        <section className={`${calculator.plan} ${styles.beside}`} aria-label="What comes of it" aria-live="polite">
          <Outcome outcome={outcome} />
        </section>
      </div>
    </>
  );
}

/** Titles as a list within a sentence. */
const inSentences = (titles: readonly string[]) => titles.map(inSentence).join('; ');

/** Three figures, kept together with their unit. */
const figures = (value: number, unit: string) =>
  `${Number(value.toPrecision(3)).toLocaleString('en', { useGrouping: false })}\u00a0${unit}`;

function headOf({ stoppingDistance, distanceAllowed, holds }: FailedAssistStop): string {
  if (stoppingDistance === null) return 'It does not stop: the foot alone makes no pressure';
  const way = `${figures(stoppingDistance, 'm')}, where ${figures(distanceAllowed, 'm')} are allowed`;
  return holds ? `Holds: ${way}` : `Does not hold: ${way}`;
}

function Outcome({ outcome }: { readonly outcome: BoreOutcome }) {
  const { mode } = useColorScheme();
  if (outcome.kind === 'not-yet')
    return (
      <>
        <p>
          The stop is worked out here once it is said which rule the vehicle is under, how it brakes and what pedal it
          has.
        </p>
        <p>Still missing: {inSentences(outcome.missing)}.</p>
      </>
    );
  const { stop, window, bore } = outcome;
  const { rule } = stop;
  return (
    <>
      <h2>{headOf(stop)}</h2>
      <p>
        {figures(rule.pedalForceMost, 'N')} on the pedal make {figures(stop.frontPressure / 1e6, 'MPa')} at the front
        and {figures(stop.rearPressure / 1e6, 'MPa')} at the rear: {figures(stop.brakeForce / 1e3, 'kN')} at the road,{' '}
        {figures(stop.deceleration, 'm/s²')}
        {stop.limitedBy === 'road' ? ', which is all that a dry road gives' : ''}. Asked are{' '}
        {figures(rule.decelerationLeast, 'm/s²')} from {figures(rule.speed * 3.6, 'km/h')};{' '}
        {figures(stop.pedalForceNeeded, 'N')} make that.
      </p>
      <Chart
        className={styles.chart}
        option={boreWindowOption(window, bore, chartTokens(mode))}
        text={boreWindowText(window, bore)}
      />
      <p>{boreWindowText(window, bore)}</p>
      <p className={calculator.caution}>
        A calculation from what was typed, and no approval: free play, hoses that give and hot linings are not in it.
        The maker’s data and the local code come first. Rule: {rule.source}.
      </p>
    </>
  );
}
