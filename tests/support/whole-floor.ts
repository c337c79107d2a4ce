import { floorView, type FloorView } from '@/server/views/floor-view';

/** The floor once every card on it is made, however long that takes. */
export const wholeFloor = (): Promise<FloorView> => floorView(undefined, Infinity);
