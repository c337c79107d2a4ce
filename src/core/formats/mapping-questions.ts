import type { MappedColumn } from './column-mapping';
import type { GuessedColumn, Inference } from './guess-mapping';
import type { QuestionedChannel } from './questioned-channels';

/** What has to be answered about a column before its log counts. */
export interface MappingQuestion {
  readonly column: number;
  readonly header: string;
  readonly why:
    | Extract<
        Inference,
        'unit-unknown' | 'scale-questioned' | 'reference-open' | 'unit-open' | 'unit-misfits' | 'time-unit-open'
      >
    | 'remembered-misfits';
}

const asked = ['unit-unknown', 'scale-questioned', 'reference-open'] as const;
/** Answered for good where a mapping is remembered: it says the unit. */
const askedOnce = ['unit-open', 'unit-misfits', 'time-unit-open'] as const;

/** Asked about the unit that is written or left out, whatever else the figures leave open. */
const isOfUnit = ({ why }: MappingQuestion) => askedOnce.some((each) => each === why);

const same = (one: MappedColumn, other: MappedColumn) => JSON.stringify(one) === JSON.stringify(other);

/**
 * Columns of a log that somebody has to look at before it is kept: those whose guess is open and was left as it is, and those that a
 * remembered mapping reads otherwise than this file's header and figures say. What was changed by hand is answered by that, unless its
 * figures are in doubt as they are mapped now (`questioned`).
 */
export function mappingQuestions(
  headers: readonly string[],
  mapping: readonly MappedColumn[],
  guesses: readonly GuessedColumn[],
  remembered: boolean,
  questioned: readonly QuestionedChannel[] = [],
): readonly MappingQuestion[] {
  const byGuess = askedByGuess(headers, mapping, guesses, remembered);
  // A column that was mapped by hand is asked about by its figures, where no guess has asked already.
  const byFigures = headers.flatMap((header, column): MappingQuestion[] => {
    const is = mapping[column];
    const found = is?.use === 'channel' ? questioned.find((each) => each.channel === is.channel) : undefined;
    const already = byGuess.some((each) => each.column === column && !isOfUnit(each));
    return found && !already ? [{ column, header, why: found.why }] : [];
  });
  return [...byGuess, ...byFigures];
}

function askedByGuess(
  headers: readonly string[],
  mapping: readonly MappedColumn[],
  guesses: readonly GuessedColumn[],
  remembered: boolean,
): readonly MappingQuestion[] {
  return headers.flatMap((header, column): MappingQuestion[] => {
    const [is, guess] = [mapping[column], guesses[column]];
    if (!is || !guess) return [];
    const once =
      remembered || !same(is, guess.mapped) ? undefined : askedOnce.find((each) => guess.inferred.includes(each));
    return [...(once ? [{ column, header, why: once }] : []), ...openIn({ header, column, is, guess, remembered })];
  });
}

interface Column {
  readonly header: string;
  readonly column: number;
  readonly is: MappedColumn;
  readonly guess: GuessedColumn;
  readonly remembered: boolean;
}

/** What a guess leaves open about a column that is mapped as guessed, or as remembered. */
function openIn({ header, column, is, guess, remembered }: Column): readonly MappingQuestion[] {
  if (is.use !== 'channel' || guess.mapped.use !== 'channel' || is.channel !== guess.mapped.channel) return [];
  const open = asked.find((each) => guess.inferred.includes(each));
  if (open) return same(is, guess.mapped) || remembered ? [{ column, header, why: open }] : [];
  const told = !guess.inferred.includes('unit-assumed') && !guess.inferred.includes('unit-open');
  return remembered && told && !same(is, guess.mapped) ? [{ column, header, why: 'remembered-misfits' }] : [];
}
