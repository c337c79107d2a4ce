/** Where the screens under test were sent, and how often they asked for what the server has now. */
export const push = jest.fn();
export const refresh = jest.fn();
