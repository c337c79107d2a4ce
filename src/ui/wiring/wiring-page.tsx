'use client';
import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { useSyncExternalStore } from 'react';
import type { Wiring, WiringPlan } from '@/core/calculators/wire-and-fuse';
import type { SheetToWire } from '@/server/shop/library';
import { keepText, keptText, onStoreChange, textsByName } from '../shell/browser-store';
import { PageHead } from '../shell/frame';
import { AskedFigures } from '../parts/asked-figures';
import { Choice } from '../parts/choice';
import { emptyWiring, filledFrom, wiringFields, wiringOf, type WiringTexts } from './wiring-form';
import { WiringDrawing } from './wiring-drawing';
import styles from '../parts/calculator.module.css';

const key = 'hard-pedal-draft-wiring';

interface Props {
  readonly sheets: readonly SheetToWire[];
  /** Id of the sheet that the page was opened for; null where it was opened for none. */
  readonly chosen: string | null;
}

/** What stands in the form: kept in this browser, else what the sheet says. */
function useTexts({ sheets, chosen }: Props) {
  const kept = useSyncExternalStore(
    onStoreChange,
    () => keptText(key),
    () => null,
  );
  const asked = sheets.find((each) => each.id === chosen);
  const typed: WiringTexts = { ...emptyWiring, ...textsByName(kept) };
  const texts = asked && typed.sheet !== asked.id ? filledFrom(asked, typed) : typed;
  const keep = (more: WiringTexts) => keepText(key, JSON.stringify(more));
  return { texts, keep };
}

const noneBecause = {
  drop: 'No wire that is sold is thick enough: shorten the run, or allow a larger drop.',
  fuse: 'No wire that is sold carries a fuse for this load: feed the unit twice, or lay it where it is cooler.',
  'too-hot': 'At this temperature no insulation lasts: lay it elsewhere.',
} as const;

/** Sizes wire and fuse of a unit's feed and ground, draws them and lists the parts. */
export function WiringPage(props: Props) {
  const { sheets } = props;
  const { texts, keep } = useTexts(props);
  const wiring = wiringOf(texts);
  const sheet = sheets.find((each) => each.id === texts.sheet);
  const choose = (id: string) => {
    const found = sheets.find((each) => each.id === id);
    keep(found ? filledFrom(found, texts) : { ...texts, sheet: '' });
  };
  return (
    <>
      <PageHead
        title="Wiring"
        actions={
          <Button
            className={styles.print}
            variant="outlined"
            disabled={wiring?.kind !== 'plan'}
            onClick={() => window.print()}
          >
            Print the plan
          </Button>
        }
      >
        <p>Wire and fuse of a feed, with its ground</p>
      </PageHead>
      <div className={styles.layout}>
        <form className={styles.form} aria-label="What it has to carry" onSubmit={(event) => event.preventDefault()}>
          <div className={styles.sheet}>
            <label htmlFor="wiring-sheet">Unit sheet</label>
            <Choice id="wiring-sheet" value={texts.sheet} onChange={choose}>
              <option value="">none</option>
              {sheets.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </Choice>
          </div>
          <AskedFigures
            fields={wiringFields}
            texts={texts}
            onChange={(field, text) => keep({ ...texts, [field]: text })}
          />
        </form>
        <section className={styles.plan} aria-label="Plan" aria-live="polite">
          <Outcome wiring={wiring} texts={texts} sheet={sheet} />
        </section>
      </div>
    </>
  );
}

interface OutcomeProps {
  readonly wiring: Wiring | null;
  readonly texts: WiringTexts;
  readonly sheet: SheetToWire | undefined;
}

function Outcome({ wiring, texts, sheet }: OutcomeProps) {
  if (!wiring) return <p>Say what it draws and how far it is: the plan is drawn here.</p>;
  if (wiring.kind === 'none')
    return (
      <p role="alert">
        {noneBecause[wiring.because]} {wiring.neededArea.toFixed(2)} mm² would be needed.
      </p>
    );
  const unit = sheet?.name ?? 'unit';
  return (
    <>
      <h2>
        {wiring.area} mm² behind {wiring.fuse} A
      </h2>
      <p>
        The drop asks for {wiring.neededArea.toFixed(2)} mm²
        {wiring.decidedBy === 'fuse' ? '; the fuse asks for more' : ''}. {wiring.loss.toFixed(3)} V are lost at the
        peak, {wiring.lossEachSide.toFixed(3)} V on each side. At {texts.temperature} °C this wire carries{' '}
        {wiring.ampacity.toFixed(1)} A.
      </p>
      <p>
        The fuse carries {wiring.average.toFixed(1)} A on average
        {wiring.averageAssumed ? ', 0.7 of the peak because nobody said,' : ''} with a quarter to spare.
        {sheet && sheet.mainFuse !== wiring.fuse
          ? ` The sheet names ${sheet.mainFuse} A: the maker’s figure wins.`
          : ''}
      </p>
      <WiringDrawing plan={wiring} length={texts.length} unit={unit} />
      <Parts plan={wiring} length={texts.length} />
      <p className={styles.caution}>
        Battery off before a wire is laid. The maker’s wiring data and the local rules come first; table for single
        cables in free air at 30 °C.
      </p>
    </>
  );
}

function Parts({ plan, length }: { readonly plan: WiringPlan; readonly length: string }) {
  const rows = [
    ['Fuse with holder, close to the battery', `${plan.fuse} A`, '1'],
    ['Feed wire, copper', `${plan.area} mm²`, `${length} m`],
    ['Ground wire, copper', `${plan.area} mm²`, `${length} m`],
    ['Ring terminals', `${plan.area} mm²`, '4'],
  ];
  return (
    <Table size="small" aria-label="Parts">
      <TableHead>
        <TableRow>
          <TableCell>Part</TableCell>
          <TableCell>Size</TableCell>
          <TableCell>How much</TableCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {rows.map(([part, size, much]) => (
          <TableRow key={part}>
            <TableCell>{part}</TableCell>
            <TableCell>{size}</TableCell>
            <TableCell>{much}</TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  );
}
