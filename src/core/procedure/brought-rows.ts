import type { ChannelRow } from '../quantities/channels';
import type { CharacteristicRow } from '../quantities/characteristic-row';
import type { WorkshopLimits } from './workshop-limits';

/** Words and starting values that a family or a toolbox brings, one row each; the registry joins them. */
export interface BroughtRows {
  readonly characteristics?: Readonly<Record<string, CharacteristicRow>>;
  readonly channels?: Readonly<Record<string, ChannelRow>>;
  readonly controls?: readonly string[];
  readonly limits?: Partial<WorkshopLimits>;
}
