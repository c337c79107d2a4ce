/** Speeds that the stand-in may run at, times real time. */
export const recorderSpeeds = [1, 5, 20, 400] as const;
