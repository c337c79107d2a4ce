/** Typefaces that ship with the application: of words, and of figures. Single quotes, because they stand in attributes of pictures too. */
export const textFace = "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif";
export const figureFace = "'Atkinson Hyperlegible Mono Variable', ui-monospace, monospace";
