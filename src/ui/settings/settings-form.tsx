'use client';
import ListItem from '@mui/material/ListItem';
import { Bullets } from '@/ui/parts/bullets';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import InputAdornment from '@mui/material/InputAdornment';
import TextField from '@mui/material/TextField';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Controller, useForm, useWatch } from 'react-hook-form';
import { defaultWorkshopSchools, type WorkshopSchools } from '@/core/procedure/workshop-limits';
import { fromSi, unitOf } from '@/core/quantities/measurement-unit';
import { readFigure } from '@/core/quantities/read-figure';
import { verdictWords } from '@/core/wording/verdict-words';
import { shownUnit, type DisplayUnits } from '@/core/wording/display';
import { ambientFrom } from '@/core/quantities/standard-atmosphere';
import type { ShopSettings } from '@/data/settings';
import type { TurnedVerdict } from '@/server/desk/save-settings';
import { useShop } from '@/ui/shell/shop-context';
import { useDraft, dropDraft } from '@/ui/book-in/use-draft';
import { PageHead } from '@/ui/shell/frame';
import { ShellControls } from '@/ui/shell/key-map';
import { send } from '@/ui/shell/request';
import { showRefusal } from '@/ui/shell/show-refusal';
import { typedIn } from '@/ui/shell/typed-number';
import styles from '@/ui/book-in/book-in.module.css';

interface Fields {
  shopName: string;
  altitudeM: string;
  barometerKpa: string;
  airTemperatureC: string;
  shellTemperatureC: string;
  shellSettled: 'no' | 'yes';
  benchVolumeCm3: string;
  policy: ShopSettings['policy'];
  leastVacuum: WorkshopSchools['leastVacuum'];
  exhaust: WorkshopSchools['exhaust'];
  timeZone: string;
}

/** An atmosphere in the chosen units, to what a barometer can be read to. */
function airIn(pressure: number, units: DisplayUnits): string {
  const unit = shownUnit('absolute', units);
  return `${fromSi(pressure, unit).toFixed(unit.factor >= 1e3 ? 1 : 0)} ${unit.symbol}`;
}

/** A barometer as it is read: in kPa, or with the unit of the dial ("861 mbar"); undefined for an empty field, NaN for anything else. */
function barometerOf(text: string): number | undefined {
  const read = readFigure(text, { unit: unitOf('kPa'), reference: 'absolute', ambient: 0 });
  if (read.kind === 'empty') return undefined;
  return read.kind === 'figure' && read.either === null ? read.value / 1e3 : Number.NaN;
}

/** Zones that this browser knows. */
const zones: readonly string[] = Intl.supportedValuesOf('timeZone');

const shown = (value: number | undefined) => (value === undefined ? '' : String(value));

interface Props {
  readonly settings: ShopSettings;
  /** Time zone that holds while none is set. */
  readonly zone: string;
  /** What was stored cannot be read: these are the starting values. */
  readonly broken: boolean;
}

/** Where the shop is, its air today, and how it decides. */
export function SettingsForm({ settings, zone, broken }: Props) {
  const router = useRouter();
  const { site } = settings;
  const form = useForm<Fields>({
    defaultValues: {
      shopName: settings.shopName,
      altitudeM: shown(site.altitudeM),
      barometerKpa: shown(site.barometerKpa),
      airTemperatureC: shown(site.airTemperatureC),
      shellTemperatureC: shown(site.shellTemperatureC),
      shellSettled: site.shellSettled ? 'yes' : 'no',
      benchVolumeCm3: shown(site.benchVolumeCm3),
      policy: settings.policy,
      ...(site.schools ?? defaultWorkshopSchools),
      timeZone: site.timeZone ?? zone,
    },
  });
  useDraft('settings', form);
  const [said, setSaid] = useState('');
  const values = useWatch({ control: form.control }) as Fields;
  const [turned, setTurned] = useState<readonly TurnedVerdict[]>([]);
  const [confirmed, setConfirmed] = useState<string | null>(null);
  const { units } = useShop();
  const barometer = barometerOf(values.barometerKpa);
  const ambient = ambientFrom({
    altitude: typedIn('m', values.altitudeM),
    barometer: barometer === undefined ? undefined : barometer * 1e3,
  });

  const save = form.handleSubmit(async (fields) => {
    setSaid('');
    setTurned([]);
    try {
      const kept = await send<{ turned?: readonly TurnedVerdict[] }>(
        '/api/settings',
        {
          shopName: fields.shopName,
          policy: fields.policy,
          barometerConfirmed: confirmed === fields.barometerKpa,
          site: {
            altitudeM: typedIn('m', fields.altitudeM),
            barometerKpa: barometerOf(fields.barometerKpa),
            airTemperatureC: typedIn('°C', fields.airTemperatureC),
            shellTemperatureC: typedIn('°C', fields.shellTemperatureC),
            shellSettled: fields.shellSettled === 'yes',
            benchVolumeCm3: typedIn('cm3', fields.benchVolumeCm3),
            timeZone: fields.timeZone,
            schools: { leastVacuum: fields.leastVacuum, exhaust: fields.exhaust },
          },
        },
        'PUT',
      );
      dropDraft('settings');
      setSaid('Saved. Steps run from now on use it; runs already kept keep their own air.');
      setTurned(kept.turned ?? []);
      router.refresh();
    } catch (error) {
      setSaid(showRefusal(form, error, (name) => name.replace(/^site\.(schools\.)?/, '')));
    }
  });

  const field = (name: keyof Fields, label: string, unit: string, help: string, children?: React.ReactNode) => (
    <Controller
      name={name}
      control={form.control}
      render={({ field: { ref, ...input }, fieldState }) => (
        <TextField
          {...input}
          id={`settings-${name}`}
          inputRef={ref}
          label={label}
          error={fieldState.invalid}
          helperText={fieldState.error?.message ?? help}
          select={children !== undefined}
          slotProps={{
            select: { native: true },
            input: unit ? { endAdornment: <InputAdornment position="end">{unit}</InputAdornment> } : {},
          }}
        >
          {children}
        </TextField>
      )}
    />
  );

  return (
    <>
      <PageHead title="Settings" actions={<ShellControls />} />
      <div className={styles.layout}>
        <form className={styles.form} onSubmit={(event) => void save(event)} noValidate>
          {said && <p role="status">{said}</p>}
          {turned.length > 0 && (
            <section aria-label="Verdicts that it turned">
              <p>{turned.length === 1 ? 'One verdict is another now:' : `${turned.length} verdicts are others now:`}</p>
              <Bullets>
                {turned.map(({ jobId, serial, step, from, to }) => (
                  <ListItem key={`${jobId} ${step}`}>
                    <Link href={`/jobs/${jobId}`}>{serial}</Link>, {step}: {verdictWords[from].toLowerCase()} before,{' '}
                    {verdictWords[to].toLowerCase()} now
                  </ListItem>
                ))}
              </Bullets>
            </section>
          )}
          {broken && (
            <Alert severity="warning">
              What was stored of the settings cannot be read: these are starting values. Nothing is measured until they
              are saved again.
            </Alert>
          )}
          <div className={styles.pair}>
            {field('shopName', 'Workshop', '', ' ')}
            {field(
              'timeZone',
              'Time zone',
              '',
              'By it days begin, calibrations fall due and papers are dated',
              [...zones, ...(zones.includes(values.timeZone) ? [] : [values.timeZone])].map((each) => (
                <option key={each} value={each}>
                  {each.replaceAll('_', ' ')}
                </option>
              )),
            )}
          </div>
          <div className={styles.pair}>
            {field('altitudeM', 'Altitude', 'm', 'Above the sea')}
            {field(
              'barometerKpa',
              'Station barometer',
              'kPa',
              'Read in the shop; a weather service’s figure is reduced to sea level',
            )}
          </div>
          <div className={styles.pair}>
            {field('airTemperatureC', 'Air temperature', '°C', ' ')}
            {field('benchVolumeCm3', 'Bench volume', 'cm3', 'Hoses, tee and gauges on the vacuum side')}
          </div>
          <div className={styles.pair}>
            {field('shellTemperatureC', 'Shell of a store', '°C', 'Left empty, as warm as the air')}
            {field('shellSettled', 'Shell settled', '', 'Otherwise 5 K either way are allowed for', [
              <option key="no" value="no">
                not known to be
              </option>,
              <option key="yes" value="yes">
                in the shop’s air for an hour
              </option>,
            ])}
          </div>
          {field('policy', 'Decisions', '', 'Printed on every report', [
            <option key="guarded" value="guarded">
              Guarded: the whole uncertainty on one side
            </option>,
            <option key="simple" value="simple">
              Simple acceptance: the reading as it stands
            </option>,
          ])}
          <div className={styles.pair}>
            {field('leastVacuum', 'Least vacuum', '', 'At the sea; restated for today’s air', [
              <option key="both" value="both">
                Both schools: 16 inHg, marginal below 18
              </option>,
              <option key="sixteen" value="sixteen">
                16 inHg
              </option>,
              <option key="eighteen" value="eighteen">
                18 inHg at hot idle
              </option>,
            ])}
            {field('exhaust', 'The reserve is used up', '', 'How many strokes are pumped before a pedal drop', [
              <option key="two-alike" value="two-alike">
                When two strokes read the same
              </option>,
              <option key="count" value="count">
                After eight strokes
              </option>,
            ])}
          </div>
          <div className={styles.row}>
            <Button type="submit" variant="contained" color="primary">
              Save
            </Button>
          </div>
        </form>
        <aside className={styles.side}>
          <h2>Today’s air</h2>
          <p>
            {Number.isFinite(ambient.pressure)
              ? `${airIn(ambient.pressure, units)} absolute. No pump here reads more than ${airIn(ambient.pressure, units)}.`
              : 'Type a figure.'}
          </p>
          {ambient.questionedBy !== null && (
            <p role="alert" className={styles.error}>
              This barometer is {(Math.abs(ambient.questionedBy) / 1e3).toFixed(1)} kPa{' '}
              {ambient.questionedBy > 0 ? 'above' : 'below'} what the altitude gives. Is it a station reading, not one
              reduced to sea level?{' '}
              {confirmed === values.barometerKpa ? (
                'Looked at again.'
              ) : (
                <Button size="small" onClick={() => setConfirmed(values.barometerKpa)}>
                  It is so
                </Button>
              )}
            </p>
          )}
          <h2>People</h2>
          <p>
            <Link href="/settings/people">Who works here</Link>: what is done is put on record with a name.
          </p>
          <h2>Faults</h2>
          <p>
            A ranking begins with <Link href="/settings/prevalence">how common each fault is</Link> in this workshop.
          </p>
        </aside>
      </div>
    </>
  );
}
