'use client';
import List from '@mui/material/List';
import ListItem from '@mui/material/ListItem';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useColorScheme } from '@mui/material/styles';
import Link from 'next/link';
import { shopTime } from '@/core/wording/shop-time';
import { useRouter } from 'next/navigation';
import { useState, type FormEvent } from 'react';
import { defaultWorkshopLimits } from '@/core/families/registry';
import { fluidChoices } from '@/core/vocabulary/fluid';
import { spherePrechargeLimits } from '@/core/toolboxes/store/model/sphere-check';
import { forecastSphere, type SphereForecast } from '@/core/toolboxes/store/model/sphere-life';
import { sphereChoices } from '@/core/vocabulary/sphere-purpose';
import { figure, shownUnit } from '@/core/wording/display';
import type { SphereLife } from '@/server/shop/spheres';
import { Chart } from '@/ui/charts/chart';
import { chartTokens } from '@/charts/chart-colours';
import { sphereLifeOption } from '@/charts/sphere-life-chart';
import { Tag } from '@/ui/parts/tag';
import { PageHead } from '@/ui/shell/frame';
import { ShellControls } from '@/ui/shell/key-map';
import { Refused, send } from '@/ui/shell/request';
import { typedNumber } from '@/ui/shell/typed-number';
import { useShop } from '@/ui/shell/shop-context';
import styles from './spheres.module.css';

interface Props {
  readonly spheres: readonly SphereLife[];
  /** Sheets that name a purpose for their spheres. */
  readonly sheets: readonly { readonly id: string; readonly name: string }[];
  readonly chosen: string | null;
  /** Days since 1970. */
  readonly today: number;
}

const dayLength = 86_400_000;
const dateOf = (day: number) => shopTime(new Date(day * dayLength).toISOString(), 'date', { zone: 'UTC', today: '' });
const titleOf = (choices: readonly { readonly value: string; readonly title: string }[], value: string) =>
  choices.find((each) => each.value === value)?.title ?? value;

const checksOf = (sphere: SphereLife) =>
  sphere.checks.map((check) => ({
    day: Math.floor(Date.parse(check.at) / dayLength),
    precharge: check.precharge,
    standard: check.standard,
  }));

const limitsOf = ({ precharge }: SphereLife) => spherePrechargeLimits(precharge, defaultWorkshopLimits);

function forecastText(forecast: SphereForecast, today: number): string {
  const due = forecast.nextCheck < today ? 'overdue since' : 'next check by';
  if (forecast.kind === 'too-few') return `One check says nothing of its future; ${due} ${dateOf(forecast.nextCheck)}.`;
  const between =
    forecast.crosses === null
      ? 'It does not fall to its limit within twenty years'
      : forecast.mayCross !== null && forecast.crosses - forecast.mayCross > 20
        ? `It falls to its limit about ${dateOf(forecast.crosses)}, perhaps as soon as ${dateOf(forecast.mayCross)}`
        : `It falls to its limit about ${dateOf(forecast.crosses)}`;
  return `${between}; ${due} ${dateOf(forecast.nextCheck)}.`;
}

/** Gas spheres by serial: what each held over the years, when it will want charging, and where it may go. */
export function SpheresPage({ spheres, sheets, chosen, today }: Props) {
  const [entering, setEntering] = useState(false);
  const sphere = spheres.find((each) => each.serial === chosen) ?? null;
  return (
    <>
      <PageHead
        title="Spheres"
        actions={
          <>
            <ShellControls />
            <Button variant="contained" color="primary" onClick={() => setEntering(true)}>
              Enter a sphere
            </Button>
          </>
        }
      >
        <p>Precharge by serial, restated to 20 °C</p>
      </PageHead>
      {entering && <EnterForm onDone={() => setEntering(false)} />}
      {spheres.length === 0 ? (
        <p className={styles.empty}>No sphere is in the book. Enter the first one by its serial.</p>
      ) : (
        <div className={styles.layout}>
          <nav aria-label="Spheres">
            <List className={styles.list}>
              {spheres.map((each) => {
                const forecast = forecastSphere(checksOf(each), limitsOf(each)[0]);
                return (
                  <ListItem key={each.serial}>
                    <Link
                      href={`/spheres?serial=${encodeURIComponent(each.serial)}`}
                      aria-current={each.serial === chosen ? 'true' : undefined}
                    >
                      <Tag serial={each.serial} />
                      <span>
                        {titleOf(sphereChoices, each.purpose)}
                        <small className={forecast.nextCheck < today ? styles.due : undefined}>
                          {forecast.nextCheck < today ? 'check overdue since' : 'check by'} {dateOf(forecast.nextCheck)}
                        </small>
                      </span>
                    </Link>
                  </ListItem>
                );
              })}
            </List>
          </nav>
          {sphere && <Life key={sphere.serial} sphere={sphere} sheets={sheets} today={today} />}
        </div>
      )}
    </>
  );
}

function Life({
  sphere,
  sheets,
  today,
}: {
  readonly sphere: SphereLife;
  readonly sheets: Props['sheets'];
  readonly today: number;
}) {
  const { units } = useShop();
  const { mode } = useColorScheme();
  const unit = shownUnit('gauge', units);
  const checks = checksOf(sphere);
  const limits = limitsOf(sphere);
  const forecast = forecastSphere(checks, limits[0]);
  const last = checks.at(-1);
  const text = forecastText(forecast, today);
  return (
    <section className={styles.life} aria-label={`Life of ${sphere.serial}`}>
      <h2>{text}</h2>
      <p>
        {titleOf(sphereChoices, sphere.purpose)}, {titleOf(fluidChoices, sphere.fluid).toLowerCase()},{' '}
        {figure(sphere.precharge, unit)} {unit.symbol} by its plate
        {sphere.fittedTo ? `; fitted to ${sphere.fittedTo}` : '; not fitted'}.
        {last ? ` Last read ${figure(last.precharge, unit, 2 * last.standard)} ${unit.symbol} gauge at 20 °C.` : ''}
      </p>
      <Chart
        option={sphereLifeOption({ checks, forecast, limits, today }, { unit, tokens: chartTokens(mode) })}
        text={`Precharge of ${sphere.serial} over the years. ${checks.map((check) => `${dateOf(check.day)}: ${figure(check.precharge, unit)} ${unit.symbol}`).join(', ')}. ${text}`}
        className={styles.chart}
      />
      <div className={styles.forms}>
        <CheckForm serial={sphere.serial} />
        <FitForm serial={sphere.serial} sheets={sheets} />
      </div>
    </section>
  );
}

/** What was typed, in the shop's unit where it names none. */
function withUnitOf(text: string, symbol: string): string {
  return text.trim() === '' || /[a-z"]/i.test(text) ? text : `${text} ${symbol}`;
}

/** Sends a form; what was typed stays, and what is wrong stands beside its field. */
function useSphereForm(action: 'enter' | 'check' | 'fit', onDone: () => void = () => undefined) {
  const router = useRouter();
  const { person } = useShop();
  const [fields, setFields] = useState<Readonly<Record<string, string>>>({});
  const [said, setSaid] = useState('');
  const submit = async (event: FormEvent, body: object, done: string) => {
    event.preventDefault();
    setFields({});
    setSaid('');
    try {
      await send('/api/spheres', { action, person, ...body });
      setSaid(done);
      onDone();
      router.refresh();
      return true;
    } catch (error) {
      if (error instanceof Refused) setFields(error.fields);
      setSaid(error instanceof Error ? error.message : String(error));
      return false;
    }
  };
  return { fields, said, submit };
}

function CheckForm({ serial }: { readonly serial: string }) {
  const form = useSphereForm('check');
  const { symbol } = shownUnit('gauge', useShop().units);
  const [reading, setReading] = useState('');
  const [temperature, setTemperature] = useState('20');
  return (
    <form
      className={styles.form}
      onSubmit={async (event) => {
        const kept = await form.submit(
          event,
          {
            serial,
            reading: withUnitOf(reading, symbol),
            temperatureC: typedNumber(temperature),
          },
          'Kept.',
        );
        if (kept) setReading('');
      }}
    >
      <h3>Record a check</h3>
      <TextField
        label="Charging tool reads"
        value={reading}
        onChange={(event) => setReading(event.target.value)}
        error={form.fields.reading !== undefined}
        helperText={form.fields.reading ?? `${symbol} gauge, or with another unit: 62 bar`}
      />
      <TextField
        label="Shell, °C"
        value={temperature}
        onChange={(event) => setTemperature(event.target.value)}
        error={form.fields.temperatureC !== undefined}
        helperText={form.fields.temperatureC ?? 'Settled for an hour'}
      />
      <Button type="submit">Keep it</Button>
      {form.said && <p role="status">{form.said}</p>}
    </form>
  );
}

function FitForm({ serial, sheets }: { readonly serial: string; readonly sheets: Props['sheets'] }) {
  const form = useSphereForm('fit');
  const [sheetId, setSheetId] = useState('');
  return (
    <form className={styles.form} onSubmit={(event) => void form.submit(event, { serial, sheetId }, 'Fitted.')}>
      <h3>Fit it</h3>
      <TextField
        select
        label="To"
        value={sheetId}
        onChange={(event) => setSheetId(event.target.value)}
        error={form.fields.sheetId !== undefined}
        helperText={form.fields.sheetId ?? 'Purpose and fluid must be the sheet’s'}
        slotProps={{ select: { native: true }, inputLabel: { shrink: true } }}
      >
        <option value="">choose</option>
        {sheets.map((sheet) => (
          <option key={sheet.id} value={sheet.id}>
            {sheet.name}
          </option>
        ))}
      </TextField>
      <Button type="submit">Fit it</Button>
      {form.said && form.fields.sheetId === undefined && <p role="status">{form.said}</p>}
    </form>
  );
}

function EnterForm({ onDone }: { readonly onDone: () => void }) {
  const form = useSphereForm('enter', onDone);
  const { symbol } = shownUnit('gauge', useShop().units);
  const [sphere, setSphere] = useState({ serial: '', purpose: 'brake', fluid: 'mineral', precharge: '' });
  const text = (name: 'serial' | 'precharge', label: string, help: string) => (
    <TextField
      label={label}
      value={sphere[name]}
      onChange={(event) => setSphere({ ...sphere, [name]: event.target.value })}
      error={form.fields[name] !== undefined}
      helperText={form.fields[name] ?? help}
    />
  );
  const choice = (
    name: 'purpose' | 'fluid',
    label: string,
    choices: readonly { readonly value: string; readonly title: string }[],
  ) => (
    <TextField
      select
      label={label}
      value={sphere[name]}
      onChange={(event) => setSphere({ ...sphere, [name]: event.target.value })}
      slotProps={{ select: { native: true } }}
    >
      {choices.map(({ value, title }) => (
        <option key={value} value={value}>
          {title}
        </option>
      ))}
    </TextField>
  );
  return (
    <form
      className={styles.enter}
      onSubmit={(event) =>
        void form.submit(event, { ...sphere, precharge: withUnitOf(sphere.precharge, symbol) }, 'Entered.')
      }
    >
      {text('serial', 'Serial', 'Off its plate')}
      {text('precharge', 'Precharge by its plate', `${symbol} gauge, at 20 °C`)}
      {choice('purpose', 'It is for', sphereChoices)}
      {choice('fluid', 'Fluid', fluidChoices)}
      <Button type="submit">Enter it</Button>
      <Button onClick={onDone}>Leave it</Button>
      {form.said && <p role="alert">{form.said}</p>}
    </form>
  );
}
