/** Half-height of a predicted step's band, as a share of it: the picture and the face draw the same one. */
export const staircaseTolerance = 0.15;
