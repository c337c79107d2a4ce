import { thinned } from '@/core/traces/decimate';
import { concatTraces, sliceTrace, type Trace } from '@/core/traces/trace';

/** Samples in a block, about; what is thinned at once is two of them, which takes a few milliseconds. */
const blockOf = 8_000;
/** Stretches that two blocks are thinned to. */
const thinnedTo = 400;

interface Block {
  readonly samples: Trace;
  /** How often it was thinned. */
  readonly coarseness: number;
}

/**
 * What a run's screens are shown of all that was recorded: as it is while it is short; later what is oldest is thinned to the lowest and
 * highest of every stretch, a little at a time, so that a recorder is never late for it.
 */
export class ShownSoFar {
  private readonly blocks: Block[] = [];
  private open: Trace[] = [];
  private inOpen = 0;
  private inBlocks = 0;

  /** `most`: so many samples are kept, about. */
  constructor(private readonly most: number) {}

  add(fresh: Trace): void {
    // What a run had recorded before it was interrupted comes at once.
    for (let from = 0; from < fresh.time.length; from += blockOf)
      this.addPart(fresh.time.length <= blockOf ? fresh : sliceTrace(fresh, from, from + blockOf));
  }

  private addPart(fresh: Trace): void {
    this.open.push(fresh);
    this.inOpen += fresh.time.length;
    if (this.inOpen < blockOf) return;
    this.blocks.push({ samples: concatTraces(this.open), coarseness: 0 });
    this.inBlocks += this.inOpen;
    this.open = [];
    this.inOpen = 0;
    // Two at the most: one is thinned for every block that comes, another for what has grown too long.
    for (let i = 0; i < 2 && this.inBlocks > this.most; i++) this.thinOldest();
  }

  /** Everything, oldest first. */
  whole(): Trace {
    return concatTraces([...this.blocks.map(({ samples }) => samples), ...this.open]);
  }

  /**
   * Two neighbours become one: of what was thinned already where three of one coarseness stand, else the oldest that never was. So what is
   * older is at least as coarse, and there are few of each coarseness.
   */
  private thinOldest(): void {
    const { blocks } = this;
    const many = (coarseness: number) => blocks.filter((each) => each.coarseness === coarseness).length > 2;
    const coarseness = blocks.find((each) => each.coarseness > 0 && many(each.coarseness))?.coarseness ?? 0;
    const at = blocks.findIndex((each) => each.coarseness === coarseness);
    if (at < 0 || blocks[at + 1]?.coarseness !== coarseness) return;
    const [one, two] = blocks.slice(at, at + 2);
    const both = thinned(concatTraces([one.samples, two.samples]), thinnedTo);
    blocks.splice(at, 2, { samples: both, coarseness: coarseness + 1 });
    this.inBlocks += both.time.length - one.samples.time.length - two.samples.time.length;
  }
}
