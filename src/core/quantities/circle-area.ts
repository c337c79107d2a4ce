/** Area (m2) of a bore or diaphragm of this diameter (mm). */
export const circleArea = (diameterMm: number) => (Math.PI / 4) * (diameterMm * 1e-3) ** 2;
